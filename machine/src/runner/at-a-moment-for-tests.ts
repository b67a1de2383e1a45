import { afterEach, expect, vi } from 'vitest';
import type { PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import type { TestBench } from './test-bench.ts';
import { type AnyBench, dice, jobFor, lit, type MachineName, setUpBench } from './three-benches-for-tests.ts';

/** So many of each moment are tried, and from which seed on: `KERBE_EACH=100`, `KERBE_SEED`. */
const EACH = Number(process.env.KERBE_EACH ?? 1);
export const FIRST = Number(process.env.KERBE_SEED ?? 1);
export const seeds = Array.from({ length: EACH }, (_, k) => FIRST + k);

/** The bench of the test that runs. */
export let bench: AnyBench;
export let faults: { mock: { calls: unknown[][] } };

/** To be called once by a file of such tests. */
export function endsAfterEach(): void {
  afterEach(() => {
    bench?.end();
    vi.restoreAllMocks();
  });
}

export const router = () => bench as TestBench;
export const plasma = () => bench as PlasmaBenchForTests;
export const at = () => bench.machine.state().machine;
export const resting = () => ['ready', 'unhomed', 'off', 'alarm', 'emergency'].includes(bench.state.bench);
export const one = <T>(of: readonly T[], next: () => number): T => of[Math.floor(next() * of.length)];

/** The bench that a test works at, whose faults are counted. */
export function work(at: AnyBench): void {
  faults = vi.spyOn(console, 'error').mockImplementation(() => {});
  bench = at;
}

export async function set(machine: MachineName, seed: number, rate = 5) {
  await jobFor(machine);
  const made = await setUpBench(machine, seed, rate);
  work(made.bench);
  return { ...made, next: dice(seed) };
}

/** Nothing moves, nothing is on, and no fault of ours was told. */
export async function rests(what: string, milliseconds = 1500) {
  // A spindle that was switched off runs down.
  await bench.until(() => !lit(bench), `${what}: everything to be off`, 5);
  const before = at();
  await bench.pass(milliseconds);
  expect(at(), what).toEqual(before);
  expect(lit(bench), what).toBe(false);
  expect(faults.mock.calls, what).toEqual([]);
  expect(bench.machine.alarm ?? '', what).not.toMatch(/driven|closed before|clip still/);
}

/** Lets runs go on until so many have ended, changing bits as they ask. @param watch looked at meanwhile. */
export async function toTheEnd(runs: number, what: string, watch: () => boolean = () => false): Promise<void> {
  while (bench.ended.length < runs) {
    await bench.until(() => watch() || bench.state.bench === 'changing' || bench.ended.length >= runs, what);
    if (bench.state.bench !== 'changing') continue;
    bench.hand({ hand: 'bit', ...bench.state.run!.bit! } as never);
    await bench.tell({ command: 'bit-changed' });
  }
}
