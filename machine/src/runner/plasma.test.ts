import { afterEach, beforeAll, describe, expect, test } from 'vitest';
import type { PlasmaFacts } from '@kerbe/core/cuts/plasma/facts';
import type { Clipper } from '@kerbe/core/geometry/clipper';
import { signedArea } from '@kerbe/core/geometry/outline';
import { machineKindOf } from '@kerbe/core/machines/kinds';
import { planMotion } from '@kerbe/core/motion/plan';
import { clipperFromDisk } from '../core-from-disk.ts';
import { cutOut, NOTHING_DAMAGED, partsOf, PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { basisOf } from './of-job.ts';
import { demoJob } from './test-bench.ts';

let bench: PlasmaBenchForTests;
let clipper: Clipper;
beforeAll(async () => {
  clipper = await clipperFromDisk();
});
afterEach(() => bench?.end());

describe.each(['comet-weathervane', 'garden-markers'])('%s', (name) => {
  test('is cut in the planned time within 1 percent, and nothing is damaged', async () => {
    const { job, result } = await demoJob(name);
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await bench.until(() => bench.ended.length > 0, 'the run to end');
    const [run] = bench.ended;
    expect([run.phase, run.why]).toEqual(['done', undefined]);
    expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
    expect(bench.machine.sheet!.kerfs.length).toBeGreaterThan(0);
  });

  test('gives back parts that are the drawing, opened by the kerf’s disc, within 0.05 mm; also on a sheet that lies turned', async () => {
    const { job, result } = await demoJob(name);
    const [cut] = result.cuts;
    const { kerf } = cut.facts as PlasmaFacts;
    const ideal = partsOf(result, job, clipper);
    for (const turn of [0, 0.021]) {
      bench = new PlasmaBenchForTests({ rate: 20, seed: 3 });
      await bench.setUp(job, turn, turn ? job.stock.length - 20 : undefined);
      const lies = bench.state.zero!.xy!.turn ?? 0;
      expect(lies).toBeCloseTo(turn, 4);
      await bench.run(bench.order(job, result, { turn: lies }));
      await bench.until(() => bench.ended.length > 0, 'the run to end');
      expect([bench.ended[0].phase, bench.ended[0].why]).toEqual(['done', undefined]);
      const left = cutOut(bench.machine, clipper);
      // Of what is left the parts: what lies inside the drawing's outsides. The skeleton round them is scrap.
      const actual = clipper.intersection(left, clipper.offset(ideal, kerf / 2));
      const beyond = clipper.difference(actual, clipper.offset(ideal, 0.05));
      const short = clipper.difference(clipper.offset(ideal, -0.05), actual);
      for (const loops of [beyond, short])
        expect(loops.reduce((sum, loop) => sum + signedArea(loop), 0)).toBeLessThan(0.01);
      // And the look can fail: a kerf more or less is seen.
      expect(clipper.difference(clipper.offset(ideal, -0.05), clipper.offset(actual, -0.1)).length).toBeGreaterThan(0);
      bench.end();
    }
  });

  test('takes as long as planned within 1 percent, pierces and touch-offs included', async () => {
    const { job, result } = await demoJob(name);
    const { post } = machineKindOf(job.bench).dialect(job.bench);
    expect(post.pierceSeconds).toBeGreaterThan(0);
    const [cut] = result.cuts;
    const plan = planMotion(cut.path, job.bench.limits, cut.waits);
    // From the first touch of the sheet until the last arc goes out.
    const last = cut.path.power.findLastIndex((power) => power > 0);
    const planned = plan.at[last] - plan.at[cut.pierce!.touches[0]];
    bench = new PlasmaBenchForTests({ rate: 1 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    const { machine } = bench;
    const probing = () => machine.state().word === 'probing';
    await bench.until(probing, 'the first touch');
    await bench.until(() => !probing(), 'it to be over');
    const from = machine.clock;
    let to = from;
    while (bench.ended.length === 0) {
      if (machine.state().arc !== 'off') to = machine.clock;
      await bench.pass(20);
    }
    expect(bench.ended[0].phase).toBe('done');
    expect((to - from) / 60 / planned).toBeGreaterThan(0.99);
    expect((to - from) / 60 / planned).toBeLessThan(1.01);
  });
});

describe('set-up', () => {
  test('a dry run strikes no arc, stays high, and the pointer’s spot goes where the torch would', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.prepare(job);
    await bench.zero(job);
    // Of the list only the sheet is wanted.
    await bench.tell({ command: 'tick', step: 'sheet', on: true, job: 'job' });
    await bench.run(bench.order(job, result, { dry: true }));
    const seen: [number, number][] = [];
    const { sheet } = bench.machine.look() as { sheet: { x: number; y: number } };
    while (bench.ended.length === 0) {
      const { arc: now, machine } = bench.machine.state();
      expect(now).toBe('off');
      seen.push([machine.x + 45 - sheet.x, machine.y - sheet.y]);
      await bench.pass(20);
    }
    expect(bench.ended[0].phase).toBe('done');
    expect(bench.machine.sheet!.kerfs).toEqual([]);
    expect(Math.max(...seen.map(([x]) => x))).toBeGreaterThan(500);
    await expect(bench.run(bench.order(job, result), 'run-2')).rejects.toMatchObject({ reason: 'list-open' });
  });

  test('a dry run that would strike an arc is none', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.setUp(job);
    await bench.check({ ...bench.order(job, result), dry: true });
    expect(bench.state.checked!.findings).toContain(
      'A dry run has nothing on, and this program switches something on.',
    );
  });

  test('a program that was not written for how the sheet lies is not run', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.setUp(job, 0.03, job.stock.length - 20);
    const { token } = await bench.check(bench.order(job, result));
    expect(bench.state.checked!.findings[0]).toMatch(/lies turned by 1\.72°, and the program was written for 0\.00°/);
    await expect(bench.tell({ command: 'run', id: 'run-1', token, hash: bench.state.checked!.hash })).rejects.toMatchObject({ reason: 'check-failed' }); // prettier-ignore
  });

  test('an edge that is too near, or far too much turned, is none; a centre has none', async () => {
    const { job } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.prepare(job);
    const basis = basisOf('job', job);
    await expect(bench.tell({ command: 'point-edge', basis })).rejects.toMatchObject({ reason: 'no-zero' });
    await bench.pointAt(0, 0);
    await bench.tell({ command: 'point-zero', basis });
    await bench.idle();
    await expect(bench.tell({ command: 'point-edge', basis })).rejects.toMatchObject({ reason: 'edge-too-near' });
    await bench.pointAt(100, 60);
    await expect(bench.tell({ command: 'point-edge', basis })).rejects.toMatchObject({ reason: 'edge-too-far' });
    const centre = basisOf('job', { ...job, stock: { ...job.stock, zeroXY: 'centre' } });
    await expect(bench.tell({ command: 'point-edge', basis: centre })).rejects.toMatchObject({
      reason: 'edge-needs-corner',
    });
  });

  test('without the clamp the arc does not jump over; without a sheet it finds none; and both are said', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 5 });
    await bench.setUp(job);
    bench.hand({ hand: 'clamp', on: false });
    await bench.run(bench.order(job, result));
    await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
    expect(bench.state.problem).toContain('the work clamp is not on the sheet');
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand');
    expect(bench.machine.sheet!.kerfs).toEqual([]);
  });

  test('a router’s command is none of a plasma table’s, and no bit is changed in a run', async () => {
    const { job, result } = await demoJob('comet-weathervane');
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.setUp(job);
    await expect(bench.tell({ command: 'measure' })).rejects.toMatchObject({ reason: 'other-machine' });
    const order = bench.order(job, result);
    const [cut] = order.cuts;
    await bench.check({ ...order, cuts: [cut, { ...cut, bit: { ...cut.bit, id: 'other' } }] });
    expect(bench.state.checked!.findings).toContain(
      'A torch has one nozzle in a run; make one program for each nozzle.',
    );
  });
});
