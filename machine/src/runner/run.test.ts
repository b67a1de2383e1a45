/* eslint max-lines: off -- one set of cases about one thing */
import { afterEach, describe, expect, test } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import type { ProgramOrder } from './commands.ts';
import { routerOf } from '@kerbe/core/machines/router/bench';
import { routerFacts } from '../kinds/router/facts.ts';
import { basisOf, bitShapeOf } from './of-job.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

async function setUp(name = 'comet-marker', change?: (job: Job) => void, key?: string) {
  const { job, result } = await demoJob(name, change, key);
  bench = new TestBench();
  const orders = ordersOf(bench, job, result);
  await bench.setUp(job, orders[0].cuts[0].bit.id);
  return { job, result, order: orders[0], orders };
}
/** The line of the second bit. */
const second = (lines: string[]) => lines.findLastIndex((line) => / M6$/.test(line));
const inCut = () => bench.router.state().work.z < 8.7 && bench.router.state().line > 60;

/** The bit change's acts, as an operator would do them. */
async function changeBit(job: Job, id: string) {
  await bench.until(() => bench.state.bench === 'changing', 'the bit change');
  const { name, diameter, angle, tip } = bitShapeOf(job.bits, id);
  bench.hand({ hand: 'bit', id, name, diameter, angle, tip });
  await bench.tell({ command: 'bit-changed' });
}

