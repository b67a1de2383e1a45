import { afterEach, beforeAll, describe, expect, test } from 'vitest';
import type { PlasmaFacts } from '@kerbe/core/cuts/plasma/facts';
import type { Clipper, Loops } from '@kerbe/core/geometry/clipper';
import { signedArea } from '@kerbe/core/geometry/outline';
import { PLAIN, type Variant, varied } from '@kerbe/core/machines/program-variant';
import type { TakenUpBy } from '@kerbe/core/sequence/taken-up';
import { clipperFromDisk } from '../core-from-disk.ts';
import { plasmaState } from '../kinds/plasma/messages.ts';
import { cutOut, NOTHING_DAMAGED, partsOf, PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { demoJob } from './test-bench.ts';

let bench: PlasmaBenchForTests;
let clipper: Clipper;
beforeAll(async () => {
  clipper = await clipperFromDisk();
});
afterEach(() => bench?.end());

const arc = () => plasmaState(bench.state.machine)!.arc;
const lines = () => bench.state.run!.line;
/** Waits until it burns somewhere in the middle of the run. */
const burning = async (from = 100) => {
  await bench.until(() => arc() === 'on' && lines() > from, 'the arc in the middle of the run');
};
/** Blows the arc out, stops, and tells where. */
const lost = async () => {
  bench.hand({ hand: 'blow' });
  await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
  await bench.tell({ command: 'stop' });
  await bench.until(() => bench.state.bench === 'ready', 'it to stand');
  return bench.ended[0];
};
const heightOver = () => {
  const { tip } = bench.machine.look() as { tip: { z: number } };
  return tip.z;
};

describe('what ends an arc', () => {
  test.each(['hold', 'stop'] as const)(
    '%s: the arc goes out before anything else, then the torch comes up',
    async (word) => {
      const { job, result } = await demoJob('comet-weathervane');
      bench = new PlasmaBenchForTests({ rate: 1 });
      await bench.setUp(job);
      await bench.run(bench.order(job, result));
      await burning(20);
      const low = heightOver();
      await bench.tell({ command: word });
      await bench.pass(20);
      expect(bench.machine.state().arc).toBe('off');
      expect(heightOver()).toBeLessThan(low + 1);
      await bench.until(() => bench.machine.state().machine.z === 0, 'the torch to come up', 20);
      expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
      if (word === 'hold') {
        await bench.until(
          () => bench.state.bench === 'held:running' && plasmaState(bench.state.machine)!.cutShort,
          'it to be told',
        );
        await expect(bench.tell({ command: 'resume' })).rejects.toMatchObject({ reason: 'arc-out' });
        await bench.tell({ command: 'stop' });
      }
      await bench.until(() => bench.ended.length > 0 && bench.state.bench === 'ready', 'it to stand');
      expect(bench.ended[0].phase).toBe('stopped');
      expect(bench.state.zero!.xy!.void).toBeUndefined();
    },
  );

  test('held between cuts it goes on where it was', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 1 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await bench.until(() => arc() === 'off' && lines() > 30 && bench.machine.state().word === 'moving', 'a link');
    await bench.tell({ command: 'hold' });
    await bench.until(() => bench.machine.state().word === 'held', 'it to stand');
    expect(bench.machine.state().cutShort).toBe(false);
    await bench.tell({ command: 'resume' });
    await bench.until(() => bench.ended.length > 0, 'the run to end');
    expect(bench.ended[0].phase).toBe('done');
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
  });

  test('heard of nobody, the arc is out within the watchdog’s two seconds, and the torch comes up by itself', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 1 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await burning(20);
    bench.mute = true;
    await bench.pass(2100);
    expect(bench.machine.state()).toMatchObject({ arc: 'off', held: 'unheard' });
    await bench.pass(3000);
    expect(bench.machine.state().machine.z).toBe(0);
  });

  test('the link cut, the arc is out at once', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 1 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await burning(20);
    bench.cut();
    expect(bench.machine.state().arc).toBe('off');
    await bench.until(() => bench.ended.length > 0, 'the run to end');
    expect(bench.ended[0].phase).toBe('lost');
  });

  test('the emergency stop, and the power, put it out', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    for (const hand of [{ hand: 'emergency', pressed: true }, { hand: 'power' }] as const) {
      bench = new PlasmaBenchForTests({ rate: 1 });
      await bench.setUp(job);
      await bench.run(bench.order(job, result));
      await burning(20);
      bench.hand(hand);
      expect(bench.machine.state().arc).toBe('off');
      await bench.until(() => bench.ended.length > 0, 'the run to end');
      expect(bench.ended[0].phase).toBe('failed');
      bench.end();
    }
  });
});

