import { afterEach, describe, expect, test } from 'vitest';
import type { FittedBit } from '../kinds/router/stand-in/workpiece.ts';
import type { SweptMove } from './exact-sweep.ts';
import { compare, fitted, movesOnSheet, watchZero, type ZeroErrors, zeroIsRight } from './made-piece-for-tests.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

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
    const watch = watchZero(bench, job, errors, bits);
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
    const { deepest } = compare(job, demo.result, movesOnSheet(bench, job, errors, bits));
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
      const watch = watchZero(bench, job, errors, bits);
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
    compare(job, demo.result, movesOnSheet(bench, job, errors, bits));
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
