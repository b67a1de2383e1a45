import { readFileSync } from 'node:fs';
import jsonPatch from 'fast-json-patch';
import { describe, expect, test } from 'vitest';
import type { VBit } from '@kerbe/core/tools/v/fields';
import { compute, ComputeCache } from '../core/src/compute/compute.ts';
import type { CutJob as Job } from '../core/src/job/job.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { measureQuicker, outcomeOf } from '../core/src/remarks/quicker.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const demo = (name: string) => {
  const { job, assets } = readJobFile(
    readFileSync(new URL(`../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'),
  );
  const cache = new ComputeCache();
  const resources = resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const run = async (j: Job) => compute(j, await resources, await clipperFromDisk(), { cache });
  const outcome = async (j: Job) => outcomeOf(await run(j));
  return { job, run, outcome };
};

describe('what would make it quicker', () => {
  test('nothing is offered that could not be cut any more, nor a bit with a blunter tip', async () => {
    const { job } = demo('entrance-board');
    const cut = job.cuts.find(({ kind }) => kind === 'v-carve')!;
    const own = job.bits.find(({ id }) => id === cut.bit) as VBit;
    const blunt: VBit = { ...structuredClone(own), id: 'blunt', name: 'Blunt', tip: own.tip + 0.5 };
    job.bits.push(blunt);
    const now = { minutes: 100, bitChanges: 1, depths: { [cut.id]: 5 }, nodes: {} };
    const asked: string[] = [];
    // Everything is said to be quicker; with another bit the cut is lost.
    const found = await measureQuicker(job, now, (changed) => {
      const bit = changed.cuts.find(({ id }) => id === cut.id)!.bit;
      asked.push(bit);
      const nodes = Object.fromEntries(job.artwork.map(({ id }) => [id, { drawn: 0, now: 0, off: 0 }]));
      return Promise.resolve({ ...now, nodes, minutes: 50, depths: { [cut.id]: bit === own.id ? 5 : undefined } });
    });
    expect(asked).not.toContain('blunt');
    expect(asked.some((bit) => bit !== own.id)).toBe(true);
    expect(found.length).toBeGreaterThan(0);
    expect(found.filter(({ id }) => id.startsWith('bit-'))).toEqual([]);
  });

  test('every saving promised is the saving that comes, the largest first', async () => {
    const { job, outcome } = demo('entrance-board');
    const now = await outcome(job);
    const found = await measureQuicker(job, now, outcome);
    expect(found.length).toBeGreaterThan(2);
    expect(found.map(({ id }) => id)).toContain('bit-carve-v90');
    const told: string[] = [];
    for (const { patch, minutesSaved, effect } of found) {
      const then = await outcome(jsonPatch.applyPatch(structuredClone(job), patch).newDocument);
      expect(now.minutes - then.minutes).toBeCloseTo(minutesSaved, 9);
      expect(minutesSaved).toBeGreaterThan(0);
      // What it says of depth is what becomes of it.
      const changes = Object.keys(now.depths).map((id) => (then.depths[id] ?? 0) - (now.depths[id] ?? 0));
      const change = changes.find((by) => Math.abs(by) >= 0.05) ?? 0;
      const [, by, which] = /([\d.]+) mm (less deep|deeper)/.exec(effect) ?? [];
      expect(which, effect).toBe(change === 0 ? undefined : change < 0 ? 'less deep' : 'deeper');
      if (which) told.push(which);
      if (which) expect(Number(by)).toBeCloseTo(Math.abs(change), 1);
    }
    expect(new Set(told)).toContain('less deep');
    expect([...found].sort((a, b) => b.minutesSaved - a.minutesSaved)).toEqual(found);
  });
  test('an order of one’s own that costs bit changes is offered the usual one', async () => {
    const { job, run, outcome } = demo('night-light');
    const own = structuredClone(job);
    own.cuts = ['moon', 'lights', 'star', 'edge'].map((id) => own.cuts.find((cut) => cut.id === id)!);
    own.ownOrder = true;
    const result = await run(own);
    expect(result.cuts[0].cut).toBe('moon');
    expect(result.remarks.map(({ id }) => id)).toContain('order');
    expect((await run(job)).cuts[0].cut).toBe('lights');
    const found = await measureQuicker(own, await outcome(own), outcome);
    expect(found.map(({ id }) => id)).toContain('order');
  });
  test('slots, fewer bit changes and smoother outlines are measured where they gain something', async () => {
    const { job, outcome } = demo('night-light');
    const found = await measureQuicker(job, await outcome(job), outcome);
    const slots = found.find(({ id }) => id === 'slots-moon');
    expect(slots?.effect).toMatch(/whole width/);
    // In an order of one's own the 6 mm and the 3 mm bit take turns five times; three are enough.
    const own = structuredClone(job);
    const named = (id: string) => own.cuts.find((cut) => cut.id === id)!;
    const pocket = own.cuts.find((cut) => cut.kind === 'pocket')!;
    const again = { ...pocket, id: 'again', bit: 'e6', step: 2.5, depth: pocket.depth + 0.5, clearBits: [] };
    own.cuts = [named('lights'), pocket, again, named('star'), named('edge')];
    own.ownOrder = true;
    const now = await outcome(own);
    expect(now.bitChanges).toBe(5);
    const offered = (await measureQuicker(own, now, outcome)).find(({ id }) => id === 'fewer-changes')!;
    const then = await outcome(jsonPatch.applyPatch(structuredClone(own), offered.patch).newDocument);
    expect(then.bitChanges).toBe(3);
    expect(now.minutes - then.minutes).toBeCloseTo(offered.minutesSaved, 9);
  });
  test('a pocket that a small bit clears alone, in fine steps, is offered a larger bit first and a usual step', async () => {
    const { job, outcome } = demo('night-light');
    const own = structuredClone(job);
    const pocket = own.cuts.find((cut) => cut.kind === 'pocket')!;
    Object.assign(pocket, { step: 0.5, clearBits: [] });
    own.cuts = [pocket];
    const now = await outcome(own);
    const found = await measureQuicker(own, now, outcome);
    expect(found.map(({ id }) => id).filter((id) => id !== 'lift')).toEqual([
      'clear-moon-e6',
      'step-moon',
      'slots-moon',
    ]);
    const [larger] = found;
    expect([larger.id, larger.text]).toEqual(['clear-moon-e6', expect.stringMatching(/^Clear .* with End mill 6\.35 first$/)]); // prettier-ignore
    expect(found.find(({ id }) => id === 'step-moon')!.text).toMatch(/^Step of 1\.27 mm in /);
    // No smaller bit than its own, and nothing that it has already.
    Object.assign(pocket, { bit: 'e6', step: 2.5, slots: true });
    expect(await measureQuicker(own, await outcome(own), outcome)).toEqual(found.filter(({ id }) => id === 'lift'));
  });
  test('a traced outline is offered a refit, with nodes before and after and how far an edge moves', async () => {
    const wobbly = Array.from({ length: 1200 }, (_, i) => {
      const a = (2 * Math.PI * i) / 1200;
      const r = 30 + 6 * Math.cos(2 * a) + 0.02 * Math.sin(i * 78.233);
      return `${(60 + r * Math.cos(a)).toFixed(4)} ${(45 + r * Math.sin(a)).toFixed(4)}`;
    });
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="90mm" viewBox="0 0 120 90"><path d="M${wobbly.join('L')}z"/></svg>`;
    const { job } = demo('comet-marker');
    const own = structuredClone(job);
    own.artwork = [
      {
        id: 'cloud',
        kind: 'drawing',
        name: 'Cloud',
        asset: 'e'.repeat(64),
        x: 30,
        y: 50,
        rotation: 0,
        scaleX: 1,
        scaleY: 1,
        closeOpen: false,
        refit: 0,
      },
    ];
    own.cuts = own.cuts
      .filter((cut) => cut.kind === 'v-carve')
      .map((cut) => ({ ...cut, targets: [{ item: 'cloud', shapes: 'all' }], depthLimit: 3 }));
    const resources = await resourcesFromDisk(() => new TextEncoder().encode(svg));
    const clipper = await clipperFromDisk();
    const outcome = async (j: Job) => outcomeOf(await compute(j, resources, clipper, { unjudged: true }));
    const now = await outcome(own);
    expect(now.nodes.cloud).toEqual({ drawn: 1200, now: 1200, off: 0 });
    const refit = (await measureQuicker(own, now, outcome)).find(({ id }) => id === 'refit-cloud')!;
    expect(refit.text).toBe('Refit the outlines of Cloud within 0.05 mm');
    expect(refit.effect).toMatch(/^1200 nodes become \d+, and no edge moves by more than 0\.0\d+ mm$/);
    const then = await outcome(jsonPatch.applyPatch(structuredClone(own), refit.patch).newDocument);
    expect(now.minutes - then.minutes).toBeCloseTo(refit.minutesSaved, 9);
    expect(then.nodes.cloud.now).toBeLessThan(100);
    expect(then.nodes.cloud.off).toBeLessThanOrEqual(0.05);
  });
});
