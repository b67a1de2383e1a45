import { afterEach, describe, expect, test } from 'vitest';
import { Clearance } from '@kerbe/core/geometry/clearance';
import type { JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { basisOf, bitShapeOf } from './of-job.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

/** Only the flourish and the border: a run of half a minute. */
const few = (job: Job) => {
  job.cuts = job.cuts.filter(({ id }) => id === 'lines');
};
const labels = () => demoJob('instrument-labels', few, 'lines');
interface Seen {
  tip: { x: number; y: number; z: number };
  piece: { x: number; y: number; length: number; width: number };
  paper?: string;
  bit: { broken: boolean };
}
const look = () => bench.router.look() as unknown as Seen;

/** Lowers the point over the middle of the plate until a slip of paper just drags, as a hand does. */
async function untilPaperDrags(): Promise<void> {
  const { tip, piece } = look();
  await bench.step('x', piece.x + piece.length / 2 - tip.x);
  await bench.step('y', piece.y + piece.width / 2 - tip.y);
  bench.hand({ hand: 'paper', thickness: 0.1 });
  for (const step of [5, 0.5, 0.05, 0.01]) {
    while (look().paper === 'free') await bench.step('z', -step);
    if (look().paper === 'drags') break;
    await bench.step('z', step);
  }
  expect(look().paper).toBe('drags');
  bench.hand({ hand: 'paper', thickness: 0 });
}

/** Set up by hand alone: X and Y by sight over the corner, Z by paper. */
async function setUpByHand(job: Job): Promise<void> {
  await bench.connect(job);
  await bench.tell({ command: 'home' });
  await bench.idle();
  bench.hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
  await bench.fit(job, 'diamond');
  const basis = basisOf('job', job);
  await untilPaperDrags();
  await bench.tell({ command: 'zero-here', method: 'paper', over: 0.1, basis });
  await bench.idle();
  await bench.step('z', 5);
  const { tip, piece } = look();
  await bench.step('x', piece.x - tip.x);
  await bench.step('y', piece.y - tip.y);
  await bench.tell({ command: 'zero-here', method: 'sight', over: 0, basis });
  await bench.idle();
  // Nothing of a plate, and nothing of a warm spindle: but that it is off.
  for (const step of ['off', 'pins', 'held', 'plate', 'eyes', 'hand'])
    await bench.tell({ command: 'tick', step, on: true, job: 'job' });
}

async function made(job: Job, result: JobResult): Promise<void> {
  const [order] = ordersOf(bench, job, result);
  await bench.run(order);
  await bench.until(() => bench.state.run?.phase !== 'on', 'the run to end');
}

/** Moves of the plan that draw, on the sheet. */
function planned({ cuts }: JobResult): Clearance {
  const sides: number[][] = [];
  for (const {
    path: { xyz, rapid },
  } of cuts)
    // prettier-ignore
    for (let i = 1; i < rapid.length; i++)
      if (!rapid[i] && xyz[3 * i + 2] < 0 && xyz[3 * i - 1] < 0)
        sides.push([xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i], xyz[3 * i + 1]]);
  const [ax, ay, bx, by] = [0, 1, 2, 3].map((k) => Float64Array.from(sides, (side) => side[k]));
  return new Clearance(sides.length, ax, ay, bx, by);
}

