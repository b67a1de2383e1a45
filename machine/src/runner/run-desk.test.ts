import { afterEach, expect, test } from 'vitest';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

// Promised: what may be started is looked at again when the program was read, since someone may have done something meanwhile;
// whatever it was, nothing moves.

let bench: TestBench;
afterEach(() => bench.end());

const MEANWHILE: Record<string, [does: () => unknown, why: RegExp]> = {
  'another bit is said to be in': [() => (bench.state.bit = { ...bench.state.bit!, id: 'other' }), /changed since/],
  'zero of its height is lost': [() => (bench.state.zero = { ...bench.state.zero!, z: undefined }), /changed since/],
  'zero is lost': [() => (bench.state.zero = undefined), /changed since|Zero is not set/],
  'it is homed anew': [
    () => (bench.state.origin = { ...bench.state.origin!, y: bench.state.origin!.y - 0.1 }),
    /changed since/,
  ],
  'the bench is another': [() => (bench.state.facts = { ...bench.state.facts!, name: 'Other' }), /changed since/],
  'the check is of another program': [
    () => (bench.state.checked = { ...bench.state.checked!, token: 'other' }),
    /not checked/,
  ],
  'the check is gone': [() => (bench.state.checked = undefined), /not checked/],
  'a tick is taken off': [
    () => bench.tell({ command: 'tick', step: 'held', on: false, job: 'job' }),
    /Tick this at Set-up first/,
  ],
};

test.each(Object.entries(MEANWHILE))('while the program is read %s', async (_, [does, why]) => {
  const { job, result } = await demoJob('comet-marker');
  bench = new TestBench();
  const [order] = ordersOf(bench, job, result);
  await bench.setUp(job, order.cuts[0].bit.id);
  const { programs } = bench;
  const read = programs.timeline;
  const checked = await bench.check(order);
  let did = 0;
  programs.timeline = async (hash) => {
    if (did++ === 0) await does();
    return read(hash);
  };
  const stood = bench.router.state().machine;
  await expect(bench.tell({ command: 'run', id: 'r', ...checked })).rejects.toThrow(why);
  expect(did).toBeGreaterThan(0);
  await bench.pass(3000);
  expect(bench.state.bench).toBe('ready');
  expect(bench.state.run).toBeUndefined();
  expect([bench.router.state().machine, bench.router.state().spindle]).toEqual([stood, 0]);
});
