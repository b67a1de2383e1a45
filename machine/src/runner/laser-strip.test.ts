import { createHash } from 'node:crypto';
import { afterEach, describe, expect, test } from 'vitest';
import { compute } from '@kerbe/core/compute/compute';
import { lateStrip } from '@kerbe/core/cuts/laser-fill/late-strip';
import { kindOf } from '@kerbe/core/cuts/kinds';
import type { Job } from '@kerbe/core/document/job';
import { JobSchema } from '@kerbe/core/job/job';
import type { Beam } from '@kerbe/core/tools/beam/fields';
import { clipperFromDisk, resourcesFromDisk } from '../core-from-disk.ts';
import { LANTERN } from '../kinds/laser/stand-in/made-as.ts';
import { LaserBenchForTests } from './laser-bench-for-tests.ts';
import { demoJob } from './test-bench.ts';

let bench: LaserBenchForTests;
afterEach(() => bench?.end());

/** The strip for the lantern room, whose bench says that its beam comes at once. */
async function strip(said: number) {
  const { job: tags } = await demoJob('star-tags');
  const own = { ...tags.bench, lag: said } as Job['bench'];
  const made = lateStrip(tags.bits[0] as Beam, own, tags.stock.material, 3, 'mm');
  const bytes = new TextEncoder().encode(made.svg);
  const job = made.job(createHash('sha256').update(bytes).digest('hex'));
  const result = await compute(job, await resourcesFromDisk(() => bytes), await clipperFromDisk(), { unjudged: true });
  return { made, job, result };
}

describe('a strip that finds how late the beam comes', () => {
  test('burnt on the stand-in, the square of its own lateness has flush ends, and the others the less the further off', async () => {
    const late = 0.0016;
    const { made, job, result } = await strip(0);
    expect(made.late).toEqual([0, 0.4, 0.8, 1.2, 1.6, 2]);
    bench = new LaserBenchForTests({ rate: 20, as: { ...LANTERN, lag: late } });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await bench.until(() => bench.ended.length > 0, 'the run to end');
    expect(bench.ended[0].phase).toBe('done');
    const stock = bench.machine.stock!;
    const begins = (row: number, from: number, to: number): number | undefined => {
      for (let c = Math.floor(from / stock.cell); c < to / stock.cell; c++)
        if (stock.stateAt(row * stock.columns + c) > 0) return c * stock.cell;
      return undefined;
    };
    // How far every other line's end stands out at the left of each square.
    const out = made.late.map((_, k) => {
      const left = 6 + k * 15;
      // Rows of cells that are burnt next to each other are one line.
      const ends: number[] = [];
      let before: number | undefined;
      for (let row = Math.floor(11 / stock.cell); row < 23 / stock.cell; row++) {
        const end = begins(row, left - 2, left + 5);
        if (end !== undefined && before === undefined) ends.push(end);
        before = end;
      }
      expect(ends.length).toBeGreaterThan(12);
      const mean = (all: number[]) => all.reduce((sum, end) => sum + end, 0) / all.length;
      return Math.abs(mean(ends.filter((_, i) => i % 2 === 0)) - mean(ends.filter((_, i) => i % 2 === 1)));
    });
    const best = out.indexOf(Math.min(...out));
    expect(made.late[best]).toBe(1.6);
    for (let k = 1; k <= best; k++) expect(out[k - 1]).toBeGreaterThan(out[k]);
    // 2 · 100 mm/s · 1.6 ms.
    expect(out[0]).toBeGreaterThan(0.2);
  });

  test('its best square becomes what the bench says, and all other squares keep their own time', async () => {
    const { made, job } = await strip(0.0008);
    expect(made.late).toEqual([0, 0.4, 0.8, 1.2, 1.6, 2, 2.4, 2.8]);
    const total = (j: Job) => j.cuts.map((cut) => Math.round(((j.bench.lag ?? 0) * 1000 + ((cut as { earlier?: number }).earlier ?? NaN)) * 100) / 100); // prettier-ignore
    const before = total(job);
    expect(before.slice(0, -1)).toEqual(made.late);
    expect(JobSchema.parse(job)).toMatchObject({ name: job.name });
    const cut = job.cuts.find(({ id }) => id === 'late-1-6')!;
    const found = kindOf(cut).toBench!(cut as never, job)!;
    expect(found.lag).toBeCloseTo(0.0016, 9);
    expect(found.says).toMatch(/^Keep 1\.6 ms as how late the beam of .+ comes$/);
    const { default: jsonPatch } = await import('fast-json-patch');
    const next = jsonPatch.applyPatch(structuredClone(job), found.patch).newDocument;
    expect(total(next)).toEqual(before);
    // The one that is right says nothing more.
    expect(kindOf(cut).toBench!(next.cuts.find(({ id }) => id === 'late-1-6') as never, next)).toBeUndefined();
  });
});
