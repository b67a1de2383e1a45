/* eslint max-lines: off -- one set of cases about one thing */
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, test } from 'vitest';
import { compute } from '@kerbe/core/compute/compute';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/machines/programs';
import { zeroOf } from '@kerbe/core/stock/stock';
import { clipperFromDisk, resourcesFromDisk } from '../../../core-from-disk.ts';
import type { Hand } from './hands.ts';
import { DOME } from './made-as.ts';
import { StandInRouter } from './router.ts';
import { SPOILBOARD_TOP, Table } from './table.ts';
import { bitShapeOf } from '../../../runner/of-job.ts';

const TRAVEL = DOME.travel;
const SETTER = new Table().setter!;

type Message = Record<string, unknown>;

// The machine is stepped in its own time, so nothing here depends on how busy the computer is.
let told: Message[];
let router: StandInRouter;

beforeEach(() => {
  told = [];
  router = new StandInRouter((message) => told.push(message), 3);
});

/** Lets the machine work until it stands still; returns its seconds. */
function settle(seconds = 3600): number {
  const began = router.clock;
  for (let t = 0; t < seconds; t += 0.5) {
    router.advance(0.5);
    const { word } = router.state();
    if (!['moving', 'homing', 'jogging', 'probing', 'slowing'].includes(word)) break;
  }
  return router.clock - began;
}
function home(): void {
  router.control('home', '');
  settle();
  expect(router.state().homed).toBe(true);
}
function send(...lines: string[]): void {
  for (const line of lines) router.block(line);
}
const alarm = () => router.state().alarm;
const refused = () => told.filter((message) => message.refused !== undefined).map((message) => message.why);
/** Of an even board, so that depths below its top are plain. */
const THICK = 18;
const board: Hand = { hand: 'stock', length: 200, width: 120, corners: [THICK, THICK, THICK, THICK] };
const endMill: Hand = { hand: 'bit', name: 'End mill 6', diameter: 6, tip: 0 };
/** Zero of G54 on the upper side of the stock's lower left corner, found by looking. */
function zeroOnStock(): { x: number; y: number; z: number } {
  const { corner, thickness } = router.table.piece!;
  const zero = { x: corner.x, y: corner.y, z: SPOILBOARD_TOP + thickness[0] + router.bit!.length };
  send(`G10 L2 P1 X${zero.x} Y${zero.y} Z${zero.z}`, 'G54 G90 G21');
  return zero;
}

describe('home and reach', () => {
  test('nothing moves before it is homed', () => {
    send('G0 X10');
    settle();
    expect(refused()).toEqual(['The machine is not homed; home it first.']);
    expect(alarm()).toMatch(/before it was homed/);
  });
  test('homing ends at the home corner, and a stop in it leaves it unhomed', () => {
    home();
    expect(router.state().machine).toEqual({ x: 0, y: 0, z: 0 });
    router.control('home', '');
    router.advance(0.2);
    router.control('stop', '');
    settle();
    expect(router.state()).toMatchObject({ homed: false, word: 'unhomed' });
  });
  test.each([
    ['G0 X821', 'X'],
    ['G0 X-1', 'X'],
    ['G0 Y520.5', 'Y'],
    ['G0 Z1', 'Z'],
    ['G0 Z-131', 'Z'],
  ])('%s would leave the reach', (line, axis) => {
    home();
    send(line);
    settle();
    expect(refused()).toEqual([`This move leaves the reach of the ${axis} axis.`]);
    expect(alarm()).toContain(`reach of the ${axis} axis`);
    expect(router.state().machine).toEqual({ x: 0, y: 0, z: 0 });
  });
  test('to the very end of every axis is allowed', () => {
    home();
    send(`G0 Z-${TRAVEL.z}`, 'G0 Z0', `G0 X${TRAVEL.x} Y${TRAVEL.y}`);
    settle();
    expect(alarm()).toBeUndefined();
    expect(router.state().machine).toEqual({ x: TRAVEL.x, y: TRAVEL.y, z: 0 });
  });
  test('an alarm refuses further lines until it is cleared', () => {
    home();
    send('G0 X900');
    settle();
    send('G0 X10');
    expect(refused().at(-1)).toMatch(/The machine has stopped/);
    router.control('clear', '');
    send('G0 X10');
    settle();
    expect(router.state().machine.x).toBe(10);
  });
});

