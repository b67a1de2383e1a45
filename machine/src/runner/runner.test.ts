import { afterEach, describe, expect, test } from 'vitest';
import { basisOf, bitShapeOf } from './of-job.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

async function ready(name: string, bit: string) {
  const { job, result } = await demoJob(name);
  bench = new TestBench();
  await bench.setUp(job, bit);
  const [order] = ordersOf(bench, job, result);
  return { job, result, order };
}

describe('a whole run on the stand-in', () => {
  test('touches off, carves, changes the bit, cuts out', async () => {
    const { job, result, order } = await ready('comet-marker', 'v90');
    const { piece } = bench.router.look() as { piece: { x: number; y: number } };
    expect(Math.abs(bench.state.origin!.x - piece.x)).toBeLessThan(0.02);
    expect(Math.abs(bench.state.origin!.y - piece.y)).toBeLessThan(0.02);
    await bench.tell({ command: 'go-to-zero', basis: basisOf('job', job), lift: 16 });
    await bench.idle();
    await bench.run(order);
    await bench.until(() => bench.state.bench === 'changing', 'the bit change');
    expect(bench.state.run?.bit?.id).toBe('e6');
    expect(bench.state.zero?.z?.void).toBe('bit');
    bench.hand({ hand: 'emergency', pressed: true });
    await bench.until(() => bench.state.bench === 'changing-safe', 'the emergency stop');
    await expect(bench.tell({ command: 'bit-changed' })).rejects.toThrow(/release it/);
    const { name, diameter, angle, tip } = bitShapeOf(job.bits, 'e6');
    bench.hand({ hand: 'bit', id: 'e6', name, diameter, angle, tip });
    bench.hand({ hand: 'emergency', pressed: false });
    await bench.until(() => bench.state.bench === 'changing-released', 'its release');
    // Three acts: released is not cleared, and cleared is not confirmed.
    await expect(bench.tell({ command: 'bit-changed' })).rejects.toThrow(/not cleared/);
    await bench.tell({ command: 'clear' });
    await bench.until(() => bench.state.bench === 'changing', 'it to be cleared');
    await bench.pass(3000);
    expect(bench.state.bench).toBe('changing');
    await bench.tell({ command: 'bit-changed' });
    await bench.until(() => bench.ended.length === 1, 'the end of the run');
    expect(bench.ended[0]).toMatchObject({ phase: 'done', line: order.cuts.length ? bench.ended[0].lines : 0 });
    expect(bench.router.state().alarm).toBeUndefined();
    expect(bench.state.bench).toBe('ready');
    // Parked where the bench says, lifted.
    expect(bench.state.machine!.machine).toEqual({ x: 410, y: 500, z: 0 });
    // Work and waiting are told apart; the plan leaves the ways to a bit's first cut and to the parking place out.
    const planned = result.cuts.reduce(
      (sum, cut, k) => sum + result.beside[k].before + cut.minutes + result.beside[k].after,
      0,
    );
    expect(bench.ended[0].minutes).toBeGreaterThan(planned * 0.99);
    expect(bench.ended[0].minutes).toBeLessThan(planned * 1.01 + 0.5);
    expect(bench.ended[0].waited).toBeGreaterThan(0.05);
  });
});