describe('a start', () => {
  test('needs a home, a bit that was said, a zero, the list, and a check of this very program', async () => {
    const { job, result } = await demoJob('comet-marker');
    bench = new TestBench();
    await bench.connect(job);
    const [order] = ordersOf(bench, job, result);
    const start = async (o: ProgramOrder = order) => bench.tell({ command: 'run', id: 'r', ...(await bench.check(o)) });
    await expect(start()).rejects.toThrow(/not homed/);
    await bench.tell({ command: 'home' });
    await bench.idle();
    await expect(start()).rejects.toThrow(/Say which bit/);
    await bench.fit(job, 'v90');
    await expect(start()).rejects.toThrow(/Zero is not set/);
    bench.hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
    await bench.overPlate('corner');
    await bench.zero(job);
    await expect(start()).rejects.toThrow(/plate and clip are taken away/);
    bench.hand({ hand: 'clip', on: false });
    bench.hand({ hand: 'plate', place: 'away' });
    await bench.tell({ command: 'tick', step: 'plate', on: true, job: 'job' });
    await expect(start()).rejects.toThrow(/Tick this at Set-up first: the spindle is warm/);
    await bench.clearPlate();
    await expect(bench.tell({ command: 'run', id: 'r', token: 'made-up', hash: order.hash })).rejects.toThrow(
      /not checked/,
    );
    const checked = await bench.check(order);
    await expect(bench.tell({ command: 'run', id: 'r', token: checked.token, hash: 'a'.repeat(64) })).rejects.toThrow(
      /changed since/,
    );
    expect(bench.router.made.length > 0 && bench.router.state().spindle === 0).toBe(true);
    await bench.tell({ command: 'run', id: 'r', ...checked });
    expect(bench.state.bench).toBe('running');
  });
  test('is refused when anything it was checked against has changed since', async () => {
    const { job, order } = await setUp();
    const stale = async (what: () => Promise<unknown>) => {
      const checked = await bench.check(order);
      await what();
      await expect(bench.tell({ command: 'run', id: 'r', ...checked })).rejects.toThrow();
      expect(bench.state.bench).toBe('ready');
    };
    await stale(async () => {
      await bench.tell({ command: 'nudge-zero', z: -0.05 });
      await bench.idle();
    });
    await stale(() => bench.tell({ command: 'board-moved' }));
    await bench.tell({ command: 'tick', step: 'pins', on: true, job: 'job' });
    await bench.tell({ command: 'tick', step: 'held', on: true, job: 'job' });
    await bench.overPlate('corner');
    await bench.zero(job);
    await bench.clearPlate();
    await stale(() => bench.fit(job, 'v90'));
  });
  test('is refused for another job’s zero, another surface and a job whose bit is not in', async () => {
    const { job, result, order } = await setUp();
    const refused = async (change: (o: ProgramOrder) => void, why: RegExp) => {
      const other = structuredClone(order);
      change(other);
      await expect(bench.run(other, 'r')).rejects.toThrow(why);
    };
    await refused((o) => (o.basis.job.id = 'else'), /another job/);
    await refused((o) => (o.basis.placeZ = 'stock'), /counts its depths from another surface/);
    await refused((o) => (o.cuts[0].bit = o.cuts.at(-1)!.bit), /put it in and say so/);
    // Two bits may have one name.
    await refused((o) => o.cuts.forEach((cut) => (cut.bit = { ...cut.bit, id: 'twin' })), /put it in and say so/);
    await refused((o) => (routerFacts(o.bench).spindleAfter = 5), /bench’s settings have changed/);
    expect(basisOf('job', job).job.id).toBe(order.basis.job.id);
    expect(result.cuts.length).toBe(2);
  });
  test('a program with two bits is refused on a bench that cannot measure the second, whatever the order says', async () => {
    const without = (job: Job) => (routerOf(job.bench).setter = null);
    const { order } = await setUp('comet-marker', without, 'no setter');
    expect(routerFacts(order.bench).setter).toBeNull();
    await expect(bench.run(order)).rejects.toThrow(/no tool setter to measure a changed bit with/);
    const setter = { x: 580, y: 390 };
    const told = { ...structuredClone(order), bench: { ...order.bench, setter } };
    await expect(bench.run(told)).rejects.toThrow(/no tool setter to measure a changed bit with/);
    expect(bench.router.state()).toMatchObject({ spindle: 0, word: 'idle' });
  });
  test('a program that would leave the reach, is cut off, or is not the one that was written is not run', async () => {
    const { order } = await setUp();
    const withText = (change: (text: string) => string, keepHash = false) => {
      const text = change(bench.programs.kept.get(order.hash)!.text);
      const hash = bench.programs.keep(text);
      if (!keepHash) return { ...order, hash };
      bench.programs.kept.set(order.hash, bench.programs.kept.get(hash)!);
      return order;
    };
    await expect(bench.run(withText((t) => t.replace('M30', 'G0 X900\nM30')))).rejects.toThrow(
      /leave the reach of the X axis/,
    );
    await expect(bench.run(withText((t) => t.replace('M30', 'G53 G0 X900\nM30')))).rejects.toThrow(/parking place/);
    await expect(bench.run(withText((t) => t.slice(0, t.length / 2)))).rejects.toThrow(/cut off|cannot be read/);
    await expect(bench.run(withText((t) => t.replace('M30', 'G41 X3\nM30')))).rejects.toThrow(
      /lead the tool beside its way/,
    );
    await expect(bench.run(withText((t) => t + '\n(late)', true))).rejects.toThrow(/not the one that was written/);
  });
});

describe('a zero used for another job', () => {
  test('is an explicit step, holds then, and only for what is the same', async () => {
    const { job } = await setUp();
    const other = basisOf('other', { ...job, name: 'Second marker' });
    const go = () => bench.tell({ command: 'go-to-zero', basis: other, lift: 16 });
    await expect(go()).rejects.toThrow(/it was set for another job/);
    await bench.tell({ command: 'use-here', basis: other });
    await go();
    await bench.idle();
    expect(bench.state.zero?.xy?.basis.job).toEqual({ id: 'other', name: 'Second marker' });
    await expect(bench.tell({ command: 'use-here', basis: other })).rejects.toThrow(/holds for this job already/);
    // What makes it void besides the job is not carried over.
    const onTop = structuredClone(other);
    onTop.job.id = 'third';
    onTop.placeZ = 'stock';
    await bench.tell({ command: 'use-here', basis: onTop });
    await expect(bench.tell({ command: 'go-to-zero', basis: onTop, lift: 16 })).rejects.toThrow(/another surface/);
  });
  test('a board that was moved is not mended by it', async () => {
    const { job } = await setUp();
    await bench.tell({ command: 'board-moved' });
    const other = basisOf('other', job);
    await expect(bench.tell({ command: 'use-here', basis: other })).rejects.toThrow();
    expect(bench.state.zero?.xy?.void).toBe('board-moved');
  });
});