describe('motion', () => {
  test('a single move takes the time of the closed formula: length/v + v/a', () => {
    home();
    send('G1 X120 F3000');
    // 50 mm/s reached and left at 400 mm/s²; 120/50 + 50/400 = 2.525 s.
    settle();
    const before = router.clock;
    send('G1 X0 F3000');
    let last = before;
    for (let k = 0; k < 400; k++) {
      router.advance(0.01);
      if (router.state().word === 'moving') last = router.clock;
    }
    expect(last - before).toBeGreaterThan(2.5);
    expect(last - before).toBeLessThan(2.56);
  });
  test('hold slows down and stands; resume goes on to the same end', () => {
    home();
    send('G1 X400 F6000');
    router.advance(1);
    router.control('hold', '');
    router.advance(1);
    const { word, machine } = router.state();
    expect(word).toBe('held');
    expect(machine.x).toBeGreaterThan(50);
    expect(machine.x).toBeLessThan(200);
    router.advance(5);
    expect(router.state().machine).toEqual(machine);
    router.control('resume', '');
    settle();
    expect(router.state().machine.x).toBe(400);
  });
  test('the feed override changes the time of cutting, not of rapid moves', () => {
    home();
    send('G1 X300 F1500');
    const full = settle();
    router.control('feed', '50');
    send('G1 X0 F1500');
    expect(settle() / full).toBeGreaterThan(1.9);
    send('G0 X300');
    const rapid = settle();
    router.control('feed', '100');
    send('G0 X0');
    expect(settle()).toBeCloseTo(rapid, 1);
  });
  test.each(['5', '250', 'much'])('an override of %s is not taken', (percent) => {
    router.control('feed', percent);
    expect(router.state().override).toBe(100);
    expect(told.at(-1)?.error).toMatch(/not known/);
  });
  test('by hand it goes slowly before homing, stops at the ends of the axes, and takes one step at a time', () => {
    router.control('step', 'x-100 f6000');
    expect(settle()).toBeGreaterThan(9);
    router.control('step', 'x-100 f6000');
    settle();
    expect(router.state().machine.x).toBe(0);
    home();
    router.control('step', 'z-40 f2000');
    router.control('step', 'z-40 f2000');
    expect(told.at(-1)?.error).toMatch(/busy/);
    settle();
    expect(router.state().machine.z).toBe(-40);
    router.control('step', 'z102 f2000');
    settle();
    expect(router.state().machine.z).toBe(0);
    router.control('step', 'x200 f2000');
    expect(told.at(-1)?.error).toMatch(/at most 102 mm/);
  });
  test('driven, it goes on for as long as it is asked to, by the time of people and not its own', () => {
    home();
    for (let k = 0; k < 10; k++) {
      router.control('drive', 'x1 f2000');
      router.advance(0.05);
    }
    expect(router.state().word).toBe('jogging');
    router.advance(0.14);
    router.advance(0.12);
    expect(router.state().word).toBe('idle');
    const { x } = router.state().machine;
    expect(x).toBeGreaterThan(10);
    router.advance(2);
    expect(router.state().machine.x).toBe(x);
  });
  test('it is not moved by hand while lines wait, nor while it is held', () => {
    home();
    send('G1 X300 F1000');
    router.advance(0.5);
    router.control('step', 'x10');
    expect(told.at(-1)?.error).toMatch(/busy/);
    settle();
    router.control('hold', '');
    for (const word of ['step', 'drive']) {
      router.control(word, 'x1');
      expect(told.at(-1)?.error).toMatch(/held/);
    }
    router.control('home', '');
    expect(told.at(-1)?.error).toMatch(/busy/);
  });
  test('held, nothing begins: no dwell passes, no spindle starts, homing waits', () => {
    home();
    router.hand(endMill);
    send('G0 X10', 'S9000 M3', 'G4 P1', 'G1 X20 F600');
    router.control('hold', '');
    router.advance(5);
    expect(router.state()).toMatchObject({ word: 'held', spindle: 0, held: 'asked' });
    router.control('resume', '');
    router.advance(0.6);
    router.control('hold', '');
    router.advance(10);
    expect(router.state().machine.x).toBe(10);
    router.control('resume', '');
    settle();
    expect(router.state().machine.x).toBe(20);
    send('M5');
    settle();
    router.advance(3);
    router.control('home', '');
    router.advance(0.1);
    router.control('hold', '');
    router.advance(20);
    expect(router.state()).toMatchObject({ word: 'held' });
    router.control('resume', '');
    settle();
    expect(router.state().machine).toEqual({ x: 0, y: 0, z: 0 });
  });
  test('stop leaves the spindle as it turns; only whole bits of a program are forgotten', () => {
    home();
    router.hand(endMill);
    send('S9000 M3', 'G4 P2', 'G1 X300 F2000', 'G1 X0');
    router.advance(4);
    router.control('stop', '');
    settle();
    router.advance(3);
    expect(router.state()).toMatchObject({ word: 'idle', spindle: 9000 });
  });
  test('done tells every line once its moves are made', () => {
    home();
    send('G0 X10', 'G0 X20', 'G4 P1', 'G0 X30');
    settle();
    router.advance(2);
    settle();
    expect(told.filter((m) => m.done !== undefined).at(-1)?.done).toBe(4);
  });
  test('M0 and M1 wait for someone', () => {
    for (const stop of ['M0', 'M1']) {
      router = new StandInRouter((message) => told.push(message), 3);
      home();
      send('G0 X10', stop, 'G0 X20');
      settle();
      expect(router.state().word).toBe('waiting');
      expect(router.state().machine.x).toBe(10);
      router.control('resume', '');
      settle();
      expect(router.state().machine.x).toBe(20);
    }
  });
  test('a word it does not know stops it with a sentence', () => {
    home();
    send('G1 X5 F100', 'G41 X3');
    settle();
    expect(refused()).toEqual(['G41 is not known here.']);
    expect(alarm()).toMatch(/line 2 was refused/);
  });
});

