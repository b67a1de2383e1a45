import { afterEach, describe, expect, test } from 'vitest';
import type { BaseTool } from '@kerbe/core/document/tool';
import { bitShapeOf } from './of-job.ts';
import { CarvedMoves } from '@kerbe/core/carving/section';
import type { JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { thickest, zeroOf } from '@kerbe/core/stock/stock';
import { SPOILBOARD_TOP } from '../kinds/router/stand-in/table.ts';
import type { FittedBit } from '../kinds/router/stand-in/workpiece.ts';
import { ExactSweep, type SweptMove } from './exact-sweep.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

/** Points of a piece that are compared, and how far apart depths may be, mm; walls may be as far apart sideways. */
const POINTS = 20_000;
const APART = 0.02;

/** How far off the zero was that each fitting of a bit worked with, mm. */
type ZeroErrors = Map<number, { x: number; y: number; z: number }>;

function fitted(bit: BaseTool): FittedBit {
  const { angle, tip } = bitShapeOf([bit], bit.id);
  return {
    name: bit.name,
    diameter: bit.diameter,
    halfAngle: angle === undefined ? undefined : (angle * Math.PI) / 360,
    tipDiameter: tip,
    length: 0,
  };
}

/** Notes with each bit where zero was taken to be, against where the stock really lies. */
function watchZero(job: Job, errors: ZeroErrors, bits: Map<number, FittedBit>): () => boolean {
  const zero = zeroOf(job.stock);
  return () => {
    const { router, state } = bench;
    if (state.bench === 'running' && state.origin && router.bit && !errors.has(router.fitted)) {
      const { corner } = router.table.piece!;
      errors.set(router.fitted, {
        x: state.origin.x - corner.x - zero.x,
        y: state.origin.y - corner.y - zero.y,
        z: state.origin.z - SPOILBOARD_TOP - thickest(job.stock) - zero.z - router.bit.length,
      });
      bits.set(router.fitted, { ...router.bit, length: 0 });
    }
    return false;
  };
}

/** The moves that cut, on the sheet: with each bit's zero error taken out, which is judged by itself. */
function movesOnSheet(job: Job, errors: ZeroErrors, bits: Map<number, FittedBit>): SweptMove[] {
  const { made, table } = bench.router;
  const { corner } = table.piece!;
  const top = SPOILBOARD_TOP + thickest(job.stock);
  const moves: SweptMove[] = [];
  expect(made.full).toBe(false);
  for (let k = 0; k < made.length; k++) {
    const { from, to, turning, fitted: which } = made.move(k);
    const off = errors.get(which);
    if (!turning || !off) continue;
    const place = (p: typeof from) => ({ x: p.x - corner.x - off.x, y: p.y - corner.y - off.y, z: p.z - top - off.z });
    const [a, b] = [place(from), place(to)];
    if (Math.min(a.z, b.z) < 0) moves.push({ from: a, to: b, bit: bits.get(which)! });
  }
  return moves;
}

interface Place {
  x: number;
  y: number;
  depth: number;
}

const plans = new Map<JobResult, { plan: CarvedMoves; places: Place[] }>();

/** Seeded random places on a job's piece, half of them close to the paths, with the depth that is planned there. */
function planOf(job: Job, result: JobResult): { plan: CarvedMoves; places: Place[] } {
  const known = plans.get(result);
  if (known) return known;
  const plan = new CarvedMoves(result.cuts.filter(({ path }) => path.feed.length > 1));
  let seed = 12345;
  const random = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
  const places = Array.from({ length: POINTS }, (_, k) => {
    let x = random() * job.stock.length;
    let y = random() * job.stock.width;
    if (k % 2) {
      const { path, radius } = result.cuts[Math.floor(random() * result.cuts.length)];
      const i = Math.floor(random() * path.feed.length);
      x = path.xyz[3 * i] + (random() - 0.5) * 2.4 * radius;
      y = path.xyz[3 * i + 1] + (random() - 0.5) * 2.4 * radius;
    }
    return { x, y, depth: plan.along(x, y, x, y, 1)[0] };
  });
  plans.set(result, { plan, places });
  return { plan, places };
}

/** Compares the piece with its plan: in height where it slopes or lies flat, sideways at its walls. */
function compare(job: Job, result: JobResult, moves: SweptMove[]): { deepest: number } {
  const { plan, places } = planOf(job, result);
  const piece = new ExactSweep(moves);
  const wrong: string[] = [];
  let deepest = 0;
  for (const { x, y, depth } of places) {
    const made = piece.at(x, y);
    deepest = Math.min(deepest, made);
    if (Math.abs(depth - made) <= APART) continue;
    const around = [depth];
    for (let a = 0; a < 16; a++) {
      const [px, py] = [x + APART * Math.cos((a * Math.PI) / 8), y + APART * Math.sin((a * Math.PI) / 8)];
      around.push(plan.along(px, py, px, py, 1)[0]);
    }
    if (made < Math.min(...around) - APART || made > Math.max(...around) + APART)
      wrong.push(`(${x.toFixed(3)}, ${y.toFixed(3)}): planned ${depth.toFixed(4)}, made ${made.toFixed(4)}`);
  }
  expect(wrong.slice(0, 5), `${wrong.length} of ${POINTS} places`).toEqual([]);
  return { deepest };
}

function zeroIsRight(errors: ZeroErrors): void {
  for (const [which, { x, y, z }] of errors) {
    expect(Math.abs(x), `x of fitting ${which}`).toBeLessThan(APART);
    expect(Math.abs(y), `y of fitting ${which}`).toBeLessThan(APART);
    expect(Math.abs(z), `z of fitting ${which}`).toBeLessThan(APART);
  }
}

const JOBS = ['entrance-board', 'night-light', 'meridian-plate', 'comet-marker'];

describe('the piece is what the proof said, by the moves that were really made', () => {
  test.each(
    JOBS.flatMap((name, j) =>
      (['plain', 'lines-only', 'numbered'] as const).flatMap((dialect, d) =>
        (['mm', 'in'] as const)
          // Every job, dialect and unit with some of the others, the longest once; `./kerbe soak` has them all.
          .filter(
            (_, u) =>
              process.env.KERBE_PIECE === 'all' || ((j + d + u) % 3 === 0 && !(name === 'entrance-board' && d > 0)),
          )
          .map((unit) => [name, dialect, unit] as const),
      ),
    ),
  )('%s, %s, in %s', async (name, dialect, unit) => {
    const demo = await demoJob(name);
    const job = structuredClone(demo.job);
    Object.assign(job, { unit, bench: { ...job.bench, dialect } });
    bench = new TestBench({ rate: 30 });
    const [order] = ordersOf(bench, job, demo.result);
    await bench.setUp(job, order.cuts[0].bit.id);
    const errors: ZeroErrors = new Map();
    const bits = new Map<number, FittedBit>();
    const watch = watchZero(job, errors, bits);
    await bench.run(order);
    while (bench.ended.length === 0) {
      await bench.until(() => watch() || bench.state.bench === 'changing' || bench.ended.length > 0, 'the run');
      if (bench.state.bench !== 'changing') continue;
      bench.hand({ hand: 'bit', ...bench.state.run!.bit! });
      await bench.tell({ command: 'bit-changed' });
    }
    expect(bench.ended[0]).toMatchObject({ phase: 'done' });
    expect(bench.router.state().alarm).toBeUndefined();
    zeroIsRight(errors);
    const { deepest } = compare(job, demo.result, movesOnSheet(job, errors, bits));
    expect(-deepest).toBeCloseTo(Math.max(...demo.result.cuts.map((cut) => cut.depth)), 1);
  });

  test.each(JOBS)('%s, one program a bit, one after another as a walk', async (name) => {
    const demo = await demoJob(name);
    const job = structuredClone(demo.job);
    Object.assign(job.bench, { dialect: 'operator-spindle', setter: null });
    bench = new TestBench({ rate: 30 });
    const orders = ordersOf(bench, job, demo.result);
    const errors: ZeroErrors = new Map();
    const bits = new Map<number, FittedBit>();
    for (const [k, order] of orders.entries()) {
      const bit = order.cuts[0].bit;
      if (k === 0) await bench.setUp(job, bit.id);
      else {
        // The height is zeroed again with the next bit; across, zero holds.
        await bench.fit(job, bit.id);
        expect(bench.state.zero?.z?.void).toBe('bit');
        await bench.overPlate('flat');
        await bench.zero(job, 'flat');
        await bench.clearPlate();
      }
      const watch = watchZero(job, errors, bits);
      await bench.run(order, `run-${k}`);
      while (bench.ended.length === k) {
        await bench.until(() => watch() || bench.state.bench === 'paused' || bench.ended.length > k, 'the run');
        if (bench.state.bench !== 'paused') continue;
        expect(bench.state.run!.prompt).toMatch(/start the spindle at \d+ rpm/);
        bench.hand({ hand: 'spindle', turns: Number(/(\d+) rpm/.exec(bench.state.run!.prompt!)![1]) });
        await bench.pass(200);
        await bench.tell({ command: 'confirm' });
      }
      expect(bench.ended[k]).toMatchObject({ phase: 'done' });
      bench.hand({ hand: 'spindle', turns: 0 });
      await bench.until(() => bench.router.state().spindle === 0, 'the spindle to stand');
    }
    expect(bench.router.state().alarm).toBeUndefined();
    zeroIsRight(errors);
    compare(job, demo.result, movesOnSheet(job, errors, bits));
  });
  test('a piece that is not the plan is noticed', async () => {
    const { job, result } = await demoJob('comet-marker');
    const moves: SweptMove[] = [];
    for (const { path, bit } of result.cuts)
      for (let i = 1; i < path.feed.length; i++) {
        const at = (k: number) => ({
          x: path.xyz[3 * k] + 0.05,
          y: path.xyz[3 * k + 1],
          z: path.xyz[3 * k + 2] - 0.03,
        });
        moves.push({ from: at(i - 1), to: at(i), bit: fitted(job.bits.find((b) => b.id === bit)!) });
      }
    expect(() => compare(job, result, moves)).toThrow();
  });
});
