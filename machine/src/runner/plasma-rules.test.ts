import { afterEach, expect, test } from 'vitest';
import { plasmaBench } from '../kinds/plasma/bench-kind.ts';
import { plasmaDriver } from '../kinds/plasma/driver.ts';
import { plasmaFacts } from '../kinds/plasma/facts.ts';
import type { PlasmaState } from '../kinds/plasma/messages.ts';
import { basisOf } from './of-job.ts';
import { NOTHING_DAMAGED, PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { demoJob } from './test-bench.ts';

let bench: PlasmaBenchForTests;
afterEach(() => bench?.end());

const missing = (command: keyof typeof plasmaBench.needs, machine: Partial<PlasmaState>) =>
  plasmaBench.needs[command]!.map((need) => need.missing({ machine } as never));

test('with an arc lit or being lit nothing is begun by hand, no run either, and the machine counts as live', () => {
  for (const arc of ['igniting', 'on'] as const) {
    for (const command of [
      'home',
      'step',
      'jog',
      'point-zero',
      'point-edge',
      'feel-sheet',
      'go-to-zero',
      'run',
      'take-up',
    ] as const)
      // prettier-ignore
      expect([command, missing(command, { arc })]).toEqual([command, expect.arrayContaining(['arc-burning'])]);
    expect(plasmaDriver.live({ arc } as PlasmaState)).toBe(true);
  }
  expect(missing('home', { arc: 'off' })).toEqual([undefined]);
  expect(plasmaDriver.live({ arc: 'off' } as PlasmaState)).toBe(false);
});

test('what an arc went out in is not gone on with', () => {
  expect(missing('resume', { cutShort: true })).toContain('arc-out');
  expect(missing('resume', { cutShort: false })).toEqual([undefined]);
  const lost = { x: 3, y: 4 };
  expect(plasmaDriver.wentOutAt!({ cutShort: true, lost } as PlasmaState)).toEqual(lost);
  expect(plasmaDriver.wentOutAt!({ cutShort: false, lost } as PlasmaState)).toBeUndefined();
  expect(plasmaDriver.wentOutAt!({ cutShort: true, lost: null } as PlasmaState)).toBeUndefined();
});

test('a program of two nozzles is none', () => {
  const cuts = (...nozzles: string[]) => ({ cuts: nozzles.map((id) => ({ bit: { id } })) }) as never;
  expect(plasmaBench.findings(cuts('a', 'a'), {} as never)).toEqual([]);
  expect(plasmaBench.findings(cuts('a', 'b'), {} as never)).toEqual(['A torch has one nozzle in a run; make one program for each nozzle.']); // prettier-ignore
});

test('the sheet is felt for where the torch is: zero lies on its face there, and the torch is left 15 mm over it', async () => {
  const { job } = await demoJob('comet-weathervane');
  bench = new PlasmaBenchForTests({ rate: 20 });
  await bench.prepare(job);
  const basis = basisOf('job', job);
  await bench.pointAt(0, 0);
  await bench.tell({ command: 'point-zero', basis });
  await bench.idle();
  const { x, y } = bench.state.origin!;
  const { offset } = plasmaFacts(bench.state.facts!).touch;
  const felt: number[] = [];
  const places = [[40, 40], [200, 60]] as const;
  for (const [px, py] of places) {
    await bench.pointAt(px + 45, py);
    await bench.tell({ command: 'feel-sheet', basis });
    await bench.idle();
    const { machine, origin, zero } = bench.state;
    felt.push(origin!.z);
    // Down to where the touch is noticed, and 15 mm up from there.
    expect(machine!.machine.z - origin!.z).toBeCloseTo(15 - offset, 1);
    expect(zero!.z).toMatchObject({ method: 'felt', bit: { id: job.cuts[0].bit } });
    // Across the sheet zero stays where it was pointed at.
    expect([origin!.x, origin!.y]).toEqual([x, y]);
  }
  const [first, second] = places.map(([px, py]) => bench.machine.sheet!.top(px, py));
  expect(Math.abs(first - second)).toBeGreaterThan(0.1);
  expect(Math.abs(felt[0] - felt[1] - (first - second))).toBeLessThan(0.05);
  expect(bench.machine.damage.nozzleTouched).toBe(0);
}); // prettier-ignore

test('felt for where there is no sheet, nothing is known of its height, and it is said', async () => {
  const { job } = await demoJob('comet-weathervane');
  bench = new PlasmaBenchForTests({ rate: 20 });
  await bench.setUp(job);
  expect(bench.state.zero!.z).toBeDefined();
  await bench.pointAt(-30 + 45, 40);
  await bench.tell({ command: 'feel-sheet', basis: basisOf('job', job) });
  await bench.until(() => bench.state.problem !== undefined, 'a sentence');
  expect(bench.state.zero!.z).toBeUndefined();
  expect(bench.state.zero!.xy).toBeDefined();
});

test('taken up between two cuts it goes to where the next is pierced, high, and cuts what is left', async () => {
  const { job, result } = await demoJob('garden-markers');
  bench = new PlasmaBenchForTests({ rate: 20 });
  await bench.setUp(job);
  const order = bench.order(job, result);
  const lines = bench.programs.kept.get(order.hash)!.text.split('\n');
  const pierces = lines.flatMap((line, k) => (line.startsWith('G38.2') ? [k] : []));
  await bench.run(order);
  // Between the second cut and the third.
  await bench.until(() => (bench.state.run?.line ?? 0) > pierces[1] + 8 && bench.machine.state().arc === 'off', 'the second cut', 60); // prettier-ignore
  await bench.tell({ command: 'stop' });
  await bench.until(() => bench.ended.length > 0, 'the stop');
  await bench.idle();
  const next = pierces.find((line) => line >= bench.ended[0].line)!;
  await bench.tickAll();
  // As if the torch had come so far.
  Object.assign(bench.ended[0], { line: next });
  const from = { line: next, acknowledged: next, broken: bench.ended[0].id };
  await bench.tell({ command: 'take-up', id: 'again', ...(await bench.check(order)), ...from });
  await bench.until(() => bench.ended.length > 1, 'the end', 400);
  expect([bench.ended[1].phase, bench.ended[1].why]).toEqual(['done', undefined]);
  expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
});

test('a table without a pointer has nothing to point with', () => {
  const said = (pointer: unknown) =>
    (['point-zero', 'point-edge'] as const).map(
      (command) =>
      plasmaBench.needs[command]!.map((need) => need.missing({ machine: { arc: 'off' }, facts: { kind: 'plasma', pointer } } as never)), // prettier-ignore
    );
  for (const missed of said(null)) expect(missed).toContain('no-pointer');
  for (const missed of said({ x: 45, y: 0 })) expect(missed).not.toContain('no-pointer');
});