describe('an inch job', () => {
  test('is read in inches before and after its bit change: the meridian plate is as deep as its plan', async () => {
    const { job, result, order } = await setUp('meridian-plate');
    const bits = [...new Set(order.cuts.map((cut) => cut.bit.id))];
    await bench.run(order);
    for (const bit of bits.slice(1)) await changeBit(job, bit);
    await bench.until(() => bench.ended.length === 1, 'the end');
    expect(bench.ended[0].phase).toBe('done');
    const deepest = Math.max(...result.cuts.map((cut) => cut.depth));
    let lowest = 0;
    const top = bench.state.origin!.z;
    for (let k = 0; k < bench.router.made.length; k++) {
      const move = bench.router.made.move(k);
      if (move.turning) lowest = Math.min(lowest, move.to.z);
    }
    const { piece } = bench.router.look() as { piece: { top: number } };
    expect(piece.top - lowest).toBeCloseTo(deepest, 1);
    expect(top).toBeLessThan(0);
  });
});

describe('bits', () => {
  test('the same length as before the change is asked about, and nothing goes on until that is answered', async () => {
    const { job, order } = await setUp();
    await bench.run(order);
    await bench.until(() => bench.state.bench === 'changing', 'the change');
    // Nobody has changed it.
    await bench.tell({ command: 'bit-changed' });
    await bench.until(() => bench.state.bench === 'asking', 'the question');
    expect(bench.state.question).toMatchObject({ about: 'same-length' });
    const { machine } = bench.router.state();
    await bench.pass(3000);
    expect(bench.router.state().machine).toEqual(machine);
    const { name, diameter, angle, tip } = bitShapeOf(job.bits, 'e6');
    bench.hand({ hand: 'bit', id: 'e6', name, diameter, angle, tip });
    await bench.tell({ command: 'bit-changed' });
    await bench.until(() => bench.ended.length === 1, 'the end');
    expect(bench.ended[0].phase).toBe('done');
  });
  test('a length far from the bit’s own is asked about', async () => {
    const { job, order } = await setUp();
    await bench.run(order);
    await changeBit(job, 'e6');
    await bench.until(() => bench.ended.length === 1, 'the end');
    await bench.fit(job, 'v90');
    await bench.overPlate('corner');
    await bench.zero(job);
    await bench.clearPlate();
    await bench.run(order, 'run-2');
    await bench.until(() => bench.state.bench === 'changing', 'the change');
    const { name, diameter, angle, tip } = bitShapeOf(job.bits, 'e6');
    // Another mill of the same name, which sticks out further.
    let tries = 0;
    do bench.hand({ hand: 'bit', id: `another-${tries}`, name, diameter, angle, tip });
    while (Math.abs(bench.router.bit!.length - lengthOf('e6')) < 4 && ++tries < 50);
    await bench.tell({ command: 'bit-changed' });
    await bench.until(() => bench.state.bench === 'asking', 'the question');
    expect(bench.state.question).toMatchObject({ about: 'far-from-own', bit: { id: 'e6' } });
    await bench.tell({ command: 'bit-is-right' });
    await bench.until(() => bench.ended.length === 2, 'the end');
    expect(bench.ended[1].phase).toBe('done');
  });
  const lengthOf = (id: string) => bench.router.drawer.lengthOf(id) ?? 0;
  test('namesakes are told apart: two bits of one name are changed', async () => {
    const { job, order } = await setUp(
      'comet-marker',
      (j) => {
        for (const bit of j.bits) bit.name = 'Bit';
      },
      'namesakes',
    );
    expect(new Set(order.cuts.map((cut) => cut.bit.name)).size).toBe(2);
    await bench.run(order);
    await changeBit(job, 'e6');
    await bench.until(() => bench.ended.length === 1, 'the end');
    expect(bench.ended[0].phase).toBe('done');
  });
  test('at Set-up: another bit makes Z void until it is measured, and measuring brings Z along', async () => {
    const { job } = await setUp();
    await bench.tell({ command: 'measure' });
    await bench.idle();
    const { z } = bench.state.origin!;
    const before = bench.router.bit!.length;
    await bench.fit(job, 'e6');
    expect(bench.state.zero?.z?.void).toBe('bit');
    await expect(bench.tell({ command: 'go-to-zero', basis: basisOf('job', job), lift: 16 })).rejects.toThrow(
      /Measure the bit/,
    );
    await bench.tell({ command: 'measure' });
    await bench.idle();
    expect(bench.state.zero?.z?.void).toBeUndefined();
    expect(bench.state.origin!.z - z).toBeCloseTo(bench.router.bit!.length - before, 2);
    expect(bench.state.zero?.xy?.void).toBeUndefined();
  });
  test('a bit that has slipped is noticed, and goes by its new length only when measured again', async () => {
    await setUp();
    await bench.tell({ command: 'measure' });
    await bench.idle();
    bench.router.bit!.length += 0.5;
    await bench.tell({ command: 'measure' });
    await bench.idle();
    expect(bench.state.problem).toMatch(/0\.50 mm further/);
    expect(bench.state.zero?.z?.void).toBe('bit');
    const { z } = bench.state.origin!;
    await bench.tell({ command: 'measure' });
    await bench.idle();
    expect(bench.state.origin!.z - z).toBeCloseTo(0.5, 2);
    expect(bench.state.zero?.z?.void).toBeUndefined();
  });
});

