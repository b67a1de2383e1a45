import { afterEach, expect, test, vi } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import { basisOf, bitShapeOf } from './of-job.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => {
  bench?.end();
  vi.restoreAllMocks();
});

const TASKS: Record<string, (job: Job, order: ReturnType<typeof ordersOf>[number]) => Promise<void>> = {
  'going to zero': (job) => bench.tell({ command: 'go-to-zero', basis: basisOf('job', job), lift: 16 }),
  measuring: () => bench.tell({ command: 'measure' }),
  'lifting after Stop': async (_, order) => {
    await bench.run(order);
    await bench.pass(9000);
    await bench.tell({ command: 'stop' });
  },
};

/** Begins a task and passes time, ms, or until it has ended. @returns how long it took */
async function begun(name: string, most = 60_000): Promise<number> {
  bench = new TestBench({ seed: 3, rate: 5 });
  const { job, result } = await demoJob('comet-marker');
  await bench.setUp(job, 'v90');
  await TASKS[name](job, ordersOf(bench, job, result)[0]);
  let gone = 0;
  for (; gone < most && bench.state.bench !== 'ready'; gone += 10) await bench.pass(10);
  return gone;
}

// The machine has made its last move, and the runner does not know it yet.
test.each(Object.keys(TASKS))('held in its last moments, %s ends when it is let go on', async (name) => {
  const faults = vi.spyOn(console, 'error').mockImplementation(() => {});
  const whole = await begun(name);
  let held = 0;
  for (let before = 10; before <= 250; before += 30) {
    bench.end();
    await begun(name, whole - before);
    await bench.tell({ command: 'hold' });
    if (bench.state.bench !== 'held:ready') held++;
    await bench.pass(500);
    expect(bench.state.problem, `${before} ms before its end`).toBeUndefined();
    expect(bench.state.bench).toMatch(/^held:/);
    await bench.tell({ command: 'resume' });
    await bench.pass(2000);
    expect(bench.state.bench, `${before} ms before its end`).toBe('ready');
    expect(bench.state.doing).toBeUndefined();
  }
  expect(held).toBeGreaterThan(4);
  expect(faults.mock.calls).toEqual([]);
});

test.each([20, 60, 100, 160])(
  'held %i ms before a bit change, it is made, and nothing moves until it is let go on',
  async (before) => {
    const faults = vi.spyOn(console, 'error').mockImplementation(() => {});
    const { job, result } = await demoJob('comet-marker');
    const started = async () => {
      bench = new TestBench({ seed: 3, rate: 5 });
      await bench.setUp(job, 'v90');
      await bench.run(ordersOf(bench, job, result)[0]);
    };
    await started();
    let whole = 0;
    for (; bench.state.bench !== 'changing'; whole += 10) await bench.pass(10);
    bench.end();
    await started();
    await bench.pass(whole - before);
    await bench.tell({ command: 'hold' });
    const { machine } = bench.router.state();
    await bench.pass(1000);
    expect(bench.state.bench).toMatch(/^held:|^changing$/);
    if (bench.state.bench !== 'changing') {
      await bench.tell({ command: 'resume' });
      await bench.until(() => bench.state.bench === 'changing', 'the bit change');
    } else expect(Math.abs(bench.router.state().machine.z - machine.z)).toBeLessThan(1);
    const { name, diameter, angle, tip } = bitShapeOf(job.bits, 'e6');
    bench.hand({ hand: 'bit', id: 'e6', name, diameter, angle, tip });
    await bench.tell({ command: 'bit-changed' });
    await bench.pass(1000);
    if (bench.state.bench.startsWith('held:')) await bench.tell({ command: 'resume' });
    await bench.until(() => bench.ended.length > 0, 'the end');
    expect([bench.ended[0].phase, bench.ended[0].why]).toEqual(['done', undefined]);
    expect(faults.mock.calls).toEqual([]);
  },
);
