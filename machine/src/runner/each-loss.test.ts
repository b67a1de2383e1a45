import { describe, expect, test } from 'vitest';
import type { FittedBit } from '../kinds/router/stand-in/workpiece.ts';
import {
  at,
  bench,
  endsAfterEach,
  faults,
  FIRST,
  one,
  plasma,
  resting,
  rests,
  router,
  seeds,
  set,
  toTheEnd,
  work,
} from './at-a-moment-for-tests.ts';
import type { LaserBenchForTests } from './laser-bench-for-tests.ts';
import { compare, movesOnSheet, watchZero, type ZeroErrors, zeroIsRight } from './made-piece-for-tests.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';
import { dice, jobFor, lit, MACHINES } from './three-benches-for-tests.ts';

/**
 * What is lost or spoilt on the way to a machine, at times by chance. Promises held: no fault of ours; Stop leaves everything
 * standing and off; a run that was broken is taken up to a whole piece; what is changed after zero changes no piece; of a
 * long program every line is made.
 *
 * `KERBE_EACH=100` tries so many of each, `KERBE_LONG=200000` three programs of so many lines; a failure names its seed,
 * `KERBE_SEED` begins there.
 */
endsAfterEach();

describe.each(MACHINES)('bytes on the way to and from the %s', (machine) => {
  test.each(seeds)('a line is refused or an error told in mid-stream, seed %i', async (seed) => {
    const { order, next } = await set(machine, seed);
    const which = 2 + Math.floor(next() * 300);
    const refused = next() < 0.6;
    let sent = 0;
    bench.told = (line) =>
      line.startsWith(':') || ++sent !== which || !refused
        ? line
        : one(['G1 X1 X2', 'G41.7', 'M17', 'G2 X0 Y0 R0.001'], next);
    if (!refused) {
      let said = 0;
      bench.said = (text) => (++said === which ? '{"error":"The air pressure is low."}' : text);
    }
    await bench.run(order);
    await bench.until(
      () => !['running', 'run-measuring'].includes(bench.state.bench) || sent > which + 2500,
      'what comes of it',
      300,
    );
    const what = `seed ${seed}: line ${which} ${refused ? 'refused' : 'followed by an error'}, ${bench.state.bench}`;
    if (refused) {
      await bench.until(() => bench.ended.length > 0 || bench.state.bench === 'changing', `${what}: the end`, 60);
      if (bench.ended.length > 0) expect(bench.ended[0].phase, what).toBe('failed');
    }
    if (bench.state.bench !== 'off') await bench.tell({ command: 'stop' });
    await bench.until(resting, `${what}: it to stand`, 60);
    await rests(what);
  });

  test.each(seeds)('a byte is lost or flipped, seed %i: never a fault of ours, and Stop ends it', async (seed) => {
    const { order, next, job } = await set(machine, seed);
    const which = 2 + Math.floor(next() * 400);
    const lose = next() < 0.5;
    const back = next() < 0.4;
    const spoilt = (line: string) => {
      const k = Math.floor(next() * line.length);
      return lose
        ? line.slice(0, k) + line.slice(k + 1)
        : line.slice(0, k) +
            String.fromCharCode(line.charCodeAt(k) ^ (1 << Math.floor(next() * 7))) +
            line.slice(k + 1);
    };
    let count = 0;
    if (back) bench.said = (text) => (++count === which ? spoilt(text) : text);
    else bench.told = (line) => (++count === which ? spoilt(line) : line);
    await bench.run(order);
    const moving = () => ['running', 'run-measuring', 'run-touching'].includes(bench.state.bench);
    await bench.until(() => !moving() || count > which + 3000, 'what comes of it', 300);
    const what = `seed ${seed}: ${lose ? 'lost' : 'flipped'} in ${back ? 'what it says' : 'what it is told'}, ${bench.state.bench}`;
    if (['lost', 'off'].includes(bench.state.bench)) {
      await bench.pass(3000);
      await bench.connect(job);
    }
    await bench.tell({ command: 'stop' }).catch(() => {});
    await bench.until(resting, `${what}: it to stand`, 60);
    await bench.pass(4000);
    expect(lit(bench), what).toBe(false);
    const before = at();
    await bench.pass(1500);
    expect(at(), what).toEqual(before);
    expect(faults.mock.calls, what).toEqual([]);
  });
});

