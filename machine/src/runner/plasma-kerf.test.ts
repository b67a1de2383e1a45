import { afterEach, beforeAll, describe, expect, test } from 'vitest';
import { type JobResult, shapesOf } from '@kerbe/core/compute/compute';
import type { PlasmaFacts } from '@kerbe/core/cuts/plasma/facts';
import type { Job } from '@kerbe/core/document/job';
import type { Clipper } from '@kerbe/core/geometry/clipper';
import { signedArea } from '@kerbe/core/geometry/outline';
import { clipperFromDisk } from '../core-from-disk.ts';
import { cutOut, NOTHING_DAMAGED, partsOf, PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { demoJob } from './test-bench.ts';

let bench: PlasmaBenchForTests;
let clipper: Clipper;
beforeAll(async () => {
  clipper = await clipperFromDisk();
});
afterEach(() => bench?.end());

const drawn = (job: Job, { items }: JobResult): number[][] =>
  job.cuts.flatMap((cut) =>
    shapesOf(cut, items).flatMap(({ outlines }) =>
      outlines.map(({ points, closed }) => [...points, ...(closed ? points.slice(0, 2) : [])]),
    ),
  );

/** Bench and cut leave the kerf to the controller. */
function left(job: Job): void {
  Object.assign(job.bench, { kerfBy: 'controller' });
  for (const cut of job.cuts) Object.assign(cut, { by: 'controller' });
}

async function cutAll(job: Job, result: JobResult, change: (text: string) => string = (text) => text): Promise<void> {
  bench = new PlasmaBenchForTests({ rate: 20, seed: 3 });
  await bench.setUp(job, 0, undefined, drawn(job, result));
  const order = bench.order(job, result);
  const { text, timeline } = bench.programs.kept.get(order.hash)!;
  await bench.run({ ...order, hash: bench.programs.keep(change(text), timeline) });
  await bench.until(() => bench.ended.length > 0, 'the run to end');
}

/** Areas of the parts that are missing, or too much, beyond a distance from the drawing, mm². */
function off(job: Job, result: JobResult, by: number): { short: number; beyond: number } {
  const ideal = partsOf(result, job, clipper);
  const { kerf } = result.cuts[0].facts as PlasmaFacts;
  const actual = clipper.intersection(cutOut(bench.machine, clipper), clipper.offset(ideal, kerf / 2));
  const area = (loops: Float64Array[]) => loops.reduce((sum, loop) => sum + signedArea(loop), 0);
  return {
    beyond: area(clipper.difference(actual, clipper.offset(ideal, by))),
    short: area(clipper.difference(clipper.offset(ideal, -by), actual)),
  };
}

describe.each(['comet-weathervane', 'garden-markers'])('%s, its kerf left to the controller', (name) => {
  test('comes out as it is drawn, within 0.05 mm: the program says on which side, and swings out on straight moves', async () => {
    const { job, result } = await demoJob(name, left, 'controller');
    await cutAll(job, result);
    expect([bench.ended[0].phase, bench.ended[0].why]).toEqual(['done', undefined]);
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
    const { short, beyond } = off(job, result, 0.05);
    // Slivers at corners, where the torch slows down and cuts wider.
    expect(short).toBeLessThan(0.05);
    expect(beyond).toBeLessThan(0.05);
    const lines = [...bench.programs.kept.values()].at(-1)!.text.split('\n');
    const led = lines.flatMap((line, k) => (line === 'G41 D1' ? [k] : []));
    expect(led).toHaveLength((result.cuts[0].facts as PlasmaFacts).pierces.length);
    for (const k of led) expect(lines.slice(k).find((line) => /[XY]/.test(line))).toMatch(/^(G1 )?[XY]/);
  });
});

test('an arc lost where the controller leads the torch: taken up in the scrap beside it, the part comes out', async () => {
  const { job, result } = await demoJob('garden-markers', left, 'controller');
  bench = new PlasmaBenchForTests({ rate: 20, seed: 3 });
  await bench.setUp(job, 0, undefined, drawn(job, result));
  await bench.run(bench.order(job, result));
  await bench.until(() => (bench.machine.state().metres ?? 0) > 0.25 && bench.machine.state().arc === 'on', 'a cut');
  bench.hand({ hand: 'blow' });
  await bench.until(() => bench.state.bench.startsWith('held'), 'the hold');
  await bench.tell({ command: 'stop' });
  await bench.until(() => bench.ended.length > 0, 'the stop');
  await bench.idle();
  const [{ line, at }] = bench.ended;
  const rest = bench.order(job, result, { stopped: [{ which: 0, line, at: at!, by: 'beside' }] });
  await bench.tickAll();
  await bench.run(rest, 'run-2');
  await bench.until(() => bench.ended.length > 1, 'the rest');
  expect([bench.ended[1].phase, bench.ended[1].why]).toEqual(['done', undefined]);
  expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
  const { short, beyond } = off(job, result, 0.05);
  expect(short).toBeLessThan(0.05);
  // At the seam a little may be left, as wide as a kerf is in chords.
  expect(beyond).toBeLessThan(0.05);
});

describe('the kerf taken off wrongly', () => {
  test('twice: by the program and by the controller, parts come out too large, and the account tells it', async () => {
    const { job, result } = await demoJob('garden-markers', (changed) => Object.assign(changed.bench, { kerfBy: 'controller' }), 'both'); // prettier-ignore
    await cutAll(job, result, (text) => text.replace(/^(G4 P.*)$/gm, '$1\nG41 D1').replace(/^M5$/gm, 'M5\nG40'));
    expect([bench.ended[0].phase, bench.ended[0].why]).toEqual(['done', undefined]);
    expect(bench.machine.damage.kerfTwice).toBeGreaterThan(5);
    expect(off(job, result, 0.3).beyond).toBeGreaterThan(10);
  });

  test('by nobody: parts come out too small', async () => {
    const { job, result } = await demoJob('garden-markers', left, 'controller');
    await cutAll(job, result, (text) => text.replace(/^G41 D1\n/gm, ''));
    expect(bench.machine.damage.kerfTwice).toBe(0);
    expect(off(job, result, 0.3).short).toBeGreaterThan(10);
  });

  test('a table whose controller is not said to lead the torch runs no program that tells it to', async () => {
    const { job, result } = await demoJob('garden-markers');
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    const { text } = bench.programs.kept.get(order.hash)!;
    await bench.check({ ...order, hash: bench.programs.keep(text.replace(/^(G4 P.*)$/gm, '$1\nG41 D1')) });
    expect(bench.state.checked!.findings).toContainEqual(
      expect.stringMatching(/^Line \d+: the controller is told to lead the tool beside its way/),
    );
  });
});

test('small holes are told to be cut at one height, the rest as the sheet lies', async () => {
  const { job, result } = await demoJob('comet-weathervane', (changed) => changed.cuts.forEach((cut) => Object.assign(cut, { small: 200 })), 'small'); // prettier-ignore
  const [{ pierce }] = result.cuts;
  bench = new PlasmaBenchForTests();
  bench.order(job, result);
  const lines = [...bench.programs.kept.values()].at(-1)!.text.split('\n');
  const before = lines.flatMap((line, k) => (line === 'M3 S1' ? [lines[k - 1]] : []));
  expect(pierce!.level.length).toBeGreaterThan(0);
  expect(before.filter((word) => word === 'M9')).toHaveLength(pierce!.level.length);
  expect(before.filter((word) => word === 'M8')).toHaveLength(before.length - pierce!.level.length);
});

test('slower than its chart says, and worn, the arc cuts wider', async () => {
  const widths: number[] = [];
  for (const feed of [2000, 500]) {
    const { job, result } = await demoJob('garden-markers', (changed) => changed.cuts.forEach((cut) => Object.assign(cut, { feed, small: 0 })), `feed ${feed}`); // prettier-ignore
    await cutAll(job, result);
    const { kerfs } = bench.machine.sheet!;
    const long = kerfs.filter(({ ax, ay, bx, by }) => Math.hypot(bx - ax, by - ay) > 10);
    widths.push(long.reduce((sum, { width }) => sum + width, 0) / long.length);
    // The last is wider than the first by what its pierces have worn off.
    expect(long.at(-1)!.width).toBeGreaterThan(long[0].width);
    bench.end();
  }
  expect(widths[1]).toBeGreaterThan(widths[0] * 1.02);
});
