import { expect, test } from 'vitest';
import { MACHINES, setUpBench } from './three-benches-for-tests.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';
import { PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { LaserBenchForTests } from './laser-bench-for-tests.ts';

test.each(['comet-marker', 'meridian-plate', 'night-light', 'instrument-labels', 'sundial-face', 'comet-weathervane', 'garden-markers', 'star-tags'])('%s', async (name) => {
  const { job, result } = await demoJob(name);
  const kind = job.bench.kind;
  const bench = kind === 'router' ? new TestBench({ rate: 5 }) : kind === 'plasma' ? new PlasmaBenchForTests({ rate: 5 }) : new LaserBenchForTests({ rate: 5 });
  if (kind === 'router') Object.assign(job.bench, { dialect: 'plain', setter: job.bench.setter ?? { x: 780, y: 40, force: null } });
  const order = bench.order(job, result);
  if (bench instanceof TestBench) await bench.setUp(job, order.cuts[0].bit.id);
  else await bench.setUp(job);
  await bench.run(order);
  while (bench.ended.length === 0) {
    await bench.until(() => bench.state.bench === 'changing' || bench.state.bench === 'asking' || bench.ended.length > 0, 'the run');
    if (bench.state.bench === 'asking') { await bench.tell({ command: 'bit-is-right' }); continue; }
    if (bench.state.bench !== 'changing') continue;
    bench.hand({ hand: 'bit', ...bench.state.run!.bit! } as never);
    await bench.tell({ command: 'bit-changed' });
  }
  const [run] = bench.ended;
  console.log(name, run.phase, run.why ?? '', 'planned', (60 * run.plannedMinutes).toFixed(1), 'took', (60 * run.minutes).toFixed(1), 'waited', (60 * run.waited).toFixed(1), 'diff s', (60 * (run.minutes - run.plannedMinutes)).toFixed(1), ((run.minutes / run.plannedMinutes - 1) * 100).toFixed(2) + ' %', 'bits', new Set(order.cuts.map((c) => c.bit.id)).size, 'cuts', order.cuts.length);
  bench.end();
  expect(1).toBe(1);
});
