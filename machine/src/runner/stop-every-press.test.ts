import { afterEach, expect, test } from 'vitest';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

async function prepared() {
  const { job, result } = await demoJob('comet-marker');
  bench = new TestBench();
  await bench.prepare(job, 'v90');
  return { job, result };
}

async function setUp() {
  const { job, result } = await demoJob('comet-marker');
  bench = new TestBench();
  await bench.setUp(job, 'v90');
  const [order] = ordersOf(bench, job, result);
  return { job, order };
}

/** The tip is under the top of the stock, whose zero lies on the spoilboard 9 mm below. */
const inCut = () => bench.router.state().work.z < 8.7 && bench.router.state().line > 60;

test('at rest it goes to the machine all the same, and moves, lifts and voids nothing', async () => {
  await setUp();
  const before = bench.router.state();
  const { zero } = bench.state;
  const told: string[] = [];
  bench.told = (line) => {
    told.push(line);
    return line;
  };
  for (let k = 0; k < 3; k++) await bench.tell({ command: 'stop' });
  expect(told.filter((line) => line === ':stop')).toHaveLength(3);
  await bench.pass(2000);
  expect(bench.state.bench).toBe('ready');
  expect(bench.router.state().machine).toEqual(before.machine);
  expect(bench.state.zero).toEqual(zero);
  expect(told.filter((line) => !line.startsWith(':'))).toEqual([]);
});

test('the bench is believed to stand while the machine moves: it is seen, held and left, and Stop ends it', async () => {
  await setUp();
  bench.controller.hear('G0 X0 Y0\nG1 X200 F600\n');
  await bench.until(() => bench.state.bench !== 'ready', 'it to be noticed', 2);
  expect(bench.state.bench).toBe('left');
  expect(bench.state.problem).toMatch(/moves although nobody|more lines than it was sent/);
  await bench.until(() => bench.router.state().held !== undefined, 'it to be held', 2);
  await bench.tell({ command: 'stop' });
  await bench.until(() => ['ready', 'off'].includes(bench.state.bench), 'it to stand', 30);
  await bench.pass(2000);
  const before = bench.router.state().machine;
  await bench.pass(2000);
  expect(bench.router.state().machine).toEqual(before);
});

test('pressed while the machine is being connected, it is the first word on the new link', async () => {
  const { job, order } = await setUp();
  await bench.run(order);
  await bench.until(() => inCut(), 'a cut');
  bench.cut();
  const told: string[] = [];
  bench.told = (line) => {
    told.push(line);
    return line;
  };
  const linking = bench.connect(job);
  await bench.tell({ command: 'stop' });
  await linking;
  expect(told.find((line) => !/^:(state|echo)/.test(line))).toBe(':stop');
});

test('Stop has a way out where the machine never says that it stands', async () => {
  const { order } = await setUp();
  await bench.run(order);
  await bench.until(() => inCut(), 'a cut');
  bench.said = (text) => text.replace(/"word":"(idle|slowing|waiting)"/g, '"word":"slowing"');
  await bench.tell({ command: 'stop' });
  await bench.pass(20_000);
  expect(bench.state.bench).toBe('stopping');
  await bench.tell({ command: 'stop' });
  await bench.tell({ command: 'disconnect' });
  expect(bench.state.bench).toBe('off');
});

test('held in a bit change, then stopped, it is ready, and stays so', async () => {
  const { order } = await setUp();
  await bench.run(order);
  await bench.until(() => bench.state.bench === 'changing', 'the bit change');
  await bench.tell({ command: 'hold' });
  await bench.pass(300);
  expect(bench.state.bench).toBe('changing');
  const before = bench.router.state().machine;
  const seen = new Set<string>();
  await bench.tell({ command: 'stop' });
  for (let k = 0; k < 300; k++) {
    await bench.pass(10);
    seen.add(bench.state.bench);
  }
  expect([...seen]).toEqual(['ready']);
  expect(bench.router.state()).toMatchObject({ word: 'idle', machine: before });
  expect(bench.router.state().held).toBeUndefined();
  expect(bench.ended[0].phase).toBe('stopped');
});

test('switched off and on at rest, the first Home homes', async () => {
  await prepared();
  bench.hand({ hand: 'power' });
  await bench.until(() => bench.state.bench === 'unhomed', 'the loss of its home');
  await bench.pass(1000);
  await bench.tell({ command: 'home' });
  await bench.idle();
  expect(bench.state.problem).toBeUndefined();
});

test('one press that is told over two ways is one: it does not end the lift', async () => {
  const { order } = await setUp();
  await bench.run(order);
  await bench.until(() => inCut(), 'a cut');
  await bench.tell({ command: 'stop', press: 'a' });
  await bench.until(() => bench.state.bench === 'lifting', 'the lift');
  await bench.tell({ command: 'stop', press: 'a' });
  await bench.idle();
  expect(bench.router.state()).toMatchObject({ spindle: 0, machine: { z: 0 } });
});

test('pressed in the lift, that ends where it is, the spindle goes off, and nothing is lifted once more', async () => {
  const { order } = await setUp();
  await bench.run(order);
  await bench.until(() => inCut(), 'a cut');
  await bench.tell({ command: 'stop' });
  await bench.until(() => bench.state.bench === 'lifting' && bench.router.state().word === 'moving', 'the lift');
  await bench.pass(20);
  const { z } = bench.router.state().machine;
  await bench.tell({ command: 'stop' });
  await bench.idle();
  expect(bench.router.state().spindle).toBe(0);
  expect(bench.router.state().machine.z).toBeGreaterThanOrEqual(z);
  expect(bench.router.state().machine.z).toBeLessThan(-5);
  const before = bench.router.state().machine;
  await bench.pass(3000);
  expect(bench.router.state().machine).toEqual(before);
  expect(bench.ended).toHaveLength(1);
});
