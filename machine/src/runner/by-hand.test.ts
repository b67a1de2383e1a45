import { afterEach, describe, expect, test, vi } from 'vitest';
import { bitShapeOf } from './of-job.ts';
import { demoJob, TestBench } from './test-bench.ts';

let bench: TestBench;
afterEach(() => bench?.end());

async function homed() {
  const { job } = await demoJob('comet-marker');
  bench = new TestBench({ rate: 1 });
  await bench.connect(job);
  await bench.tell({ command: 'home' });
  await bench.idle();
  return job;
}
const x = () => bench.router.state().machine.x;
const drive = (press = 'press-1', on = true) => bench.tell({ command: 'jog', press, on, x: 1, y: 0, z: 0, feed: 2000 });

describe('moving by hand', () => {
  test('it moves while it is asked to, and stops within 250 ms of the last word', async () => {
    await homed();
    for (let k = 0; k < 20; k++) {
      await drive();
      await bench.pass(45);
    }
    // 2000 mm/min reached at 400 mm/s²: about 28 mm in 0.9 s.
    expect(x()).toBeGreaterThan(20);
    await drive();
    // The page crashes, sleeps, or loses its network: no word comes any more.
    await bench.pass(250);
    const at = x();
    await bench.pass(1000);
    expect(x()).toBe(at);
    expect(bench.state.bench).toBe('ready');
  });
  test('let go, it stops at once', async () => {
    await homed();
    for (let k = 0; k < 10; k++) {
      await drive();
      await bench.pass(45);
    }
    await drive('press-1', false);
    await bench.pass(120);
    const at = x();
    await bench.pass(1000);
    expect(x()).toBe(at);
  });
  test('words that come late after it has ended do not start it again', async () => {
    await homed();
    await drive();
    await bench.pass(600);
    const at = x();
    await expect(drive()).rejects.toThrow(/let go and press again/);
    await bench.pass(500);
    expect(x()).toBe(at);
    await drive('press-2');
    await bench.pass(100);
    expect(x()).toBeGreaterThan(at);
  });
  test('a broken link stops it too', async () => {
    await homed();
    for (let k = 0; k < 10; k++) {
      await drive();
      await bench.pass(45);
    }
    bench.cut();
    await bench.pass(250);
    const at = x();
    await bench.pass(2000);
    expect(x()).toBe(at);
  });
  test('hold ends it, and going on does not begin it anew', async () => {
    await homed();
    for (let k = 0; k < 10; k++) {
      await drive();
      await bench.pass(45);
    }
    await bench.tell({ command: 'hold' });
    await bench.pass(500);
    const at = x();
    await bench.tell({ command: 'resume' });
    await bench.pass(1500);
    expect(x()).toBe(at);
    expect(bench.state.bench).toBe('ready');
  });
  test.each([
    ['Stop', async () => bench.tell({ command: 'stop' }, { page: 'other', name: '' })],
    [
      'Hold, and going on',
      async () => {
        await bench.tell({ command: 'hold' }, { page: 'other', name: '' });
        await bench.pass(400);
        await bench.tell({ command: 'resume' });
      },
    ],
    [
      'the emergency stop, released and cleared',
      async () => {
        bench.hand({ hand: 'emergency', pressed: true });
        await bench.pass(200);
        bench.hand({ hand: 'emergency', pressed: false });
        await bench.pass(200);
        await bench.tell({ command: 'clear' });
        await bench.pass(200);
        if (bench.state.bench === 'unhomed') await bench.tell({ command: 'home' });
      },
    ],
    ['silence', async () => bench.pass(300)],
    [
      'another operator',
      async () => {
        await bench.tell({ command: 'take' }, { page: 'other', name: '' });
        await bench.pass(10_100);
        await bench.tell({ command: 'take' });
        await bench.pass(10_100);
      },
    ],
    [
      'a link that was lost',
      async () => {
        bench.cut();
        await bench.pass(3000);
        await bench.connect((await demoJob('comet-marker')).job);
        if (bench.state.bench === 'left') await bench.tell({ command: 'stop' });
      },
    ],
  ] as const)('a press that was ended by %s is dead, however long it is held down', async (_, ends) => {
    await homed();
    await drive('a');
    await bench.pass(45);
    await drive('a');
    await bench.pass(45);
    await ends();
    await bench.idle();
    const at = x();
    for (let k = 0; k < 20; k++) {
      await expect(drive('a')).rejects.toMatchObject({ reason: 'jog-over' });
      await bench.pass(45);
    }
    expect(x()).toBe(at);
    await drive('b');
    await bench.pass(100);
    expect(x()).toBeGreaterThan(at);
  });
  test('a press that was refused when it came does not begin later', async () => {
    await homed();
    await bench.tell({ command: 'hold' });
    await expect(drive('a')).rejects.toMatchObject({ reason: 'held' });
    await bench.tell({ command: 'resume' });
    await bench.idle();
    const at = x();
    await expect(drive('a')).rejects.toMatchObject({ reason: 'jog-over' });
    // Its end came before its beginning.
    await drive('b', false);
    await expect(drive('b')).rejects.toMatchObject({ reason: 'jog-over' });
    await bench.pass(300);
    expect(x()).toBe(at);
  });
  test('words that waited while the runner stood still move nothing', async () => {
    await homed();
    await drive('a');
    await bench.pass(45);
    await drive('a');
    // Its own clock leaps: twenty-five words come at once after it.
    const now = performance.now.bind(performance);
    vi.spyOn(performance, 'now').mockImplementation(() => now() + 800);
    const told: string[] = [];
    bench.told = (line) => {
      told.push(line);
      return line;
    };
    for (let k = 0; k < 25; k++) await expect(drive('a')).rejects.toMatchObject({ reason: 'jog-over' });
    expect(told.filter((line) => line.startsWith(':drive'))).toEqual([]);
    vi.mocked(performance.now).mockRestore();
    await bench.pass(400);
    const at = x();
    await bench.pass(1000);
    expect(x()).toBe(at);
    expect(bench.state.bench).toBe('ready');
  });
  test('a spindle that a hand switches on while it homes ends that, and is said until it is off', async () => {
    const job = await homed();
    bench.hand({ hand: 'stock', length: 200, width: 100, corners: [9, 9.1, 9, 8.9] });
    bench.hand({ hand: 'bit', ...bitShapeOf(job.bits, 'v90') });
    await bench.tell({ command: 'home' });
    await bench.pass(100);
    bench.hand({ hand: 'spindle', turns: 9000 });
    await bench.until(() => bench.state.bench === 'stopping', 'it to be noticed', 2);
    expect(bench.state.problem).toMatch(/switched on at the machine while it should be off/);
    await bench.until(() => ['ready', 'unhomed'].includes(bench.state.bench), 'the spindle to stand', 30);
    expect(bench.router.state().spindle).toBe(0);
    // At rest it is a state of its own, which nothing moves from.
    if (bench.state.bench === 'unhomed') await bench.tell({ command: 'home' });
    await bench.idle();
    bench.hand({ hand: 'spindle', turns: 9000 });
    await bench.until(() => bench.state.bench === 'tool-on', 'it to be seen', 2);
    await expect(bench.tell({ command: 'home' })).rejects.toMatchObject({ reason: 'tool-on' });
    await expect(drive('c')).rejects.toMatchObject({ reason: 'tool-on' });
    bench.hand({ hand: 'spindle', turns: 0 });
    await bench.idle();
  });
  test('single steps are bounded, one at a time, and never queue', async () => {
    await homed();
    await expect(bench.tell({ command: 'step', axis: 'x', by: 500, feed: 1000 })).rejects.toThrow(/at most 102 mm/);
    await expect(bench.tell({ command: 'step', axis: 'z', by: -60, feed: 1000 })).rejects.toThrow(/at most 102 mm/);
    await bench.tell({ command: 'step', axis: 'x', by: 100, feed: 4000 });
    for (let k = 0; k < 8; k++)
      await expect(bench.tell({ command: 'step', axis: 'x', by: 100, feed: 4000 })).rejects.toThrow(/busy/);
    await bench.idle();
    expect(x()).toBe(100);
    await bench.pass(3000);
    expect(x()).toBe(100);
  });
});

