import { afterEach, describe, expect, test } from 'vitest';
import type { JobResult } from '@kerbe/core/compute/compute';
import type { LaserPictureFacts } from '@kerbe/core/cuts/laser-picture/kind';
import type { BaseCut } from '@kerbe/core/document/cut';
import type { Job } from '@kerbe/core/document/job';
import { runOut } from '@kerbe/core/ways/scan-rows';
import { Clearance } from '@kerbe/core/geometry/clearance';
import { LaserBenchForTests } from './laser-bench-for-tests.ts';
import { LANTERN } from '../kinds/laser/stand-in/made-as.ts';
import { demoJob } from './test-bench.ts';

let bench: LaserBenchForTests;
afterEach(() => bench?.end());

const NOTHING_DAMAGED = { firedAtRest: 0, lidOpened: 0, flamedUp: 0, poisoned: 0, besideStock: 0 };

/** The star tags with one picture, and the cuts that are asked for. */
const tags = (kinds: readonly string[], change: (job: Job) => void = () => {}) =>
  demoJob(
    'star-tags',
    (job) => {
      job.cuts = job.cuts.filter(({ kind }) => kinds.includes(kind));
      for (const cut of job.cuts) if (cut.kind === 'laser-picture') cut.targets = cut.targets.slice(0, 1);
      change(job);
    },
    `${kinds.join(' ')} ${change.toString()}`,
  );
const ALL = ['laser-picture', 'laser-score', 'laser-cut'];
const set = (job: Job, fields: object) => job.cuts.forEach((cut: BaseCut) => Object.assign(cut, fields));

async function done(): Promise<void> {
  await bench.until(() => bench.ended.length > 0, 'the run to end');
  expect([bench.ended.at(-1)!.phase, bench.ended.at(-1)!.why]).toEqual(['done', undefined]);
}

/** Darkness of the dots of a picture, as they were burnt and as they were shown beforehand, at the middle of each. */
function laidOver(result: JobResult): { asked: boolean; burnt: boolean; x: number; y: number }[] {
  const { pictures } = result.cuts[0].facts as LaserPictureFacts;
  const stock = bench.machine.stock!;
  return pictures.flatMap(({ columns, rows, dark, map: [a, b, c, d, e, f] }) =>
    Array.from({ length: columns * rows }, (_, k) => {
      const [i, j] = [(k % columns) + 0.5, Math.floor(k / columns) + 0.5];
      const [x, y] = [a * i + c * j + e, b * i + d * j + f];
      const at = Math.floor(y / stock.cell) * stock.columns + Math.floor(x / stock.cell);
      return { asked: dark[k] > 0, burnt: stock.stateAt(at) > 0, x, y };
    }),
  );
}

/** Of the rings, how much is not burnt, mm. */
function blankAlong({ items }: JobResult): number {
  const stock = bench.machine.stock!;
  const step = 0.02;
  let blank = 0;
  for (const { layer, outlines } of items[0].shapes)
    for (const { points } of layer === 'rings' ? outlines : [])
      for (let i = 0; i < points.length; i += 2) {
        const [ax, ay] = [points[i], points[i + 1]];
        const [bx, by] = [points[(i + 2) % points.length], points[(i + 3) % points.length]];
        const length = Math.hypot(bx - ax, by - ay);
        const n = Math.ceil(length / step);
        for (let k = 0; k < n; k++) {
          const [x, y] = [ax + ((bx - ax) * k) / n, ay + ((by - ay) * k) / n];
          if (stock.stateAt(Math.floor(y / stock.cell) * stock.columns + Math.floor(x / stock.cell)) === 0) blank += length / n; // prettier-ignore
        }
      }
  return blank;
}

