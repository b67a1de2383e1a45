import { afterEach, describe, expect, test } from 'vitest';
import { routerState } from '../kinds/router/messages.ts';
import { basisOf } from './of-job.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

async function prepared() {
  const { job, result } = await demoJob('comet-marker');
  bench = new TestBench();
  await bench.prepare(job, 'v90');
  return { job, result };
}

async function setUp() {
  const { job, result } = await demoJob('comet-marker');
  bench = new TestBench();
  await bench.setUp(job, 'v90');
  const [order] = ordersOf(bench, job, result);
  return { job, order };
}

/** The tip is under the top of the stock, whose zero lies on the spoilboard 9 mm below. */
const inCut = () => bench.router.state().work.z < 8.7 && bench.router.state().line > 60;

/** Presses Stop, lets everything come to rest, and tells where the machine was and is, and how the spindle went. */
async function stopped() {
  const before = bench.router.state();
  const moves = bench.router.made.length;
  await bench.tell({ command: 'stop' }, { page: 'somebody-else', name: '' });
  const turningOnTheWay: { z: number; spindle: number }[] = [];
  for (let k = 0; k < 400; k++) {
    await bench.pass(10);
    const { machine, spindle } = bench.router.state();
    turningOnTheWay.push({ z: machine.z, spindle });
  }
  const after = bench.router.state();
  const made = Array.from({ length: bench.router.made.length - moves }, (_, k) => bench.router.made.move(moves + k));
  return { before, after, made, turningOnTheWay };
}