describe('a link lost in mid-cut, and the run taken up', () => {
  test.each(seeds)('router, seed %i: a whole piece', async (seed) => {
    const { job, order, next } = await set('router', seed);
    const { result } = await jobFor('router');
    const errors: ZeroErrors = new Map();
    const bits = new Map<number, FittedBit>();
    const watch = watchZero(router(), job, errors, bits);
    await bench.run(order);
    const change = order.cuts.find(({ bit }) => bit.id !== order.cuts[0].bit.id)!.from;
    const until = 5 + next() * (change - 60);
    await bench.until(() => watch() || bench.state.run!.line >= until, 'a moment in the cut', 600);
    await bench.pass(next() * 60);
    bench.cut();
    await bench.pass(next() * 3000);
    await bench.connect(job);
    if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 60);
    const [{ line, phase }] = bench.ended;
    expect(phase).toBe('lost');
    // The stock stays where it lies: only zero is found again.
    const first = router().router.fitted;
    router().hand({ hand: 'clip', on: false });
    await router().overPlate('corner');
    await router().zero(job);
    await router().clearPlate();
    expect(router().router.fitted).toBe(first);
    errors.clear();
    await bench.tell({
      command: 'take-up',
      id: 'again',
      ...(await bench.check(order)),
      broken: 'run-1',
      acknowledged: line,
      line: Math.max(0, line - 4),
    });
    await toTheEnd(2, `seed ${seed}: the run`, watch);
    expect([bench.ended[1].phase, bench.ended[1].why], `seed ${seed}`).toEqual(['done', undefined]);
    zeroIsRight(errors);
    compare(job, result, movesOnSheet(router(), job, errors, bits), 4000);
    expect(faults.mock.calls).toEqual([]);
  });

  test.each(seeds)('laser, seed %i: the rest is burnt, nothing at rest', async (seed) => {
    const { job, order, next } = await set('laser', seed, 20);
    await bench.run(order);
    const until = next() * 0.9 * bench.state.run!.lines;
    await bench.until(() => bench.state.run!.line >= until, 'a moment in the run', 600);
    await bench.pass(next() * 100);
    bench.cut();
    await bench.pass(next() * 3000);
    await bench.connect(job);
    if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 60);
    const { line } = bench.ended[0];
    const laser = bench as LaserBenchForTests;
    await laser.zero(job);
    await laser.tickAll();
    await bench.tell({
      command: 'take-up',
      id: 'again',
      ...(await bench.check(order)),
      broken: 'run-1',
      acknowledged: line,
      line,
    });
    await bench.until(() => bench.ended.length > 1, `seed ${seed}: the rest`);
    expect([bench.ended[1].phase, bench.ended[1].why], `seed ${seed}`).toEqual(['done', undefined]);
    expect(laser.machine.damage.firedAtRest).toBe(0);
    expect(faults.mock.calls).toEqual([]);
  });

  test.each(seeds)('plasma, seed %i: what is left is cut by a program of its own, nothing damaged', async (seed) => {
    const { job, order, next } = await set('plasma', seed);
    const { result } = await jobFor('plasma');
    await bench.run(order);
    const until = next() * 0.95 * bench.state.run!.lines;
    await bench.until(
      () => bench.ended.length > 0 || (bench.state.run!.line >= until && lit(bench)),
      'a moment in the cut',
      600,
    );
    if (bench.ended.length > 0) return;
    await bench.pass(next() * 60);
    bench.cut();
    await bench.pass(next() * 3000);
    await bench.connect(job);
    if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand', 60);
    const [{ line, at: where }] = bench.ended;
    await plasma().zero(job);
    await plasma().tickAll();
    let rest;
    try {
      rest = bench.order(job, result, { stopped: [{ which: 0, line, at: where, by: 'next' }] });
    } catch (error) {
      // Of the last part nothing more can be cut.
      expect((error as Error).name).toBe('NoVariant');
      return;
    }
    await bench.run(rest, 'again');
    await bench.until(() => bench.ended.length > 1, `seed ${seed}: the rest`);
    expect([bench.ended[1].phase, bench.ended[1].why], `seed ${seed}`).toEqual(['done', undefined]);
    expect(plasma().machine.damage, `seed ${seed}`).toMatchObject({
      nozzleTouched: 0,
      piercedLow: 0,
      ranIntoTipped: 0,
    });
    expect(faults.mock.calls).toEqual([]);
  });
});

describe('what is changed after zero', () => {
  test.each(seeds)('the unit of the job, seed %i: the same piece', async (seed) => {
    const next = dice(seed);
    const { job, result } = await demoJob('comet-marker');
    const other = { ...structuredClone(job), unit: job.unit === 'mm' ? ('in' as const) : ('mm' as const) };
    const dialect = one(['plain', 'lines-only', 'numbered'], next);
    for (const each of [job, other]) Object.assign(each.bench, { dialect });
    work(new TestBench({ rate: 30, seed }));
    await router().setUp(job, 'v90');
    const [order] = ordersOf(bench, other, result);
    const errors: ZeroErrors = new Map();
    const bits = new Map<number, FittedBit>();
    const watch = watchZero(router(), other, errors, bits);
    await bench.run(order);
    await toTheEnd(1, `seed ${seed}: the run`, watch);
    expect(bench.ended[0]).toMatchObject({ phase: 'done' });
    zeroIsRight(errors);
    compare(other, result, movesOnSheet(router(), other, errors, bits), 4000);
  });
});

describe('a long program', () => {
  const LINES = Number(process.env.KERBE_LONG ?? 6_000);
  test.each(Array.from({ length: process.env.KERBE_LONG ? 3 : 1 }, (_, k) => FIRST + k))(
    `of ${LINES} lines, seed %i: every line is made, and its end is its end`,
    async (seed) => {
      const { order, next } = await set('router', seed, 30);
      const lines = ['G17 G21 G90 G94 G54', 'M3 S18000', 'G4 P3', 'G0 X10 Y10', 'G1 Z12 F600'];
      for (let k = lines.length; k < LINES - 2; k++)
        lines.push(`G1 X${(10 + next() * 60).toFixed(3)} Y${(10 + next() * 4).toFixed(3)} F2400`);
      lines.push('M5', 'M30');
      const text = lines.join('\n') + '\n';
      const hash = bench.programs.keep(text);
      const long = { ...order, hash, cuts: [{ ...order.cuts[0], from: 0, to: LINES }] };
      await bench.run(long);
      await bench.until(() => bench.ended.length > 0, 'the end', 200_000);
      expect(bench.ended[0]).toMatchObject({ phase: 'done', line: LINES });
      expect(bench.machine.state().done).toBeGreaterThanOrEqual(LINES);
      await rests('after it');
    },
  );
});