describe('what is said of a run is true', () => {
  test('the line after a stop is the last one whose moves were all made', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(() => (bench.state.run?.line ?? 0) > 300, 'some lines');
    await bench.tell({ command: 'stop' });
    await bench.idle();
    const [ended] = bench.ended;
    const lines = bench.programs.kept.get(order.hash)!.text.split('\n');
    // The machine had sent done for exactly these: the next line's target was not reached.
    expect(ended.line).toBeGreaterThan(300);
    expect(ended.line).toBeLessThan(lines.length);
    expect(bench.state.run).toMatchObject({ line: ended.line, phase: 'stopped' });
  });
  test('after a bit change the runner’s own lines are not the program’s', async () => {
    const { job, order } = await setUp();
    await bench.run(order);
    await bench.until(() => bench.state.bench === 'changing', 'the change');
    const lines = bench.programs.kept.get(order.hash)!.text.split('\n');
    expect(lines[bench.state.run!.line]).toMatch(/^T\d M6$/);
    await changeBit(job, 'e6');
    await bench.until(() => bench.state.bench === 'running', 'the cut after it');
    await bench.pass(200);
    expect(bench.state.run!.line).toBeLessThan(second(lines) + 40);
  });
  test('a lost link is told as such, and the machine has held by itself', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(inCut, 'a cut');
    bench.cut();
    await bench.pass(500);
    expect(bench.ended[0]).toMatchObject({ phase: 'lost' });
    expect(bench.ended[0].line).toBeGreaterThan(10);
    expect(bench.state.bench).toBe('lost');
    expect(bench.state.zero).toMatchObject({ xy: { void: 'link-lost' }, z: { void: 'link-lost' } });
    expect(bench.router.state()).toMatchObject({ word: 'held', held: 'unheard' });
  });
  test('time left falls evenly through a long move, and a slower feed stretches only what is fed', async () => {
    const { job } = await demoJob('comet-marker');
    bench = new TestBench({ rate: 1 });
    await bench.setUp(job, 'v90');
    // A move of 30 mm at 300 mm/min and one of 150: 6 s and 30 s, of a program planned with 5 s of rapid moves besides.
    const text = ['G17 G21 G90 G94 G54', 'G0 Z20', 'G0 X10 Y100', 'G1 X40 F300', 'X190', 'M30'].join('\n');
    const at = (m: number[]) => Float64Array.from(m);
    const minutes = [0, 0.02, 0.08, 0.18, 0.68, 0.68];
    const fed = [0, 0, 0, 0.1, 0.6, 0.6];
    const hash = bench.programs.keep(text, {
      minutes: at(minutes),
      others: [10, 50, 200].map((percent) => ({
        percent,
        minutes: at(minutes.map((all, k) => all - fed[k] + (fed[k] * 100) / percent)),
      })),
    });
    const order: ProgramOrder = {
      hash,
      job: 'a',
      jobId: 'job',
      revision: '1',
      basis: basisOf('job', job),
      bench: bench.state.facts!,
      plannedMinutes: 0.68,
      approach: 20,
      switchedOnBy: 'program',
      turn: 0,
      dry: false,
      cuts: [{ title: 'a', from: 1, to: 6, bit: bench.state.bit!, plunge: 300 }],
    };
    await bench.tell({ command: 'feed', percent: 50 });
    await bench.tell({ command: 'spindle', percent: 80 });
    await bench.pass(300);
    expect(bench.router.state()).toMatchObject({ override: 50, spindleOverride: 80 });
    await bench.run(order);
    // An override from before does not go on unseen.
    await bench.pass(300);
    expect(bench.router.state()).toMatchObject({ override: 100, spindleOverride: 100 });
    await bench.until(() => bench.router.state().work.x > 40.5, 'the long move', 30);
    await bench.pass(10_000);
    const third = bench.state.run!.minutesLeft * 60;
    expect(third).toBeGreaterThan(18);
    expect(third).toBeLessThan(22);
    await bench.pass(5000);
    expect(third - bench.state.run!.minutesLeft * 60).toBeCloseTo(5, 0);
    await bench.tell({ command: 'feed', percent: 50 });
    await bench.pass(300);
    // Of 30 s 15 are left, and twice as many at half the feed; each second takes one of them away.
    const slow = bench.state.run!.minutesLeft * 60;
    expect(Math.abs(slow - 2 * (third - 5))).toBeLessThan(1.5);
    await bench.pass(8000);
    expect(slow - bench.state.run!.minutesLeft * 60).toBeCloseTo(8, 0);
  });
  test('waiting is not work', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(inCut, 'a cut');
    await bench.tell({ command: 'hold' });
    await bench.pass(200);
    const { minutes, waited } = bench.state.run!;
    await bench.pass(12_000);
    expect(bench.state.run!.minutes).toBe(minutes);
    expect(bench.state.run!.waited - waited).toBeCloseTo(1, 1);
  });
});