describe('Stop, by what is on', () => {
  test('in a cut: it stands, comes straight up with the spindle turning, and only then the spindle goes off', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(() => inCut(), 'a cut');
    const { after, made, turningOnTheWay } = await stopped();
    expect(after).toMatchObject({ word: 'idle', spindle: 0, homed: true });
    expect(after.machine.z).toBe(0);
    // Straight up: the last long move has no way across.
    const lift = made.at(-1)!;
    expect(lift.from.x).toBe(lift.to.x);
    expect(lift.from.y).toBe(lift.to.y);
    // Still turning until it is clear of the stock, by whatever was cut.
    const depth = bench.state.origin!.z + 9;
    for (const { z, spindle } of turningOnTheWay) if (z < depth) expect(spindle).toBeGreaterThan(10_000);
    expect(bench.ended[0]).toMatchObject({ phase: 'stopped', why: 'stopped by the operator' });
    expect(bench.state.bench).toBe('ready');
    expect(bench.state.zero?.z?.void).toBeUndefined();
  });

  test('held in a cut: the same', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(() => inCut(), 'a cut');
    await bench.tell({ command: 'hold' });
    await bench.until(() => bench.router.state().word === 'held', 'it to be held');
    expect(bench.router.state().spindle).toBeGreaterThan(10_000);
    const { after } = await stopped();
    expect(after).toMatchObject({ word: 'idle', spindle: 0 });
    expect(after.machine.z).toBe(0);
  });

  test('while the program waits for someone with the bit in the work: it comes straight up', async () => {
    const { job, order } = await setUp();
    const text =
      'G17 G21 G90 G94 G54\nS18000 M3\nG4 P2\nG0 Z20\nG0 X60 Y60\nG1 Z7 F300\n(look at it)\nM0\nG0 Z20\nM30\n';
    const hash = bench.programs.keep(text);
    await bench.run({
      ...order,
      hash,
      basis: basisOf('job', job),
      cuts: [{ title: 'a', from: 1, to: 9, bit: bench.state.bit!, plunge: 300 }],
    });
    await bench.until(() => bench.state.bench === 'paused', 'the pause');
    const { before, after } = await stopped();
    expect(before.work.z).toBeCloseTo(7, 2);
    expect(after).toMatchObject({
      word: 'idle',
      spindle: 0,
      machine: { x: before.machine.x, y: before.machine.y, z: 0 },
    });
    expect(bench.ended[0]).toMatchObject({ phase: 'stopped' });
  });

  test('standing with a spindle that was left turning: it comes up, and the spindle goes off', async () => {
    await setUp();
    bench.router.block('S12000 M3');
    await bench.until(
      () => bench.router.state().spindle > 10_000 && routerState(bench.state.machine)!.spindle > 0,
      'the spindle',
    );
    const { before, after } = await stopped();
    expect(before.spindle).toBeGreaterThan(10_000);
    expect(after).toMatchObject({
      word: 'idle',
      spindle: 0,
      machine: { x: before.machine.x, y: before.machine.y, z: 0 },
    });
  });

  test('while a bit is measured: nothing moves again, no probe move down and no lift', async () => {
    const { job } = await setUp();
    await bench.tell({ command: 'measure' });
    for (const moment of ['measuring', 'bit-touching'] as const) {
      if (bench.state.bench === 'ready') await bench.tell({ command: 'measure' });
      await bench.until(() => bench.state.bench === moment, moment);
      await bench.pass(120);
      const { before, after, made } = await stopped();
      // It may slow down from its speed, nothing more.
      expect(Math.abs(after.machine.z - before.machine.z)).toBeLessThan(5);
      expect(made.length).toBeLessThanOrEqual(1);
      expect(bench.state.bench).toBe('ready');
    }
    expect(basisOf('job', job).placeZ).toBe('spoilboard');
  });

  test('while zero is felt for: the probe ends where it is, and zero is not set', async () => {
    const { job } = await prepared();
    await bench.tell({ command: 'zero', method: 'corner', corner: 'lower-left', basis: basisOf('job', job) });
    await bench.until(() => bench.state.bench === 'touching', 'a probe move');
    await bench.pass(100);
    const { before, after } = await stopped();
    expect(after.machine.z).toBeLessThanOrEqual(before.machine.z);
    expect(before.machine.z - after.machine.z).toBeLessThan(1);
    expect(bench.state.zero?.z).toBeUndefined();
    expect(bench.state.bench).toBe('ready');
    expect(after.alarm).toBeUndefined();
  });

  test('homing: it stands, and is not homed', async () => {
    const { job } = await demoJob('comet-marker');
    bench = new TestBench();
    await bench.connect(job);
    await bench.tell({ command: 'home' });
    await bench.pass(200);
    await bench.tell({ command: 'stop' });
    await bench.pass(2000);
    expect(bench.state.bench).toBe('unhomed');
    const { machine } = bench.router.state();
    await bench.pass(2000);
    expect(bench.router.state().machine).toEqual(machine);
  });

  test('on the way to zero it stands where it is', async () => {
    const { job } = await setUp();
    await bench.tell({ command: 'go-to-zero', basis: basisOf('job', job), lift: 16 });
    await bench.pass(150);
    const { before, after } = await stopped();
    expect(Math.hypot(after.machine.x - before.machine.x, after.machine.z - before.machine.z)).toBeLessThan(15);
    expect(bench.state.bench).toBe('ready');
  });

  test('in a bit change nothing moves, made safe or not; the run ends there', async () => {
    for (const safe of [false, true]) {
      const { order } = await setUp();
      await bench.run(order);
      await bench.until(() => bench.state.bench === 'changing', 'the bit change');
      if (safe) {
        bench.hand({ hand: 'emergency', pressed: true });
        await bench.until(() => bench.state.bench === 'changing-safe', 'the stop');
      }
      const { before, after } = await stopped();
      expect(after.machine).toEqual(before.machine);
      expect(bench.ended[0]).toMatchObject({ phase: 'stopped' });
      expect(bench.state.bench).toBe(safe ? 'emergency' : 'ready');
      expect(bench.state.zero?.z?.void).toBe('bit');
      expect(bench.state.zero?.xy?.void).toBeUndefined();
      bench.end();
    }
  });

  test('in an alarm or an emergency it changes nothing, and no lift follows', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(() => inCut(), 'a cut');
    bench.hand({ hand: 'emergency', pressed: true });
    await bench.until(() => bench.state.bench === 'emergency', 'the emergency');
    const { before, after } = await stopped();
    expect(after.machine).toEqual(before.machine);
    expect(bench.state.bench).toBe('emergency');
    expect(bench.ended[0]).toMatchObject({ phase: 'failed' });
    expect(bench.ended[0].why).toMatch(/emergency stop was pressed/);
    expect(bench.state.zero?.xy?.void).toBe('position-lost');
  });

  test('pressed twice it is one stop', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(() => inCut(), 'a cut');
    await bench.tell({ command: 'stop' });
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'lifting', 'the lift');
    await bench.idle();
    expect(bench.router.state()).toMatchObject({ spindle: 0 });
    expect(bench.router.state().machine.z).toBe(0);
    expect(bench.ended).toHaveLength(1);
  });
});

