import { afterEach, beforeAll, describe, expect, test } from 'vitest';
import type { JobResult } from '@kerbe/core/compute/compute';
import { shapesOf } from '@kerbe/core/compute/compute';
import { cutArtwork } from '@kerbe/core/cuts/cut-artwork';
import { areaKept } from '@kerbe/core/cuts/plasma/area-kept';
import type { PlasmaFacts } from '@kerbe/core/cuts/plasma/facts';
import type { PlasmaCut } from '@kerbe/core/cuts/plasma/fields';
import type { Job } from '@kerbe/core/document/job';
import { machineKindOf } from '@kerbe/core/machines/kinds';
import { planMotion } from '@kerbe/core/motion/plan';
import { programsFor } from '@kerbe/core/machines/programs';
import { timelineOf } from '@kerbe/core/program/timeline';
import type { TakenUpBy } from '@kerbe/core/sequence/taken-up';
import { PLAIN, type Variant, varied } from '@kerbe/core/machines/program-variant';
import type { Nozzle } from '@kerbe/core/tools/nozzle/fields';
import { fromChart } from '@kerbe/core/tools/nozzle/chart';
import { type Clipper, type Loops } from '@kerbe/core/geometry/clipper';
import { signedArea } from '@kerbe/core/geometry/outline';
import { clipperFromDisk } from '../core-from-disk.ts';
import { plasmaBench } from '../kinds/plasma/bench-kind.ts';
import { plasmaState } from '../kinds/plasma/messages.ts';
import type { Hand } from '../kinds/plasma/stand-in/hands.ts';
import { StandInPlasma } from '../kinds/plasma/stand-in/plasma-table.ts';
import { BenchForTests } from './bench-for-tests.ts';
import type { ProgramOrder } from './commands.ts';
import { basisOf, bitShapeOf, orderOf } from './of-job.ts';
import { demoJob } from './test-bench.ts';

/** A runner and a simulated plasma table. */
class PlasmaBenchForTests extends BenchForTests<Hand, StandInPlasma> {
  constructor({ seed = 7, rate = 5 }: { seed?: number; rate?: number } = {}) {
    super((tell) => new StandInPlasma(tell, seed), StandInPlasma.HELLO, rate);
  }

  /** Connects, homes, lays the sheet, clamps it, and puts the nozzle in. */
  async prepare(job: Job, turn = 0): Promise<void> {
    if (this.state.bench === 'off') await this.connect(job);
    if (this.state.bench === 'unhomed') {
      await this.tell({ command: 'home' });
      await this.idle();
    }
    const { stock, cuts, bits } = job;
    const nozzle = bits.find(({ id }) => id === cuts[0].bit) as Nozzle;
    const { kerf, pierceHeight, cutHeight, volts } = fromChart(nozzle, stock.material, stock.corners[0])!.row;
    this.hand({ hand: 'sheet', length: stock.length, width: stock.width, thickness: stock.corners[0], turn });
    this.hand({ hand: 'clamp', on: true });
    this.hand({ hand: 'fume', on: true });
    this.hand({ hand: 'nozzle', name: nozzle.name, kerf, pierceHeight, cutHeight, volts });
    await this.tell({ command: 'nozzle-in', bit: bitShapeOf(bits, nozzle.id) });
  }

  /** Brings the pointer's spot over a place of the sheet, by looking. */
  async pointAt(x: number, y: number): Promise<void> {
    const { sheet, tip } = this.machine.look() as { sheet: { x: number; y: number; turn: number }; tip: { x: number; y: number } }; // prettier-ignore
    const [sin, cos] = [Math.sin(sheet.turn), Math.cos(sheet.turn)];
    await this.step('x', sheet.x + x * cos - y * sin - 45 - tip.x);
    await this.step('y', sheet.y + x * sin + y * cos - tip.y);
  }

  /** Zero by the pointer at the corner, the sheet felt for 40 mm inside it. */
  async zero(job: Job, edge?: number): Promise<void> {
    const basis = basisOf('job', job);
    await this.pointAt(0, 0);
    await this.tell({ command: 'point-zero', basis });
    await this.idle();
    if (edge !== undefined) {
      await this.pointAt(edge, 0);
      await this.tell({ command: 'point-edge', basis });
    }
    await this.pointAt(40 + 45, 40);
    await this.tell({ command: 'feel-sheet', basis });
    await this.idle();
  }

  async tickAll(): Promise<void> {
    for (const { id } of plasmaBench.ticks) await this.tell({ command: 'tick', step: id, on: true, job: 'job' });
  }

  async setUp(job: Job, turn = 0, edge?: number): Promise<void> {
    await this.prepare(job, turn);
    await this.zero(job, edge);
    await this.tickAll();
  }

  order(job: Job, result: Pick<JobResult, 'cuts' | 'beside'>, variant: Partial<Variant> = {}): ProgramOrder {
    const whole = { ...PLAIN, ...variant };
    const made = varied(job, result, whole);
    const [program] = programsFor(job, made, { revision: '1', date: '2026-11-26', notes: made.notes });
    const hash = this.programs.keep(program.text, timelineOf(program, made, job.bench.limits));
    return orderOf('job', job, made, program, '1', hash, whole);
  }
}

