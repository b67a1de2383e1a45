import { afterEach, expect, test } from 'vitest';
import { type AnyBench, jobFor, MACHINES, setUpBench } from './three-benches-for-tests.ts';

/**
 * What a run is planned to take is what it takes: with the ways that only the machine knows, taken up in the middle, and at
 * any feed. On the clock of the simulated machine, which plans its moves by itself.
 */
let bench: AnyBench;
afterEach(() => bench?.end());

const toTheEnd = async (runs: number) => {
  while (bench.ended.length < runs) {
    await bench.until(() => bench.state.bench === 'changing' || bench.ended.length >= runs, 'the run');
    if (bench.state.bench !== 'changing') continue;
    bench.hand({ hand: 'bit', ...bench.state.run!.bit! } as never);
    await bench.tell({ command: 'bit-changed' });
  }
  return bench.ended[runs - 1];
};

test.each(MACHINES)('%s: within 1 %, or a second, of what it takes', async (machine) => {
  await jobFor(machine);
  const made = await setUpBench(machine, 5, machine === 'laser' ? 20 : 5);
  ({ bench } = made);
  await bench.run(made.order);
  expect(bench.state.run!.plannedMinutes).toBeGreaterThan(made.order.plannedMinutes);
  const { phase, minutes, plannedMinutes } = await toTheEnd(1);
  expect(phase).toBe('done');
  expect(Math.abs(minutes - plannedMinutes)).toBeLessThan(Math.max(0.01 * minutes, 1 / 60));
});

test.each(['router', 'laser'] as const)(
  '%s taken up: the rest is planned, and compared with the rest',
  async (machine) => {
    await jobFor(machine);
    const made = await setUpBench(machine, 6, 20);
    ({ bench } = made);
    await bench.run(made.order);
    await bench.until(() => bench.state.run!.line > 0.3 * bench.state.run!.lines, 'a third of it', 900);
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand');
    const [{ line }] = bench.ended;
    if ('tickAll' in bench) await bench.tickAll();
    else await (bench as import('./test-bench.ts').TestBench).clearPlate();
    const from = { broken: 'run-1', acknowledged: line, line };
    await bench.tell({ command: 'take-up', id: 'again', ...(await bench.check(made.order)), ...from });
    const { phase, minutes, plannedMinutes } = await toTheEnd(2);
    expect(phase).toBe('done');
    expect(plannedMinutes).toBeLessThan(0.9 * made.order.plannedMinutes);
    // The way in is the runner's own, and no part of the plan.
    expect(Math.abs(minutes - plannedMinutes)).toBeLessThan(0.02 * minutes + 15 / 60);
  },
);

test.each([
  ['router', 200],
  ['router', 60],
  ['plasma', 130],
  ['laser', 200],
  ['laser', 50],
] as const)('%s at %i %: the time left is what is left, though acceleration rules', async (machine, percent) => {
  await jobFor(machine);
  const made = await setUpBench(machine, 7, 20);
  ({ bench } = made);
  await bench.run(made.order);
  await bench.tell({ command: 'feed', percent });
  await bench.until(() => bench.state.run!.line > 60 && bench.state.machine!.override === percent, 'the feed', 60);
  const left = bench.state.run!.minutesLeft;
  const from = bench.state.run!.minutes;
  const { phase, minutes } = await toTheEnd(1);
  expect(phase).toBe('done');
  expect(Math.abs(left / (minutes - from) - 1)).toBeLessThan(0.02);
});