describe('the bit that was said is compared by its shape', () => {
  test.each<[string, object]>([
    ['angle', { angle: 60 }],
    ['diameter', { diameter: 12 }],
    ['tip', { tip: 0.4 }],
    ['cutting length', { flute: 3.21 }],
    ['shank', { shank: 3.175 }],
  ])('edited in its %s since it was said, it is another', async (_, edit) => {
    const { job, result } = await demoJob('comet-marker');
    const edited = {
      ...job,
      bits: job.bits.map((bit) => (bit.id === 'v90' ? { ...bit, ...edit } : bit)),
    } as typeof job;
    bench = new TestBench();
    await bench.setUp(job, 'v90');
    const [order] = ordersOf(bench, edited, result);
    await expect(bench.run(order)).rejects.toMatchObject({
      reason: 'other-bit',
      message: expect.stringMatching(/included angle.*; what was said to be in is a V-bit, .*included angle/),
    });
    expect(bench.state.bench).toBe('ready');
    // Said anew, its height has to be found anew.
    await bench.fit(edited, 'v90');
    await expect(bench.run(order)).rejects.toMatchObject({ reason: 'zero-void' });
  });
  test('another name or feed is the same bit', async () => {
    const { job, result } = await demoJob('comet-marker');
    const renamed = structuredClone(job);
    const bit = renamed.bits.find(({ id }) => id === 'v90')!;
    bit.name = 'The old one';
    for (const row of bit.presets) Object.assign(row, { feed: 777 });
    bench = new TestBench();
    await bench.setUp(job, 'v90');
    await bench.run(ordersOf(bench, renamed, result)[0]);
    expect(bench.state.bench).toBe('running');
  });
});

