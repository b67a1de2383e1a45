import { afterEach, describe, expect, test } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import { laserBench } from '../kinds/laser/bench-kind.ts';
import { laserDriver } from '../kinds/laser/driver.ts';
import type { LaserState } from '../kinds/laser/messages.ts';
import { basisOf, bitShapeOf } from './of-job.ts';
import { LaserBenchForTests } from './laser-bench-for-tests.ts';
import { demoJob } from './test-bench.ts';

let bench: LaserBenchForTests;
afterEach(() => bench?.end());

const scored = () =>
  demoJob(
    'star-tags',
    (job: Job) => {
      job.cuts = job.cuts.filter(({ kind }) => kind === 'laser-score');
    },
    'scored',
  );

describe('zero by a pointer', () => {
  test('pointed at anew, what was ticked of where the work lies is open, and nothing else', async () => {
    const { job } = await scored();
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.setUp(job);
    const ticked = () => Object.keys(bench.state.ticks).sort();
    const all = laserBench.ticks.map(({ id }) => id).sort();
    expect(ticked()).toEqual(all);
    await bench.tell({ command: 'point-zero', basis: basisOf('job', job) });
    await bench.idle();
    expect(ticked()).toEqual(all.filter((id) => id !== 'framed'));
    await bench.tickAll();
    await bench.pointAt(job.stock.length - 10, 0);
    await bench.tell({ command: 'point-edge', basis: basisOf('job', job) });
    expect(ticked()).toEqual(all.filter((id) => id !== 'framed'));
  });

  test('a program that was checked is checked again once the stock is known to lie otherwise, or another beam is in', async () => {
    const { job, result } = await scored();
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    const checked = async () => {
      await bench.check(order);
      expect(bench.state.checked).toBeDefined();
    };
    await checked();
    await bench.pointAt(job.stock.length - 10, 0);
    await bench.tell({ command: 'point-edge', basis: basisOf('job', job) });
    expect(bench.state.checked).toBeUndefined();
    await checked();
    await bench.tell({ command: 'edge-free' });
    expect(bench.state.checked).toBeUndefined();
    expect(bench.state.zero!.xy!.turn).toBeUndefined();
    await checked();
    await bench.tell({ command: 'beam-in', bit: bitShapeOf(job.bits, job.cuts[0].bit) });
    expect(bench.state.checked).toBeUndefined();
  });

  test('an edge from 50 mm on, and up to 10° aslant, either way', async () => {
    const { job } = await scored();
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.prepare(job);
    const basis = basisOf('job', job);
    await bench.pointAt(0, 0);
    await bench.tell({ command: 'point-zero', basis });
    await bench.idle();
    const edge = async (x: number, y: number) => {
      await bench.pointAt(x, y);
      return bench.tell({ command: 'point-edge', basis }).then(
        () => bench.state.zero!.xy!.turn,
        ({ reason }: { reason: string }) => reason,
      );
    };
    expect(await edge(49.5, 0)).toBe('edge-too-near');
    expect(await edge(50.5, 0)).toBeCloseTo(0, 3);
    const at = (degrees: number): [number, number] => [60 * Math.cos((degrees * Math.PI) / 180), 60 * Math.sin((degrees * Math.PI) / 180)]; // prettier-ignore
    for (const degrees of [9.8, -9.8]) expect(await edge(...at(degrees))).toBeCloseTo((degrees * Math.PI) / 180, 3);
    for (const degrees of [10.2, -10.2]) expect(await edge(...at(degrees))).toBe('edge-too-far');
  });

  test('a lens that is focused before anything is pointed at leaves zero where the machine counts from', async () => {
    const { job } = await scored();
    bench = new LaserBenchForTests({ rate: 10 });
    await bench.prepare(job);
    expect(bench.state.origin).toBeUndefined();
    await bench.tell({ command: 'focused', basis: basisOf('job', job) });
    expect(bench.state.origin).toEqual({ x: 0, y: 0, z: 0 });
  });
});

describe('a laser’s rules', () => {
  test('air blows on in what is taken up', async () => {
    const { job, result } = await scored();
    bench = new LaserBenchForTests({ rate: 1 });
    await bench.setUp(job);
    const order = bench.order(job, result);
    await bench.run(order);
    const air = () => (bench.machine.state() as { air: boolean }).air;
    await bench.until(() => (bench.state.run?.line ?? 0) > 30, 'some lines');
    expect(air()).toBe(true);
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.ended.length > 0, 'the stop');
    await bench.idle();
    expect(air()).toBe(false);
    const { line } = bench.ended[0];
    await bench.tickAll();
    const from = { broken: 'run-1', acknowledged: line, line };
    await bench.tell({ command: 'take-up', id: 'again', ...(await bench.check(order)), ...from });
    await bench.until(() => (bench.machine.state().beam ?? 0) > 0, 'the beam');
    expect(air()).toBe(true);
  });

  test('with the beam on nothing is begun by hand, and the machine counts as live', () => {
    const on = { beam: 0.4, ready: false } as LaserState;
    for (const command of ['home', 'step', 'jog', 'point-zero', 'point-edge', 'focused', 'go-to-zero'] as const) {
      const needs = laserBench.needs[command]!.map(({ missing }) => missing({ machine: on } as never));
      expect([command, needs]).toEqual([command, expect.arrayContaining(['beam-on'])]);
    }
    expect(laserBench.needs.home!.map(({ missing }) => missing({ machine: { beam: 0 } } as never))).toEqual([
      undefined,
    ]);
    expect([laserDriver.live(on), laserDriver.live({ beam: 0, ready: true } as LaserState), laserDriver.live({ beam: 0, ready: false } as LaserState)]).toEqual([true, true, false]); // prettier-ignore
  });

  test('a program of two beams is none', () => {
    const cuts = (...beams: string[]) => ({ cuts: beams.map((id) => ({ bit: { id } })) }) as never;
    expect(laserBench.findings!(cuts('a', 'a'), {} as never)).toEqual([]);
    expect(laserBench.findings!(cuts('a', 'b'), {} as never)).toEqual(['A laser has one beam in a run; make one program for each beam.']); // prettier-ignore
  });
});
