import { afterEach, expect, test } from 'vitest';
import { DOME } from '../kinds/router/stand-in/made-as.ts';
import { demoJob, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

const ready = async () => {
  const { job } = await demoJob('comet-marker');
  bench = new TestBench();
  await bench.setUp(job, 'v90');
  return job;
};

test('zero moved by hand is moved in the machine too, and the moves add up', async () => {
  await ready();
  const before = { ...bench.state.origin! };
  for (const z of [0.05, -0.02]) {
    await bench.tell({ command: 'nudge-zero', z });
    await bench.idle();
  }
  expect(bench.state.origin!.z - before.z).toBeCloseTo(0.03, 9);
  expect(bench.state.zero!.z!.nudged).toBeCloseTo(0.03, 9);
  // The machine itself goes by it.
  const place = bench.router.state();
  expect(place.machine.z - place.work.z).toBeCloseTo(bench.state.origin!.z, 3);
});

test('after a zero the touch circuit is tried anew before it is trusted again', async () => {
  const job = await ready();
  expect(bench.state.circuit).toBeUndefined();
  await expect(bench.zero(job)).rejects.toThrow(/circuit/);
});

test('a bit that is measured after a change is the one that zero goes by', async () => {
  const job = await ready();
  await bench.tell({ command: 'measure' });
  await bench.idle();
  await bench.fit(job, 'e6');
  expect(bench.state.zero!.z!.void).toBe('bit');
  await bench.tell({ command: 'measure' });
  await bench.idle();
  expect(bench.state.zero!.z!.void).toBeUndefined();
  expect(bench.state.zero!.z!.bit.id).toBe('e6');
});

test('felt for is no further down than the axis goes: the setter, and the plate from low down', async () => {
  const { job } = await demoJob('comet-marker', (changed) => {
    changed.bench.travel.z = 115;
  });
  bench = new TestBench({ as: { ...DOME, travel: { ...DOME.travel, z: 115 } } });
  await bench.prepare(job, 'e6');
  await bench.tell({ command: 'measure' });
  await bench.idle();
  expect(bench.state.problem).toBeUndefined();
  await bench.overPlate('spoilboard');
  await bench.zero(job, 'spoilboard');
  expect([bench.state.bench, bench.state.zero!.z!.method]).toEqual(['ready', 'spoilboard']);
});
