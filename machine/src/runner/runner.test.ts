import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { carveField } from '@kerbe/core/carving/height-field';
import { compute, type JobResult } from '@kerbe/core/job/compute';
import type { Job } from '@kerbe/core/job/job';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/program/programs';
import { timelineOf } from '@kerbe/core/program/timeline';
import { thickest } from '@kerbe/core/stock/stock';
import { clipperFromDisk, resourcesFromDisk } from '../core-from-disk.ts';
import { startStandIn, type Started } from '../stand-in/spawn.ts';
import { MachineLink } from '../link/machine-link.ts';
import type { Hand } from '../stand-in/hands.ts';
import type { RunOrder } from './commands.ts';
import { Runner } from './runner.ts';
import type { RunState } from './runner-state.ts';

let standIn: Started;
let runner: Runner;
let ended: RunState[];

beforeEach(async () => {
  standIn = await startStandIn({ rate: 60, seed: 7 });
  ended = [];
  runner = new Runner(
    () => {},
    (run) => ended.push(structuredClone(run)),
  );
});
afterEach(() => {
  standIn.process.kill();
});

async function when(condition: () => boolean, what: string): Promise<void> {
  for (let i = 0; i < 1500; i++) {
    if (condition()) return;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  throw new Error(`waited too long for ${what}; state: ${JSON.stringify({ ...runner.state, look: undefined })}`);
}
const hand = (hand: Hand) => runner.do({ command: 'hand', hand });
const idle = () => when(() => runner.state.doing === undefined && runner.state.machine?.word === 'idle', 'idle');

async function demo(name: string, change: (job: Job) => void = () => {}) {
  const file = readJobFile(readFileSync(new URL(`../../../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'));
  change(file.job);
  const resources = resourcesFromDisk((hash) => file.assets[hash] && bytesFromBase64(file.assets[hash].base64));
  const result = await compute(file.job, resources, await clipperFromDisk());
  return { job: file.job, result };
}

function bitShape(job: Job, id: string) {
  const { name, diameter, angle, tip } = job.bits.find((bit) => bit.id === id)!;
  return { name, diameter, angle, tip };
}

function order(job: Job, result: JobResult): RunOrder {
  const [program] = programsFor(job, result, { revision: '1', date: '2026-11-23' });
  return {
    command: 'run',
    id: 'run-1',
    job: job.name,
    jobId: 'job',
    program: program.text,
    hash: 'x',
    plannedMinutes: result.minutes,
    timeline: timelineOf(program, result, job.bench.limits, 50),
    lineStep: 50,
    cuts: program.cuts.map(({ title, from, to, bit }) => ({ title, from, to, bit })),
    travel: job.bench.travel,
    setter: job.bench.setter,
    lift: job.stock.lift,
  };
}

/** Connects, homes, lays the stock and sets zero on its lower left corner with the plate. */
async function setUp(job: Job, bit: string): Promise<void> {
  await runner.do({ command: 'connect', port: standIn.port });
  await runner.do({ command: 'home' });
  await idle();
  await hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
  await hand({ hand: 'bit', ...bitShape(job, bit) });
  await hand({ hand: 'plate', place: 'corner', corner: 'lower-left' });
  await hand({ hand: 'clip', on: true });
  await hand({ hand: 'tap', on: true });
  await when(() => runner.state.plateSeen, 'the plate to be seen');
  await hand({ hand: 'tap', on: false });
  // Over the plate by eye: the look stands for the operator's.
  await when(
    () => runner.state.look?.plate !== undefined && runner.state.machine?.touching === false,
    'a look at the plate',
  );
  const plate = runner.state.look!.plate as { x0: number; x1: number; y0: number; y1: number; z1: number };
  const tip = runner.state.look!.tip as { x: number; y: number; z: number };
  await runner.do({
    command: 'jog',
    x: (plate.x0 + plate.x1) / 2 - tip.x,
    y: (plate.y0 + plate.y1) / 2 - tip.y,
    z: 0,
    feed: 3000,
  });
  await new Promise((resolve) => setTimeout(resolve, 300));
  await idle();
  await runner.do({ command: 'jog', x: 0, y: 0, z: plate.z1 + 12 - tip.z, feed: 2000 });
  await new Promise((resolve) => setTimeout(resolve, 300));
  await idle();
  await runner.do({
    command: 'zero',
    method: 'corner',
    corner: 'lower-left',
    plate: job.bench.plate,
    bit: bitShape(job, bit),
    toZero: { x: 0, y: 0 },
    rise: job.stock.zeroZ === 'stock' ? thickest(job.stock) - job.stock.corners[0] : -job.stock.corners[0],
  });
  await when(() => runner.state.doing === undefined, 'zero');
  expect(runner.state.problem).toBeUndefined();
}

async function clearPlate(): Promise<void> {
  await hand({ hand: 'clip', on: false });
  await hand({ hand: 'plate', place: 'away' });
  await when(() => runner.state.look?.plate === undefined && runner.state.look?.clip === false, 'the plate to be away');
}

describe('a whole run on the stand-in', () => {
  test('touches off, carves, changes the bit, cuts out, and the piece is the one that was planned', async () => {
    const { job, result } = await demo('comet-marker');
    await setUp(job, 'v90');
    // The touch plate must find the corner that only the stand-in knows, to 0.02 mm.
    const piece = runner.state.look!.piece as { x: number; y: number; top: number };
    const { machine, work } = runner.state.machine!;
    expect(machine.x - work.x).toBeCloseTo(piece.x, 1);
    expect(Math.abs(machine.x - work.x - piece.x)).toBeLessThan(0.02);
    expect(Math.abs(machine.y - work.y - piece.y)).toBeLessThan(0.02);

    await expect(runner.do(order(job, result))).rejects.toThrow(/clip is still on/);
    await clearPlate();
    await runner.do({ command: 'go-to-zero', lift: 10 });
    await idle();
    await runner.do(order(job, result));
    await when(() => runner.state.run?.phase === 'bit-change', 'the bit change');
    // What is left by the plan is the second cut, within a line or two.
    const rest = result.cuts[1].minutes;
    expect(
      Math.abs(runner.state.run!.minutesLeft - rest - (result.minutes - result.cuts[0].minutes - rest)),
    ).toBeLessThan(0.1);
    expect(runner.state.run?.bit).toBe('End mill 6.35');
    await hand({ hand: 'emergency', pressed: true });
    await when(() => runner.state.machine?.word === 'emergency', 'the emergency stop');
    await expect(runner.do({ command: 'bit-is-in' })).rejects.toThrow(/release it/);
    await hand({ hand: 'bit', ...bitShape(job, 'e6') });
    await hand({ hand: 'emergency', pressed: false });
    await when(() => runner.state.machine?.word !== 'emergency', 'its release');
    await runner.do({ command: 'bit-is-in' });
    await when(() => ended.length === 1, 'the end of the run');
    expect(ended[0]).toMatchObject({ phase: 'done' });
    expect(ended[0].line).toBe(ended[0].lines);

    // The piece the stand-in made by stamping, against the one the proof shows, computed from the exact sweep.
    await runner.do({ command: 'disconnect' });
    const made = await whenFree(() => pieceOf(standIn.port));
    const planned = carveField(result.cuts, job.stock.length, job.stock.width, made.cell);
    expect([made.columns, made.rows]).toEqual([planned.columns, planned.rows]);
    let worst = 0;
    let sum = 0;
    let carved = 0;
    for (let i = 0; i < planned.heights.length; i++) {
      const height = Math.max(-9, planned.heights[i]);
      const off = Math.abs(Math.max(-9, made.heights[i] - 9) - height);
      if (height < 0) carved++;
      sum += off;
      worst = Math.max(worst, off);
    }
    expect(carved).toBeGreaterThan(5000);
    expect(sum / carved).toBeLessThan(0.03);
    // Grid cells on a vertical wall may fall to either side of it.
    expect(worst).toBeLessThanOrEqual(9);
  });

  test('the stand-in takes as long as the planner says, to 1 %', async () => {
    // A clock this slow is fed in time even where other work keeps the cores busy.
    standIn.process.kill();
    standIn = await startStandIn({ rate: 12, seed: 7 });
    const { job, result } = await demo('meridian-plate', (j) => {
      j.cuts = j.cuts.filter((cut) => cut.kind === 'v-carve');
      j.stock.zeroXY = 'lower-left';
    });
    await setUp(job, 'v90');
    await clearPlate();
    await runner.do(order(job, result));
    await when(() => ended.length === 1, 'the end of the run');
    expect(ended[0].phase).toBe('done');
    // Besides the cut: three seconds for the spindle, the way there and back, about ten seconds in all.
    const around = 3 / 60;
    const off = ended[0].minutes - result.cuts[0].minutes - around;
    expect(off).toBeGreaterThan(-0.01 * result.minutes);
    expect(off).toBeLessThan(0.01 * result.minutes + 0.12);
  });
});

/** Tries again while the machine has not noticed yet that its last client has gone. */
async function whenFree<T>(attempt: () => Promise<T>): Promise<T> {
  for (let i = 0; ; i++) {
    try {
      return await attempt();
    } catch (error) {
      if (i > 50 || !/linked to this machine already/.test(String(error))) throw error;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  }
}

async function pieceOf(port: number): Promise<{ columns: number; rows: number; cell: number; heights: Float32Array }> {
  return new Promise((resolve, reject) => {
    MachineLink.open(port, (message) => {
      const piece = message.piece as { columns: number; rows: number; cell: number; heights: string } | undefined;
      if (!piece) return;
      const bytes = Buffer.from(piece.heights, 'base64');
      resolve({ ...piece, heights: new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4) });
    }).then((link) => link.control('piece'), reject);
  });
}

describe('faults', () => {
  test('the emergency stop ends a run with a sentence, and the machine must be homed again', async () => {
    const { job, result } = await demo('comet-marker');
    await setUp(job, 'v90');
    await clearPlate();
    await runner.do(order(job, result));
    await when(() => (runner.state.run?.line ?? 0) > 200, 'some carving');
    await hand({ hand: 'emergency', pressed: true });
    await when(() => ended.length === 1, 'the end of the run');
    expect(ended[0].phase).toBe('failed');
    expect(ended[0].why).toMatch(/emergency stop was pressed/);
    await expect(runner.do({ command: 'home' })).rejects.toThrow(/release it/);
    await hand({ hand: 'emergency', pressed: false });
    await when(() => runner.state.machine?.word === 'alarm', 'the release');
    await runner.do({ command: 'clear' });
    await when(() => runner.state.machine?.word === 'unhomed', 'unhomed');
    expect(runner.state.zero).toBeUndefined();
    await expect(runner.do(order(job, result))).rejects.toThrow(/not homed/);
  });

  test('hold stands still, resume goes on, stop lifts and ends', async () => {
    const { job, result } = await demo('comet-marker');
    await setUp(job, 'v90');
    await clearPlate();
    await runner.do(order(job, result));
    await when(() => (runner.state.run?.line ?? 0) > 100, 'some carving');
    await runner.do({ command: 'hold' });
    await when(() => runner.state.machine?.word === 'held', 'held');
    const { machine } = runner.state.machine!;
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(runner.state.machine!.machine).toEqual(machine);
    await runner.do({ command: 'resume' });
    await when(() => runner.state.machine!.machine.x !== machine.x, 'motion');
    await runner.do({ command: 'stop' });
    await when(() => ended.length === 1, 'the end of the run');
    expect(ended[0]).toMatchObject({ phase: 'stopped', why: 'stopped by the operator' });
    await idle();
    expect(runner.state.machine!.machine.z).toBeCloseTo(0, 3);
    expect(runner.state.machine!.homed).toBe(true);
  });

  test('a machine that does not answer, or breaks off, is said in a sentence', async () => {
    await expect(runner.do({ command: 'connect', port: 9 })).rejects.toThrow(/switched on/);
    await runner.do({ command: 'connect', port: standIn.port });
    standIn.process.kill('SIGKILL');
    await when(() => runner.state.link === 'lost', 'the loss');
    expect(runner.state.problem).toMatch(/link to the machine broke/);
    await expect(runner.do({ command: 'home' })).rejects.toThrow(/not connected/);
  });

  test('nothing is run without a home, a zero, a seen plate, or beyond the reach', async () => {
    const { job, result } = await demo('comet-marker');
    await runner.do({ command: 'connect', port: standIn.port });
    await expect(runner.do(order(job, result))).rejects.toThrow(/not homed/);
    await runner.do({ command: 'home' });
    await idle();
    await expect(runner.do(order(job, result))).rejects.toThrow(/Zero is not set/);
    await expect(
      runner.do({
        command: 'zero',
        method: 'flat',
        corner: 'lower-left',
        plate: job.bench.plate,
        bit: bitShape(job, 'v90'),
        toZero: { x: 0, y: 0 },
        rise: 0,
      }),
    ).rejects.toThrow(/tap the plate/);
    runner.state.zero = { at: '', method: 'corner', bit: 'V 90° 12.7' };
    await expect(runner.do(order(job, result))).rejects.toThrow(/leave the reach/);
  });

  test('a probe move without a plate ends in an alarm, not in the table', async () => {
    const { job } = await demo('comet-marker');
    await runner.do({ command: 'connect', port: standIn.port });
    await runner.do({ command: 'home' });
    await idle();
    await hand({ hand: 'bit', ...bitShape(job, 'v90') });
    await hand({ hand: 'clip', on: true });
    await hand({ hand: 'tap', on: true });
    await when(() => runner.state.plateSeen, 'the plate to be seen');
    await hand({ hand: 'tap', on: false });
    await when(() => runner.state.machine?.touching === false, 'the circuit to open');
    await runner.do({
      command: 'zero',
      method: 'flat',
      corner: 'lower-left',
      plate: job.bench.plate,
      bit: bitShape(job, 'v90'),
      toZero: { x: 0, y: 0 },
      rise: 0,
    });
    await when(() => runner.state.doing === undefined, 'the end of the probe');
    expect(runner.state.problem).toMatch(/without a touch/);
    expect(runner.state.zero).toBeUndefined();
  });
});