describe('Hold holds everything', () => {
  /** Holds, and looks for ten seconds whether anything moves, dwells on or begins. */
  async function heldStill(what: string) {
    await bench.tell({ command: 'hold' }, { page: 'watcher', name: '' });
    await bench.until(() => ['held', 'emergency'].includes(bench.router.state().word), `${what} to be held`);
    const before = bench.router.state();
    await bench.pass(2000);
    const after = bench.router.state();
    expect({ ...after, clock: 0 }, what).toEqual({ ...before, clock: 0 });
    expect(bench.state.bench).toMatch(/^held:/);
    for (const command of [{ command: 'home' }, { command: 'step', axis: 'x', by: 1, feed: 500 }] as const)
      await expect(bench.tell(command), what).rejects.toThrow(/held; go on or stop/);
  }

  test('a cut, the spindle’s start, its dwell, measuring and homing; and each goes on where it was', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(() => bench.router.state().spindle > 3000, 'the spindle to start');
    await bench.tell({ command: 'hold' });
    await bench.pass(4000);
    // The dwell for the spindle is held too: the first move has not begun.
    const { line } = bench.router.state();
    await bench.pass(2000);
    expect(bench.router.state().line).toBe(line);
    await bench.tell({ command: 'resume' });
    await bench.until(() => bench.router.state().line > 60, 'a cut');
    await heldStill('a cut');
    await bench.tell({ command: 'resume' });
    await bench.until(() => bench.state.bench === 'run-touching', 'measuring');
    await heldStill('a probe');
    await bench.tell({ command: 'resume' });
    await bench.until(() => bench.state.bench === 'changing', 'the bit change');
    expect(bench.router.state().alarm).toBeUndefined();
    await bench.tell({ command: 'stop' });
    await bench.idle();
    await bench.tell({ command: 'home' });
    await bench.pass(300);
    await heldStill('homing');
    await bench.tell({ command: 'resume' });
    await bench.idle();
    expect(bench.router.state()).toMatchObject({ homed: true, machine: { x: 0, y: 0, z: 0 } });
  });

  test('a spindle start that was asked for before the hold does not begin in it', async () => {
    const { job } = await demoJob('comet-marker');
    bench = new TestBench();
    await bench.prepare(job, 'v90');
    await bench.zero(job);
    await bench.clearPlate();
    const text = 'G17 G21 G90 G94 G54\nG0 Z10\nG0 X100 Y100\nT1 M6\nS9000 M3\nG4 P2\nG1 Z5 F300\nM5\nM30\n';
    const hash = bench.programs.keep(text);
    const bit = { ...bench.state.bit! };
    const basis = basisOf('job', job);
    const order = {
      hash,
      job: 'a',
      jobId: 'job',
      revision: '1',
      basis,
      bench: bench.state.facts!,
      plannedMinutes: 1,
      approach: 10,
      switchedOnBy: 'program' as const,
      turn: 0,
      dry: false,
      cuts: [{ title: 'a', from: 4, to: 8, bit, plunge: 300 }],
    };
    await bench.run(order);
    await bench.until(() => bench.router.state().word === 'moving', 'motion');
    await bench.tell({ command: 'hold' });
    await bench.pass(5000);
    expect(bench.router.state().spindle).toBe(0);
    await bench.tell({ command: 'resume' });
    await bench.until(() => bench.ended.length === 1, 'its end');
    expect(bench.ended[0].phase).toBe('done');
  });

  test('standing, it refuses whatever moves until it is let go on', async () => {
    const { job } = await prepared();
    await bench.tell({ command: 'hold' });
    await bench.pass(300);
    expect(bench.state.bench).toBe('held:ready');
    await expect(
      bench.tell({ command: 'zero', method: 'flat', corner: 'lower-left', basis: basisOf('job', job) }),
    ).rejects.toThrow(/held/);
    await expect(bench.tell({ command: 'jog', press: 'p', on: true, x: 1, y: 0, z: 0, feed: 500 })).rejects.toThrow(
      /held/,
    );
    await bench.tell({ command: 'resume' });
    await bench.pass(300);
    expect(bench.state.bench).toBe('ready');
  });
});