describe('the emergency stop', () => {
  test('pressed in motion it ends everything and costs the home position', () => {
    home();
    send('G1 X300 F2000', 'G1 X0');
    router.advance(1);
    router.hand({ hand: 'emergency', pressed: true });
    expect(router.state()).toMatchObject({ word: 'emergency', homed: false, spindle: 0 });
    const { machine } = router.state();
    router.advance(5);
    expect(router.state().machine).toEqual(machine);
    send('G0 X1');
    expect(refused().at(-1)).toMatch(/release it first/);
    router.hand({ hand: 'emergency', pressed: false });
    expect(router.state().word).toBe('alarm');
    router.control('clear', '');
    expect(router.state().word).toBe('unhomed');
  });
  test('pressed while it stands, as for a bit change, it keeps its home', () => {
    home();
    router.hand({ hand: 'emergency', pressed: true });
    router.control('clear', '');
    expect(router.state().word).toBe('emergency');
    router.hand({ hand: 'emergency', pressed: false });
    router.control('clear', '');
    expect(router.state()).toMatchObject({ word: 'idle', homed: true });
  });
  test('it cannot be homed while the stop is pressed', () => {
    router.hand({ hand: 'emergency', pressed: true });
    router.control('home', '');
    expect(told.at(-1)?.error).toMatch(/release it first/);
  });
});

describe('spindle and hands', () => {
  test('the spindle takes time to turn, and needs a bit', () => {
    home();
    send('S16000 M3');
    settle();
    expect(alarm()).toMatch(/without a bit/);
    router.control('clear', '');
    router.hand(endMill);
    send('S16000 M3');
    router.advance(1);
    expect(router.state().spindle).toBeGreaterThan(5000);
    expect(router.state().spindle).toBeLessThanOrEqual(8000);
    router.advance(1.5);
    expect(router.state().spindle).toBe(16_000);
    router.control('spindle', '50');
    router.advance(2);
    expect(router.state().spindle).toBe(8000);
  });
  test('a hand at the turning spindle, a bit change while it turns, and a clip left on are alarms', () => {
    home();
    router.hand(endMill);
    send('S8000 M3');
    router.advance(3);
    router.hand(endMill);
    expect(alarm()).toMatch(/hand was put to the turning spindle/);
    router.control('clear', '');
    send('S8000 M3', 'G4 P2', 'T2 M6');
    router.advance(4);
    expect(alarm()).toMatch(/with the spindle turning/);
    router.advance(5);
    router.control('clear', '');
    router.hand({ hand: 'clip', on: true });
    send('M3 S8000');
    router.advance(1);
    expect(alarm()).toMatch(/touch clip still on/);
  });
});