describe('a drag engraving on the stand-in', () => {
  test('zero by paper and by sight, with no plate; what is drawn lies on what was planned, and all of that is drawn', async () => {
    const { job, result } = await labels();
    bench = new TestBench();
    await setUpByHand(job);
    expect(bench.state.zero?.z).toMatchObject({ method: 'paper', over: 0.1 });
    // Paper drags within a hundredth and a half of its thickness.
    const { piece } = bench.router.table;
    const top = -112 + 1.5 + bench.router.bit!.length;
    expect(Math.abs(bench.state.origin!.z - top)).toBeLessThan(0.03);
    await made(job, result);
    expect(bench.state.run?.phase).toBe('done');
    const { lines } = piece!.marks;
    const drawn = planned(result);
    let off = 0;
    for (const { x0, y0, x1, y1, width } of lines) {
      expect(width).toBe(0.3);
      for (const t of [0, 0.5, 1]) off = Math.max(off, drawn.at(x0 + t * (x1 - x0), y0 + t * (y1 - y0)));
    }
    expect(off).toBeLessThan(0.02);
    // And the other way round: every place of the plan has a line.
    const [ax, ay, bx, by] = (['x0', 'y0', 'x1', 'y1'] as const).map((key) => Float64Array.from(lines, (line) => line[key])); // prettier-ignore
    const there = new Clearance(lines.length, ax, ay, bx, by);
    for (const {
      path: { xyz, rapid },
    } of result.cuts)
      // prettier-ignore
      for (let i = 1; i < rapid.length; i++)
        if (!rapid[i] && xyz[3 * i + 2] < 0) expect(there.at(xyz[3 * i], xyz[3 * i + 1])).toBeLessThan(0.02);
    expect(look().bit.broken).toBe(false);
  });

  test('plate that is not flat is followed as far as the spring gives; beyond it there are gaps', async () => {
    const uneven = (low: number) => (job: Job) => {
      few(job);
      job.stock.corners = [1.5, 1.5 - low, 1.5 - low, 1.5];
    };
    for (const [low, gaps] of [
      [2, false],
      [1.49, false],
    ] as const) {
      // prettier-ignore
      const { job, result } = await demoJob('instrument-labels', uneven(Math.min(low, 1.45)), `low ${low}`);
      bench = new TestBench();
      await setUpByHand(job);
      await made(job, result);
      expect(bench.state.run?.phase).toBe('done');
      const length = bench.router.table.piece!.marks.lines.reduce((sum, l) => sum + Math.hypot(l.x1 - l.x0, l.y1 - l.y0), 0); // prettier-ignore
      const whole = result.cuts.reduce((sum, cut) => sum + cut.cutLength, 0);
      expect(length > 0.9 * whole).toBe(!gaps);
      bench.end();
    }
    // Pressed less than the plate lies lower: gaps.
    const { job, result } = await demoJob(
      'instrument-labels',
      (changed) => {
        uneven(1.4)(changed);
        for (const cut of changed.cuts) (cut as unknown as { pressed: number }).pressed = 0.4;
      },
      'light',
    );
    bench = new TestBench();
    await setUpByHand(job);
    await made(job, result);
    const length = bench.router.table.piece!.marks.lines.reduce((sum, l) => sum + Math.hypot(l.x1 - l.x0, l.y1 - l.y0), 0); // prettier-ignore
    const whole = result.cuts.reduce((sum, cut) => sum + cut.cutLength, 0);
    expect(length).toBeLessThan(0.7 * whole);
    expect(length).toBeGreaterThan(0.1 * whole);
  });

  test('it breaks when the spindle turns, and when it is pressed further than its spring gives; the run’s account says so', async () => {
    const { job, result } = await labels();
    bench = new TestBench();
    await setUpByHand(job);
    bench.hand({ hand: 'spindle', turns: 9000 });
    await bench.until(() => bench.state.bench === 'alarm', 'the alarm');
    expect(bench.state.machine?.alarm).toMatch(/spindle was turned with a drag point in it, which is broken/);
    expect(look().bit.broken).toBe(true);
    bench.end();

    // Zero set 3 mm too low: 5.5 mm pressed of 5.
    bench = new TestBench();
    await setUpByHand(job);
    await bench.tell({ command: 'nudge-zero', z: -2 });
    await bench.idle();
    await bench.tell({ command: 'nudge-zero', z: -1 });
    await bench.idle();
    await made(job, result);
    expect(`${bench.state.run?.why} ${bench.state.machine?.alarm}`).toMatch(
      /pressed further than its spring gives, and is broken/,
    );
    expect(look().bit.broken).toBe(true);
  });

  test('a program that turns the spindle while it is in is not run, whoever wrote it', async () => {
    const { job, result } = await labels();
    bench = new TestBench();
    await setUpByHand(job);
    const [order] = ordersOf(bench, job, result);
    const { text } = bench.programs.kept.get(order.hash)!;
    expect(text).not.toMatch(/M0*[34](?!\d)/);
    const turned = { ...order, hash: bench.programs.keep(text.replace('M5', 'S9000 M3')) };
    await bench.check(turned);
    expect(bench.state.checked?.findings.join()).toMatch(/spindle turns while Diamond 0.3 is in, which must never be turned/); // prettier-ignore
  });

  test('the plate does not feel it, and a setter that may press harder than its spring is not asked', async () => {
    const { job } = await labels();
    bench = new TestBench();
    await setUpByHand(job);
    const basis = basisOf('job', job);
    await expect(bench.tell({ command: 'zero', method: 'flat', corner: 'lower-left', basis })).rejects.toThrow(/carries no current/); // prettier-ignore
    await expect(bench.tell({ command: 'measure' })).rejects.toThrow(/may press harder/);
    await expect(bench.tell({ command: 'zero-here', method: 'stop', over: 0, basis })).rejects.toThrow(
      /no corner stop/,
    );
  });

  test('X and Y with the plate and another bit, Z by paper with the point: both hold', async () => {
    const { job } = await demoJob(
      'instrument-labels',
      (changed) => {
        few(changed);
        changed.stock.corners = [9, 9, 9, 9];
        changed.bits.push({
          id: 'e6',
          name: 'End 6',
          kind: 'end',
          diameter: 6,
          shank: 6,
          flute: 20,
          presets: [],
        } as never);
      },
      'plate-and-paper',
    );
    bench = new TestBench();
    await bench.prepare(job, 'e6');
    await bench.zero(job);
    expect(bench.state.zero?.xy?.method).toBe('corner');
    bench.hand({ hand: 'clip', on: false });
    bench.hand({ hand: 'plate', place: 'away' });
    await bench.step('z', 40);
    await bench.fit(job, 'diamond');
    expect(bench.state.zero?.z?.void).toBe('bit');
    await untilPaperDrags();
    await bench.tell({ command: 'zero-here', method: 'paper', over: 0.1, basis: basisOf('job', job) });
    await bench.idle();
    expect(bench.state.zero?.xy).toMatchObject({ method: 'corner', bit: { id: 'e6' } });
    expect(bench.state.zero?.xy?.void).toBeUndefined();
    expect(bench.state.zero?.z).toMatchObject({ method: 'paper', bit: { id: 'diamond' } });
    expect(bench.state.zero?.z?.void).toBeUndefined();
    // The plate was in use: it has to be ticked away.
    await expect(bench.tell({ command: 'go-to-zero', basis: basisOf('job', job), lift: 5 })).rejects.toThrow(/plate and clip/); // prettier-ignore
  });

  test('the corner stop of a bench has X and Y of whatever lies in it, wherever the job’s zero is', async () => {
    for (const [zeroXY, x, y] of [
      ['lower-left', 100, 80],
      ['upper-right', 260, 140],
      ['centre', 180, 110],
    ] as const) {
      // prettier-ignore
      const { job } = await demoJob(
        'instrument-labels',
        (changed) => {
          few(changed);
          changed.stock.zeroXY = zeroXY;
          (changed.bench as unknown as { stop: object }).stop = { x: 100, y: 80 };
        },
        `stop ${zeroXY}`,
      );
      bench = new TestBench();
      await bench.connect(job);
      await bench.tell({ command: 'home' });
      await bench.idle();
      await bench.fit(job, 'diamond');
      await bench.tell({ command: 'zero-here', method: 'stop', over: 0, basis: basisOf('job', job) });
      await bench.idle();
      expect(bench.state.origin).toMatchObject({ x, y });
      expect(bench.state.zero?.z).toBeUndefined();
      bench.end();
    }
  });

  test('nothing moves when zero is set where the tool stands', async () => {
    const { job } = await labels();
    bench = new TestBench();
    await bench.connect(job);
    await bench.tell({ command: 'home' });
    await bench.idle();
    bench.hand({ hand: 'stock', length: 160, width: 60, corners: [1.5, 1.51, 1.5, 1.49] });
    await expect(bench.tell({ command: 'zero-here', method: 'eye', over: 0, basis: basisOf('job', job) })).rejects.toThrow(/Say which bit/); // prettier-ignore
    await bench.fit(job, 'diamond');
    const before = structuredClone(bench.state.machine!.machine);
    for (const method of ['eye', 'gauge', 'paper', 'sight'] as const) {
      await bench.tell({ command: 'zero-here', method, over: method === 'gauge' ? 10 : 0, basis: basisOf('job', job) });
      await bench.idle();
      expect(bench.state.machine!.machine).toEqual(before);
    }
    // A gauge of 10 mm under the tip: zero lies so much lower than by eye.
    expect(bench.state.zero?.z?.bit).toEqual(bitShapeOf(job.bits, 'diamond'));
  });
});