describe('going on after a break', () => {
  /** Breaks a run in the middle of a cut, and returns its last acknowledged line. */
  async function broken(how: () => Promise<void> | void) {
    const { job, order } = await setUp();
    await bench.run(order);
    await bench.until(() => inCut() && (bench.state.run?.line ?? 0) > 400, 'a cut');
    await how();
    await bench.until(() => bench.ended.length === 1, 'the break');
    return { job, order, line: bench.ended[0].line };
  }
  const takeUp = async (order: ProgramOrder, line: number, acknowledged: number, broken = 'run-1') =>
    bench.tell({ command: 'take-up', id: 'run-2', ...(await bench.check(order)), line, acknowledged, broken });

  test('after Stop: up, spindle, across, down at plunge feed, and on to a whole piece', async () => {
    const { job, order, line } = await broken(() => bench.tell({ command: 'stop' }));
    await bench.idle();
    await expect(takeUp(order, line - 6, line)).rejects.toThrow(/Tick this/);
    await bench.clearPlate();
    await expect(takeUp(order, line + 1, line)).rejects.toThrow(/did not get that far/);
    const moves = bench.router.made.length;
    await takeUp(order, line - 6, line);
    await bench.until(() => bench.router.state().line > 12, 'the cut to go on');
    const made = Array.from({ length: 5 }, (_, k) => bench.router.made.move(moves + k));
    // Nothing goes across below the top, and down only fed and turning.
    const top = (bench.router.look() as { piece: { top: number } }).piece.top;
    for (const { from, to, rapid, turning } of made) {
      if (Math.hypot(to.x - from.x, to.y - from.y) > 20) expect(Math.min(from.z, to.z)).toBeGreaterThan(top);
      if (to.z < top) expect([rapid, turning]).toEqual([false, true]);
    }
    await changeBit(job, 'e6');
    await bench.until(() => bench.ended.length === 2, 'the end');
    expect(bench.ended[1]).toMatchObject({ phase: 'done', takesUp: 'run-1' });
    expect(bench.router.state().alarm).toBeUndefined();
  });

  test('after a lost link: nothing by itself, then zero anew, then on', async () => {
    const { job, order, line } = await broken(() => bench.cut());
    await bench.connect(job);
    await bench.pass(1000);
    expect(bench.state.bench).toBe('left');
    const before = bench.router.state();
    await bench.pass(5000);
    expect(bench.router.state().machine).toEqual(before.machine);
    await expect(bench.tell({ command: 'home' })).rejects.toThrow(/left to itself/);
    await expect(bench.tell({ command: 'resume' })).rejects.toThrow(/left to itself/);
    await bench.tell({ command: 'stop' });
    await bench.idle();
    // Out of the work, straight up.
    const { x, y } = before.machine;
    expect(bench.router.state()).toMatchObject({ spindle: 0, machine: { x, y, z: 0 } });
    await bench.clearPlate();
    await bench.fit(job, 'v90');
    await expect(takeUp(order, line - 6, line)).rejects.toThrow(/link to the machine was lost/);
    await bench.overPlate('corner');
    await bench.zero(job);
    await bench.clearPlate();
    await takeUp(order, line - 6, line);
    await changeBit(job, 'e6');
    await bench.until(() => bench.ended.length === 2, 'the end');
    expect(bench.ended[1].phase).toBe('done');
  });

  test('a program that is not the broken one, and a run whose line nobody knows, are not taken up', async () => {
    const { order, line } = await broken(() => bench.tell({ command: 'stop' }));
    await bench.idle();
    await bench.clearPlate();
    // The same job, changed since: another program, with lines of its own.
    const { text, timeline } = bench.programs.kept.get(order.hash)!;
    const changed = { ...order, hash: bench.programs.keep(text.replace('\n', '\n(changed since)\n'), timeline) };
    for (const from of [line - 6, 0])
      await expect(takeUp(changed, from, line)).rejects.toMatchObject({ reason: 'other-program' });
    await expect(takeUp(order, line + 2, line + 100)).rejects.toMatchObject({ reason: 'beyond-broken' });
    Object.assign(bench.ended[0], { lineUnknown: true });
    await expect(takeUp(order, line - 6, line)).rejects.toMatchObject({ reason: 'line-unknown' });
    expect(bench.state.bench).toBe('ready');
  });

  test('in the cut after a bit change it begins with that bit, and is refused with another', async () => {
    const { job, order } = await setUp();
    await bench.run(order);
    await changeBit(job, 'e6');
    await bench.until(() => bench.state.bench === 'running', 'the second cut');
    const change = second(bench.programs.kept.get(order.hash)!.text.split('\n'));
    await bench.until(() => bench.state.run!.line > change + 30, 'some of it');
    await bench.tell({ command: 'stop' });
    await bench.idle();
    await bench.clearPlate();
    const { line } = bench.ended[0];
    // The bit in the spindle is the second cut's; its program begins with the first's.
    await expect(takeUp(order, 40, line)).rejects.toThrow(/This begins with V 90/);
    await takeUp(order, line - 5, line);
    await bench.until(() => bench.ended.length === 2, 'the end');
    expect(bench.ended[1].phase).toBe('done');
    expect(bench.router.state().alarm).toBeUndefined();
  });
});