describe('star tags', () => {
  test('picture, rings and edges are burnt in the planned time within 1 percent, and nothing is damaged', async () => {
    const { job, result } = await tags(ALL);
    bench = new LaserBenchForTests({ rate: 20 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    const before = bench.machine.clock;
    await bench.run(order);
    await done();
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
    const planned = order.plannedMinutes * 60;
    // With the ways to the work and to where it is parked, which no plan knows.
    expect(bench.ended[0].minutes * 60).toBeGreaterThan(planned * 0.99);
    expect(bench.ended[0].minutes * 60).toBeLessThan(planned * 1.01 + 3);
    expect(bench.machine.clock).toBeGreaterThan(before);
    expect(bench.machine.state()).toMatchObject({ ready: false, beam: 0, air: false });
  });

  test('the burnt map lies on the preview, also on stock that lies turned and with a beam that comes late', async () => {
    for (const turn of [0, 0.02]) {
      const { job, result } = await tags(['laser-picture'], (changed) => set(changed, { dither: 'threshold' }));
      bench = new LaserBenchForTests({ rate: 20, seed: 5 });
      await bench.setUp(job, turn, turn ? 200 : undefined);
      const lies = bench.state.zero!.xy!.turn ?? 0;
      expect(lies).toBeCloseTo(turn, 4);
      await bench.run(bench.order(job, result, { turn: lies }));
      await done();
      const dots = laidOver(result);
      expect(dots.filter(({ asked }) => asked).length).toBeGreaterThan(5000);
      // Away from where light and dark meet each dot is as it was shown.
      const edges = dots.filter(({ asked, x, y }, k) => [k - 1, k + 1].some((n) => dots[n] && Math.hypot(dots[n].x - x, dots[n].y - y) < 0.2 && dots[n].asked !== asked)); // prettier-ignore
      const wrong = dots.filter((dot) => dot.asked !== dot.burnt);
      expect(wrong.length).toBeLessThanOrEqual(edges.length);
      const columns = Math.round(30 * 8);
      const near = (k: number, is: boolean) => [-columns, 0, columns].some((row) => [-1, 0, 1].some((c) => dots[k + row + c]?.asked === is)); // prettier-ignore
      // None is further than a dot from where it was to be.
      expect(dots.filter(({ burnt }, k) => !near(k, burnt))).toEqual([]);
      bench.end();
    }
  });

  test('what falls out has its true edges within 0.05 mm', async () => {
    const { job, result } = await tags(['laser-cut']);
    bench = new LaserBenchForTests({ rate: 20 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await done();
    const { through } = bench.machine.stock!;
    const [tagsItem] = result.items;
    const drawn = tagsItem.shapes.filter(({ layer }) => layer === 'edges' || layer === 'holes').flatMap(({ outlines }) => outlines.map(({ points }) => points)); // prettier-ignore
    const lines = Clearance.ofLoops(drawn);
    let least = Infinity;
    let most = 0;
    for (const { ax, ay, bx, by, width } of through) {
      expect(width).toBe(0.12);
      for (const t of [0, 0.25, 0.5, 0.75, 1]) {
        const away = lines.at(ax + t * (bx - ax), ay + t * (by - ay));
        // The kerf's edge lies on the drawing: its middle half a kerf beside it; round corners it is as far.
        [least, most] = [Math.min(least, away), Math.max(most, away)];
      }
    }
    expect(least).toBeGreaterThan(0.06 - 0.05);
    expect(most).toBeLessThan(0.06 + 0.05);
    // All the way round: every corner of the drawing has a cut beside it.
    const cut = through.map(({ ax, ay, bx, by }) => Float64Array.of(ax, ay, bx, by, ax, ay));
    const burnt = Clearance.ofLoops(cut);
    for (const points of drawn) for (let i = 0; i < points.length; i += 2) expect(burnt.at(points[i], points[i + 1])).toBeLessThan(0.15); // prettier-ignore
  });

  test('Hold closes the beam at once; gone on with, only what the head ran down by is left blank', async () => {
    const { job, result } = await tags(['laser-score'], (changed) => set(changed, { feed: 2400 }));
    const blank: number[] = [];
    for (const held of [false, true]) {
      bench = new LaserBenchForTests({ rate: 1 });
      await bench.setUp(job);
      await bench.run(bench.order(job, result));
      if (held) {
        // At its full speed.
        await bench.until(() => (bench.machine.state().beam ?? 0) > 0.18, 'the beam');
        await bench.tell({ command: 'hold' });
        expect(bench.machine.state().beam).toBe(0);
        const { energy } = bench.machine.stock!;
        const had = energy.reduce((sum, v) => sum + v, 0);
        await bench.pass(500);
        expect(bench.state.bench).toBe('held:running');
        expect(energy.reduce((sum, v) => sum + v, 0)).toBe(had);
        await bench.tell({ command: 'resume' });
      }
      await done();
      expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
      blank.push(blankAlong(result));
      bench.end();
    }
    // v²/2a, to a cell of the map.
    expect(blank[1] - blank[0]).toBeLessThan(runOut(0, 2400, job.bench.limits) + 0.1);
    expect(blank[1] - blank[0]).toBeGreaterThan(0.1);
  });

  test('the lid opened: the beam is closed by its switch, the run is held, and goes on when it is closed', async () => {
    const { job, result } = await tags(['laser-picture']);
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await bench.until(() => (bench.machine.state().beam ?? 0) > 0, 'the beam');
    bench.hand({ hand: 'lid', open: true });
    expect(bench.machine.state().beam).toBe(0);
    await bench.until(() => bench.state.bench === 'held:running', 'it to be held');
    expect(bench.state.machine?.why).toContain('lid was opened');
    await expect(bench.tell({ command: 'resume' })).rejects.toMatchObject({ reason: 'lid-open' });
    bench.hand({ hand: 'lid', open: false });
    await bench.until(() => (bench.state.machine as { lid?: string }).lid === 'closed', 'the lid');
    await bench.tell({ command: 'resume' });
    await done();
    expect(bench.machine.damage).toEqual({ ...NOTHING_DAMAGED, lidOpened: 1 });
  });

  test('not armed, or with the lid open, nothing is begun; without a lens nothing is pointed at', async () => {
    const { job, result } = await tags(['laser-score']);
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    const run = async () => bench.tell({ command: 'run', id: 'r', ...(await bench.check(order)) });
    bench.hand({ hand: 'key', on: false });
    await bench.pass(500);
    await expect(run()).rejects.toMatchObject({ reason: 'not-armed' });
    bench.hand({ hand: 'key', on: true });
    bench.hand({ hand: 'lid', open: true });
    await bench.pass(500);
    await expect(run()).rejects.toMatchObject({ reason: 'lid-open' });
    bench.hand({ hand: 'lid', open: false });
    await bench.pass(500);
    await run();
    await done();
  });

  test('left alone, by a cut link, the key, the emergency stop or the power, the beam is off at once', async () => {
    const { job, result } = await tags(['laser-picture']);
    for (const happens of ['mute', 'cut', 'key', 'emergency', 'power'] as const) {
      bench = new LaserBenchForTests({ rate: 2 });
      await bench.setUp(job);
      await bench.run(bench.order(job, result));
      await bench.until(() => (bench.machine.state().beam ?? 0) > 0, 'the beam');
      expect(bench.machine.state().air).toBe(true);
      if (happens === 'mute') bench.mute = true;
      else if (happens === 'cut') bench.cut();
      else if (happens === 'key') bench.hand({ hand: 'key', on: false });
      else if (happens === 'emergency') bench.hand({ hand: 'emergency', pressed: true });
      else bench.hand({ hand: 'power' });
      // Silence has to be noticed first.
      if (happens === 'mute') await bench.pass(2000);
      const { energy } = bench.machine.stock!;
      const had = energy.reduce((sum, v) => sum + v, 0);
      expect([happens, bench.machine.state().beam]).toEqual([happens, 0]);
      // What cuts its power cuts its air.
      if (happens === 'emergency' || happens === 'power') expect(bench.machine.state()).toMatchObject({ ready: false, air: false }); // prettier-ignore
      await bench.pass(3000);
      expect([happens, energy.reduce((sum, v) => sum + v, 0) - had]).toEqual([happens, 0]);
      expect(bench.machine.damage.firedAtRest).toBe(0);
      bench.end();
    }
  });

  test('stopped in a picture and taken up at the line it stopped in: all but one in a hundred of its dots are there', async () => {
    const { job, result } = await tags(['laser-picture'], (changed) => set(changed, { dither: 'threshold' }));
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    await bench.run(order);
    await bench.until(() => (bench.state.run?.line ?? 0) > 600, 'some lines');
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.ended.length > 0, 'the stop');
    await bench.idle();
    expect(bench.machine.state()).toMatchObject({ ready: false, beam: 0 });
    const { line } = bench.ended[0];
    await bench.tickAll();
    const from = { broken: 'run-1', acknowledged: line, line };
    await bench.tell({ command: 'take-up', id: 'again', ...(await bench.check(order)), ...from });
    await bench.until(() => bench.ended.length > 1, 'the rest');
    expect([bench.ended[1].phase, bench.ended[1].why]).toEqual(['done', undefined]);
    const dots = laidOver(result);
    expect(dots.filter(({ asked, burnt }) => asked && !burnt).length).toBeLessThan(dots.length * 0.01);
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
  });

  test('stopped on a line and taken up: it burns on, though its power was said long before', async () => {
    const { job, result } = await tags(['laser-score']);
    bench = new LaserBenchForTests({ rate: 1 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    await bench.run(order);
    // In the middle of a ring, whose later lines say no power.
    const lines = bench.programs.kept.get(order.hash)!.text.split('\n');
    const silent = lines.findIndex((line) => /^X[^S]*$/.test(line));
    await bench.until(() => bench.state.run?.line === silent, 'a line without a power');
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.ended.length > 0, 'the stop');
    await bench.idle();
    const { line } = bench.ended[0];
    expect(line).toBe(silent);
    await bench.tickAll();
    const from = { broken: 'run-1', acknowledged: line, line };
    await bench.tell({ command: 'take-up', id: 'again', ...(await bench.check(order)), ...from });
    await bench.until(() => bench.ended.length > 1, 'the rest');
    const { stock } = bench.machine;
    const rings = result.items[0].shapes.filter(({ layer }) => layer === 'rings').flatMap(({ outlines }) => outlines.map(({ points }) => points)); // prettier-ignore
    const places = rings.flatMap((points) =>
      Array.from({ length: points.length / 2 }, (_, i) =>
        stock!.stateAt(
          Math.floor(points[2 * i + 1] / stock!.cell) * stock!.columns + Math.floor(points[2 * i] / stock!.cell),
        ),
      ),
    );
    // A third of one of six rings would be far more; what is left is where the grid of the map cuts the line.
    expect(places.filter((state) => state === 0).length / places.length).toBeLessThan(0.02);
  });

  test('a controller whose power does not follow the speed never fires at rest', async () => {
    const { job, result } = await tags(['laser-score', 'laser-cut'], (changed) => {
      Object.assign(changed.bench, { follows: false, words: { on: 'M3', off: 'M5', airOn: 'M8', airOff: 'M9' } });
      set(changed, { passes: 1 });
    });
    bench = new LaserBenchForTests({ rate: 20, as: { ...LANTERN, follows: false } });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await done();
    expect(bench.machine.damage.firedAtRest).toBe(0);
  });

  test('round with the pointer: nothing is on, and it goes where the beam would', async () => {
    const { job, result } = await tags(['laser-cut']);
    bench = new LaserBenchForTests({ rate: 20 });
    await bench.setUp(job);
    const order = bench.order(job, result, { dry: true });
    await bench.run(order);
    await done();
    const { energy } = bench.machine.stock!;
    expect(energy.every((v) => v === 0)).toBe(true);
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
  });
});