let bench: PlasmaBenchForTests;
let clipper: Clipper;
beforeAll(async () => {
  clipper = await clipperFromDisk();
});
afterEach(() => bench?.end());

const arc = () => plasmaState(bench.state.machine)!.arc;

/** What is left of the sheet, without what fell, by the kerfs that were really cut. */
function cutOut({ sheet }: StandInPlasma): Loops {
  const capsules = sheet!.kerfs.map(({ ax, ay, bx, by, width }) => {
    const r = width / 2;
    const angle = Math.atan2(by - ay, bx - ax);
    const n = 48;
    const points: number[] = [];
    for (let k = 0; k <= n; k++) points.push(bx + r * Math.cos(angle - Math.PI / 2 + (Math.PI * k) / n), by + r * Math.sin(angle - Math.PI / 2 + (Math.PI * k) / n)); // prettier-ignore
    for (let k = 0; k <= n; k++) points.push(ax + r * Math.cos(angle + Math.PI / 2 + (Math.PI * k) / n), ay + r * Math.sin(angle + Math.PI / 2 + (Math.PI * k) / n)); // prettier-ignore
    return Float64Array.from(points);
  });
  const whole = Float64Array.of(0, 0, sheet!.length, 0, sheet!.length, sheet!.width, 0, sheet!.width);
  return clipper.difference([whole], clipper.union(capsules, 'nonzero'));
}

/** What a job's parts are to be: what is enclosed by the lines of its kerfs, less half a kerf. */
function partsOf(result: JobResult, job: Job): Loops {
  const [cut] = job.cuts as PlasmaCut[];
  const shapes = shapesOf(cut, result.items);
  const artwork = cutArtwork(shapes, clipper);
  const { area } = areaKept(cut, artwork, clipper);
  return clipper.offset(clipper.offset(area, cut.kerf / 2), -cut.kerf / 2);
}

describe.each(['comet-weathervane', 'garden-markers'])('%s', (name) => {
  test('is cut in the planned time within 1 percent, and nothing is damaged', async () => {
    const { job, result } = await demoJob(name);
    bench = new PlasmaBenchForTests({ rate: 20 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await bench.until(() => bench.ended.length > 0, 'the run to end');
    const [run] = bench.ended;
    expect([run.phase, run.why]).toEqual(['done', undefined]);
    expect(bench.machine.damage).toEqual({ nozzleTouched: 0, piercedLow: 0, cutInAir: 0, ranIntoTipped: 0 });
    expect(bench.machine.sheet!.kerfs.length).toBeGreaterThan(0);
  });

  test('gives back parts that are the drawing, opened by the kerf’s disc, within 0.05 mm; also on a sheet that lies turned', async () => {
    const { job, result } = await demoJob(name);
    const [cut] = result.cuts;
    const { kerf } = cut.facts as PlasmaFacts;
    const ideal = partsOf(result, job);
    for (const turn of [0, 0.021]) {
      bench = new PlasmaBenchForTests({ rate: 20, seed: 3 });
      await bench.setUp(job, turn, turn ? job.stock.length - 20 : undefined);
      const lies = bench.state.zero!.xy!.turn ?? 0;
      expect(lies).toBeCloseTo(turn, 4);
      await bench.run(bench.order(job, result, { turn: lies }));
      await bench.until(() => bench.ended.length > 0, 'the run to end');
      expect([bench.ended[0].phase, bench.ended[0].why]).toEqual(['done', undefined]);
      const left = cutOut(bench.machine);
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

const NOTHING_DAMAGED = { nozzleTouched: 0, piercedLow: 0, cutInAir: 0, ranIntoTipped: 0 };
const lines = () => bench.state.run!.line;
/** Waits until it burns somewhere in the middle of the run. */
const burning = async (from = 100) => {
  await bench.until(() => arc() === 'on' && lines() > from, 'the arc in the middle of the run');
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
    const ideal = partsOf(result, job);
    const actual = clipper.intersection(cutOut(bench.machine), clipper.offset(ideal, kerf / 2));
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
    bench.hand({ hand: 'blow' });
    await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand');
    const { line, at } = bench.ended[0];
    const take = () => varied(job, result, { ...PLAIN, stopped: [{ which: 0, line, at: at!, by: 'stroke' }] });
    expect(take).toThrow(/the arc would die over the open kerf/);
  });

  test('the next pierce leaves that piece alone', async () => {
    const { job, result } = await demoJob(name);
    bench = new PlasmaBenchForTests({ rate: 5, seed: 4 });
    await bench.setUp(job);
    await bench.run(bench.order(job, result));
    await burning(60);
    const before = bench.machine.state().pierces;
    bench.hand({ hand: 'blow' });
    await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand');
    const { line, at } = bench.ended[0];
    await bench.tickAll();
    await bench.run(bench.order(job, result, { stopped: [{ which: 0, line, at: at!, by: 'next' }] }), 'run-2');
    await bench.until(() => bench.ended.length === 2, 'the run to end');
    expect(bench.machine.state().pierces).toBe((result.cuts[0].facts as PlasmaFacts).pierces.length);
    expect(before).toBeGreaterThan(0);
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
