import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { compute } from '../core/src/compute/compute.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { programsFor } from '../core/src/machines/programs.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

test('depths of a V-carving are rounded upwards, never deeper than they were worked out', async () => {
  const { job, assets } = readJobFile(readFileSync(new URL('../demo/jobs/comet-marker.kerbe.json', import.meta.url), 'utf8'));
  const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const result = await compute(job, resources, await clipperFromDisk());
  const carving = result.cuts.findIndex(({ slope }) => slope > 0);
  let compared = 0;
  for (const { text, moves, cuts } of programsFor(job, result, { revision: '1', date: '2026-11-25' })) {
    const lines = text.split('\n');
    const own = cuts.findIndex(({ id }) => id === result.cuts[carving].id);
    const zero = job.stock.zeroZ === 'stock' ? 0 : -Math.max(...job.stock.corners);
    for (const { line, cut, point } of moves) {
      const z = /Z(-?[\d.]+)/.exec(lines[line])?.[1];
      if (cut !== own || z === undefined) continue;
      expect(Number(z) + zero).toBeGreaterThan(result.cuts[carving].path.xyz[3 * point + 2] - 1e-9);
      compared++;
    }
  }
  expect(compared).toBeGreaterThan(100);
}); // prettier-ignore

test('bits are called by their numbers in the job’s list, and remarks say their names', async () => {
  const { job, assets } = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
  const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const result = await compute(job, resources, await clipperFromDisk());
  const called = programsFor(job, result, { revision: '1', date: '2026-11-25' }).flatMap(({ text }) =>
    [...text.matchAll(/^T(\d+) M6$/gm)].map(([, n]) => job.bits[Number(n) - 1]?.id),
  );
  const wanted = result.cuts.map(({ bit }) => bit).filter((bit, k, all) => bit !== all[k - 1]);
  expect(called).toEqual(wanted);
}); // prettier-ignore

test('one program for each bit that comes in, each with all that this bit cuts before the next', async () => {
  const { job, assets } = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
  const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const result = await compute(job, resources, await clipperFromDisk());
  const separate = { ...job, bench: { ...job.bench, dialect: 'operator-spindle' } } as typeof job;
  const programs = programsFor(separate, result, { revision: '1', date: '2026-11-25' });
  const runs: { bit: string; cuts: string[] }[] = [];
  for (const { id, bit } of result.cuts) {
    const name = job.bits.find((b) => b.id === bit)!.name;
    if (runs.at(-1)?.bit === name) runs.at(-1)!.cuts.push(id);
    else runs.push({ bit: name, cuts: [id] });
  }
  expect(programs.map(({ bit, cuts }) => ({ bit, cuts: cuts.map(({ id }) => id) }))).toEqual(runs);
  expect(runs.some(({ cuts }) => cuts.length > 1)).toBe(true);
  for (const { text } of programs) expect(text.match(/^T\d+ M6$/gm) ?? []).toHaveLength(1);
}); // prettier-ignore