test('a job with a cutter and a drag point: off, changed, on; and no run in which the setter could not measure it', async () => {
  const { job, result } = await demoJob(
    'instrument-labels',
    (changed) => {
      few(changed);
      changed.bits.push({
        id: 'e3',
        name: 'End 3',
        kind: 'end',
        diameter: 3,
        shank: 6,
        flute: 12,
        presets: [],
      } as never);
      changed.cuts.push({ ...JSON.parse(HOLE), id: 'hole' } as never);
    },
    'mixed',
  );
  bench = new TestBench();
  const [order, ...more] = ordersOf(bench, job, result);
  expect(more).toEqual([]);
  const lines = bench.programs.kept.get(order.hash)!.text.split('\n');
  const words = lines.filter((line) => /^(S\d+ M3|M5|T\d M6)$/.test(line));
  // Drawn first, with the spindle off; then off, changed, on; off at the end.
  expect(words).toEqual(['T1 M6', 'M5', 'M5', 'T2 M6', 'S18000 M3', 'M5']);
  await setUpByHand(job);
  await bench.check(order);
  expect(bench.state.checked?.findings.join()).toMatch(/make one program for each bit/);
});
const HOLE = '{"kind":"pocket","targets":[{"item":"plate","shapes":["id:comet"]}],"bit":"e3","feed":600,"plunge":200,"speed":18000,"depth":1,"depthPerPass":0.5,"lastPass":0,"step":1,"finish":0,"climb":true,"slots":true,"pattern":"rings","angle":0,"entry":{"kind":"ramp","angle":5},"clearBits":[]}'; // prettier-ignore