describe.each(['comet-weathervane', 'garden-markers'])('%s, after an arc that was lost', (name) => {
  test.each(['beside', 'stroke'] as TakenUpBy[])('taken up %s: the parts are as whole as without', async (by) => {
    const atOnce = by === 'stroke';
    const { job, result } = await demoJob(name);
    const [cut] = result.cuts;
    bench = new PlasmaBenchForTests({ rate: atOnce ? 1 : 5, seed: 4 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    const stopped: Variant['stopped'] = [];
    // Twice: what is left is a program that may break, too.
    for (const from of [60, 40]) {
      await burning(from);
      if (atOnce) {
        // At its own lead only where hardly anything is open: as the next one is struck.
        await bench.until(() => arc() !== 'on', 'it to end');
        while (bench.machine.state().arc !== 'on') await bench.pass(10);
      }
      bench.hand({ hand: 'blow' });
      await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
      expect(bench.state.problem).toContain('The arc went out: the air failed');
      await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'ready', 'it to stand');
      const run = bench.ended.at(-1)!;
      expect(run.phase).toBe('stopped');
      stopped.push({ which: 0, line: run.line, at: run.at!, by });
      await bench.tickAll();
      await bench.run(bench.order(job, result, { stopped }), `run-${stopped.length + 1}`);
    }
    await bench.until(() => bench.ended.length === 3, 'the run to end');
    expect([bench.ended[2].phase, bench.ended[2].why]).toEqual(['done', undefined]);
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
    const { kerf } = cut.facts as PlasmaFacts;
    const ideal = partsOf(result, job, clipper);
    const actual = clipper.intersection(cutOut(bench.machine, clipper), clipper.offset(ideal, kerf / 2));
    const area = (loops: Loops) => loops.reduce((sum, loop) => sum + signedArea(loop), 0);
    expect(area(clipper.difference(actual, clipper.offset(ideal, 0.05)))).toBeLessThan(0.05);
    // The seam leaves no more than a burr where two kerfs meet.
    expect(area(clipper.difference(clipper.offset(ideal, -0.05), actual))).toBeLessThan(0.05);
  });

  test('from its own lead nothing is taken up of which more is open than an arc lives over', async () => {
    const { job, result } = await demoJob(name);
    bench = new PlasmaBenchForTests({ rate: 5, seed: 4 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await burning(60);
    await bench.pass(200);
    const { line, at } = await lost();
    const take = () => varied(job, result, { ...PLAIN, stopped: [{ which: 0, line, at: at!, by: 'stroke' }] }, clipper);
    expect(take).toThrow(/the arc would die over the open kerf/);
  });

  // The first kerf closes in that time, which its scrap does not live through.
  test.each(name === 'garden-markers' ? [670, 680, 690] : [])(
    'lost %i ms after the first pierce, as its kerf closes: the next is pierced, and all others come out',
    async (ms) => {
      const { job, result } = await demoJob(name);
      bench = new PlasmaBenchForTests({ rate: 5, seed: 71 });
      await bench.setUp(job);
      await bench.run(bench.order(job, result));
      await bench.until(() => arc() === 'on', 'the arc');
      await bench.pass(ms);
      const { line, at } = await lost();
      await bench.tickAll();
      await bench.run(bench.order(job, result, { stopped: [{ which: 0, line, at: at!, by: 'beside' }] }), 'run-2');
      await bench.until(() => bench.ended.length === 2, 'the run to end');
      expect([bench.ended[1].phase, bench.ended[1].why]).toEqual(['done', undefined]);
      expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
      expect(bench.machine.state().pierces).toBe((result.cuts[0].facts as PlasmaFacts).pierces.length);
    },
  );

  test('the next pierce leaves that piece alone', async () => {
    const { job, result } = await demoJob(name);
    bench = new PlasmaBenchForTests({ rate: 5, seed: 4 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await burning(60);
    const before = bench.machine.state().pierces;
    const { line, at } = await lost();
    await bench.tickAll();
    await bench.run(bench.order(job, result, { stopped: [{ which: 0, line, at: at!, by: 'next' }] }), 'run-2');
    await bench.until(() => bench.ended.length === 2, 'the run to end');
    expect(bench.machine.state().pierces).toBe((result.cuts[0].facts as PlasmaFacts).pierces.length);
    expect(before).toBeGreaterThan(0);
  });
});