describe('stock and bit', () => {
  beforeEach(() => {
    home();
    router.hand(board);
    router.hand(endMill);
  });
  test('with the spindle standing the bit may not be driven into the stock', () => {
    zeroOnStock();
    send('G0 X50 Y50', 'G1 Z-3 F300');
    settle();
    expect(alarm()).toMatch(/into the stock with the spindle standing/);
  });
  test('nor in a rapid move', () => {
    zeroOnStock();
    send('S16000 M3', 'G4 P3', 'G0 X50 Y50 Z5', 'G0 Z-3');
    settle();
    expect(alarm()).toMatch(/into the stock in a rapid move/);
  });
  test('turning and fed it carves what the program says', () => {
    zeroOnStock();
    send('S16000 M3', 'G4 P3', 'G0 X50 Y50 Z5', 'G1 Z-3 F300', 'G1 X80 F1000', 'G0 Z5', 'M5');
    settle();
    expect(alarm()).toBeUndefined();
    const { heights, columns, cell } = router.table.piece!;
    const at = (x: number, y: number) => heights[Math.floor(y / cell) * columns + Math.floor(x / cell)];
    expect(at(65, 50)).toBeCloseTo(15, 5);
    expect(at(65, 52.6)).toBeCloseTo(15, 5);
    expect(at(65, 53.6)).toBeCloseTo(18, 5);
    expect(at(20, 20)).toBeCloseTo(18, 5);
  });
  test('a canned cycle drills and comes out again', () => {
    zeroOnStock();
    send('S16000 M3', 'G4 P3', 'G0 Z6', 'G98 G83 X30 Y30 Z-9 R1 Q3 F200', 'X60', 'G80', 'G0 Z6', 'M5');
    settle();
    expect(alarm()).toBeUndefined();
    const { heights, columns, cell } = router.table.piece!;
    for (const x of [30, 60]) expect(heights[Math.floor(30 / cell) * columns + Math.floor(x / cell)]).toBeCloseTo(9, 5);
    expect(heights[Math.floor(30 / cell) * columns + Math.floor(45 / cell)]).toBeCloseTo(18, 5);
  });
  test('a probe move finds the plate’s top, and without a clip ends in an alarm', () => {
    router.hand({ hand: 'plate', place: 'flat' });
    router.hand({ hand: 'clip', on: true });
    const box = router.table.plateBox()!;
    send(`G53 G0 X${(box.x0 + box.x1) / 2} Y${(box.y0 + box.y1) / 2}`, 'G91 G38.2 Z-120 F300', 'G90');
    settle();
    const probe = told.find((m) => m.probe)?.probe as { z: number };
    expect(probe.z - router.bit!.length).toBeCloseTo(box.z1, 2);
    send('G53 G0 Z0');
    settle();
    router.hand({ hand: 'clip', on: false });
    router.hand({ hand: 'plate', place: 'away' });
    send('G91 G38.2 Z-20 F300');
    settle();
    expect(alarm()).toMatch(/ended without a touch/);
  });
  test('a closed touch circuit before the probe move is noticed', () => {
    router.hand({ hand: 'plate', place: 'flat' });
    router.hand({ hand: 'clip', on: true });
    router.hand({ hand: 'tap', on: true });
    expect(router.state().touching).toBe(true);
    send('G91 G38.2 Z-20 F300');
    settle();
    expect(alarm()).toMatch(/closed before the probe move/);
  });
  test('the tool setter tells bits of different length apart', () => {
    const lengths: number[] = [];
    for (let k = 0; k < 2; k++) {
      router.hand(endMill);
      send('G53 G0 Z0', `G53 G0 X${SETTER.x} Y${SETTER.y}`, 'G91 G38.2 Z-120 F300', 'G90', 'G53 G0 Z0');
      told.length = 0;
      settle();
      const probe = told.find((m) => m.probe)?.probe as { z: number };
      lengths.push(probe.z - (SPOILBOARD_TOP + SETTER.height) - router.bit!.length);
    }
    expect(lengths[0]).toBeCloseTo(0, 2);
    expect(lengths[1]).toBeCloseTo(0, 2);
  });
  test('a new link forgets what an earlier one left waiting', () => {
    send('G1 X200 F500', 'G1 X0', 'G1 X200');
    router.advance(1);
    router.disconnected();
    router.advance(1);
    expect(router.state()).toMatchObject({ word: 'held', held: 'unheard' });
    const { machine } = router.state();
    router.connected();
    router.advance(30);
    // Nothing moves or stops by that: it stays held where it is, with nothing left to go on with.
    expect(router.state()).toMatchObject({ word: 'held', line: 0, done: 0, machine });
    router.control('resume', '');
    router.advance(5);
    expect(router.state()).toMatchObject({ word: 'idle', machine });
  });
  test('looking tells where things lie, as someone beside the machine sees it', () => {
    router.hand({ hand: 'plate', place: 'corner', corner: 'upper-right' });
    const look = router.look() as { piece: { top: number }; plate: { z1: number }; bit: { name: string } };
    expect(look.piece.top).toBe(SPOILBOARD_TOP + 18);
    expect(look.plate.z1).toBe(SPOILBOARD_TOP + 18 + 12);
    expect(look.bit.name).toBe('End mill 6');
  });
});