describe('who commands', () => {
  const other = { page: 'page-2', name: 'Ben' };
  test('one page at a time; hold and stop from everyone', async () => {
    await homed();
    bench.runner.seen('page-1', true);
    await expect(bench.tell({ command: 'step', axis: 'x', by: 1, feed: 500 }, other)).rejects.toThrow(
      /commands this bench/,
    );
    await bench.tell({ command: 'hold' }, other);
    await bench.pass(200);
    expect(bench.state.bench).toBe('held:ready');
    await expect(bench.tell({ command: 'resume' }, other)).rejects.toThrow(/commands this bench/);
    await bench.tell({ command: 'stop' }, other);
    await bench.pass(500);
    expect(bench.state.bench).toBe('ready');
    expect(bench.state.operator?.page).toBe('page-1');
  });
  test('taking over is asked, and given or kept', async () => {
    await homed();
    bench.runner.seen('page-1', true);
    await bench.tell({ command: 'take' }, other);
    expect(bench.state.asks).toMatchObject(other);
    await bench.tell({ command: 'keep' });
    await bench.pass(15_000);
    expect(bench.state.operator?.page).toBe('page-1');
    await bench.tell({ command: 'take' }, other);
    await bench.tell({ command: 'give' });
    expect(bench.state).toMatchObject({ operator: other });
    await expect(bench.tell({ command: 'home' })).rejects.toThrow(/commands this bench/);
  });
  test('who does not answer loses it after ten seconds, who has left at once', async () => {
    await homed();
    bench.runner.seen('page-1', true);
    await bench.tell({ command: 'take' }, other);
    await bench.pass(9500);
    expect(bench.state.operator?.page).toBe('page-1');
    await bench.pass(1000);
    expect(bench.state.operator).toMatchObject(other);
    bench.runner.seen('page-2', true);
    bench.runner.seen('page-2', false);
    await bench.pass(3500);
    await bench.tell({ command: 'step', axis: 'x', by: 1, feed: 500 });
    expect(bench.state.operator?.page).toBe('page-1');
  });
});

describe('one pending connection', () => {
  test('connecting twice at once is one link, and what needs it is refused with its reason', async () => {
    const { job } = await demoJob('comet-marker');
    bench = new TestBench();
    const both = [bench.connect(job), bench.connect(job)];
    await expect(bench.tell({ command: 'home' })).rejects.toThrow(/being connected/);
    await bench.pass(10);
    await Promise.all(both);
    expect(bench.state.bench).toBe('unhomed');
    await expect(bench.connect(job)).rejects.toThrow(/connected already/);
  });
  test('disconnecting while it is being made ends it', async () => {
    const { job } = await demoJob('comet-marker');
    bench = new TestBench();
    bench.mute = true;
    const connecting = bench.connect(job);
    const refused = expect(connecting).rejects.toThrow();
    await bench.tell({ command: 'disconnect' });
    await refused;
    expect(bench.state.bench).toBe('off');
    bench.mute = false;
    await bench.connect(job);
    expect(bench.state.bench).toBe('unhomed');
  });
});