describe('left alone', () => {
  test('without a word for two seconds the machine holds; the spindle goes off clear of the cut, later', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(inCut, 'a cut');
    // The runner hangs: the link stands, and nothing comes over it.
    bench.mute = true;
    await bench.pass(2600);
    expect(bench.router.state()).toMatchObject({ word: 'held', held: 'unheard' });
    expect(bench.router.state().spindle).toBeGreaterThan(10_000);
    const { machine } = bench.router.state();
    await bench.pass(15_000);
    expect(bench.router.state().machine).toEqual(machine);
    await bench.pass(10_000);
    expect(bench.router.state()).toMatchObject({ spindle: 0 });
    expect(bench.router.state().machine).toMatchObject({ x: machine.x, y: machine.y, z: 0 });
  });
  test('on a short silence it holds by itself, says so, and goes on only when told to', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(inCut, 'a cut');
    const { hear } = bench.controller;
    // The runner's words do not arrive for a while; the machine's do.
    bench.controller.hear = () => {};
    await bench.pass(2500);
    bench.controller.hear = hear;
    await bench.pass(1000);
    expect(bench.state.bench).toBe('held:running');
    expect(bench.state.problem).toMatch(/heard nothing from Kerbe for two seconds/);
    const { machine } = bench.router.state();
    await bench.pass(5000);
    expect(bench.router.state().machine).toEqual(machine);
    await bench.tell({ command: 'resume' });
    await bench.pass(500);
    expect(bench.router.state().machine).not.toEqual(machine);
  });
  test('a machine that was switched off and on has lost its place, and the run says so', async () => {
    const { order } = await setUp();
    await bench.run(order);
    await bench.until(inCut, 'a cut');
    bench.hand({ hand: 'power' });
    await bench.until(() => bench.ended.length === 1, 'the end', 10);
    expect(bench.ended[0].phase).toBe('failed');
    expect(bench.state.zero?.xy?.void).toBeDefined();
    await bench.pass(1000);
    expect(bench.state.bench).toBe('unhomed');
  });
  test('homed again without loss, zero holds', async () => {
    await setUp();
    await bench.tell({ command: 'home' });
    await bench.idle();
    expect(bench.state.zero).toMatchObject({ xy: { at: expect.any(String) }, z: { at: expect.any(String) } });
    expect(bench.state.zero?.xy?.void).toBeUndefined();
    expect(bench.state.zero?.z?.void).toBeUndefined();
  });
});