describe('the demo jobs', () => {
  const names = JSON.parse(readFileSync(new URL('../../../../../demo/jobs.json', import.meta.url), 'utf8')) as string[];
  const routed = names.filter((name) => {
    const url = new URL(`../../../../../demo/jobs/${name}.kerbe.json`, import.meta.url);
    return readJobFile(readFileSync(url, 'utf8')).job.bench.kind === 'router';
  });
  test.each(routed)(
    '%s: planned time within 1 percent of the machine’s clock, bit by bit, and no fault',
    async (name) => {
      const { job, assets } = readJobFile(
        readFileSync(new URL(`../../../../../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'),
      );
      const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
      const result = await compute(job, resources, await clipperFromDisk());
      const [program] = programsFor(job, result, { revision: '1', date: '2026-11-24' });
      const lines = program.text.split('\n');
      home();
      router.hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
      let planned = 0;
      let taken = 0;
      // One bit's cuts after another, with all that lies between them; at the end the way back to zero.
      const cuts = program.cuts.map((range) => {
        const k = result.cuts.findIndex((cut) => cut.id === range.id);
        return { range, made: result.cuts[k], beside: result.beside[k] };
      });
      for (let first = 0, next = 0; first < cuts.length; first = next) {
        const { made } = cuts[first];
        while (next < cuts.length && cuts[next].made.bit === made.bit) next++;
        const stretch = cuts.slice(first, next);
        const minutes =
          stretch.reduce((sum, c) => sum + c.beside.before + c.made.minutes + c.beside.after, 0) -
          cuts[first].beside.before;
        router.hand({ hand: 'bit', ...bitShapeOf(job.bits, made.bit) });
        const { corner, thickness } = router.table.piece!;
        const zero = zeroOf(job.stock);
        const top = SPOILBOARD_TOP + Math.max(...thickness) + router.bit!.length;
        send(
          'G53 G0 Z0',
          'G21 G90',
          `G10 L2 P1 X${corner.x + zero.x} Y${corner.y + zero.y} Z${top + zero.z}`,
          job.unit === 'in' ? 'G20 G90 G54' : 'G21 G90 G54',
          `M3 S${made.speed}`,
          'G4 P3',
        );
        // The first two moves go to where a bit begins, from where it was put in; that way is not part of the plan.
        const to = next < cuts.length ? stretch.at(-1)!.range.to : lines.indexOf('G53 G0 Z0');
        const body = lines.slice(cuts[first].range.from, to).filter((line) => !line.startsWith('('));
        send(...body.slice(0, 2));
        settle();
        const before = router.clock;
        const rest = body.slice(2);
        for (let k = 0; k < rest.length;) {
          for (; k < rest.length && k % 5000 !== 4999; k++) send(rest[k]);
          if (k < rest.length) send(rest[k++]);
          if (k % 15_000 < 5000) for (let t = 0; t < 40; t++) router.advance(0.5);
        }
        let end = before;
        for (let t = 0; t < 40_000; t++) {
          router.advance(0.1);
          if (router.state().word !== 'moving') break;
          end = router.clock;
        }
        expect(alarm()).toBeUndefined();
        planned += minutes * 60;
        taken += end - before;
        expect(Math.abs(end - before - minutes * 60)).toBeLessThan(0.01 * minutes * 60 + 0.5);
        send('M5');
        settle();
        router.advance(6);
      }
      expect(Math.abs(taken - planned) / planned).toBeLessThan(0.01);
    },
  );
});
