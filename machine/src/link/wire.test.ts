import { createServer, type Server, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { RouterMessageSchema, type RouterState } from '../kinds/router/messages.ts';
import { tcp } from './tcp.ts';
import { type LinkFault, Wire } from './wire.ts';

const IDLE: RouterState = {
  word: 'idle',
  machine: { x: 0, y: 0, z: 0 },
  work: { x: 0, y: 0, z: 0 },
  line: 0,
  done: 0,
  homed: true,
  spindle: 0,
  override: 100,
  spindleOverride: 100,
  touching: false,
  clock: 0,
};

let server: Server | undefined;
const sockets = new Set<Socket>();
afterEach(() => {
  vi.useRealTimers();
  for (const socket of sockets) socket.destroy();
  sockets.clear();
  server?.close();
});

type Say = (message: unknown) => void;

/** A controller that answers as a test wants. */
async function controller(hear: (line: string, say: Say, socket: Socket) => void): Promise<number> {
  server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => {});
    const say: Say = (message) =>
      socket.write((typeof message === 'string' ? message : JSON.stringify(message)) + '\n');
    const lines = createInterface({ input: socket });
    lines.on('error', () => {});
    lines.on('line', (line) => hear(line, say, socket));
  });
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
  return (server!.address() as { port: number }).port;
}
const never = new AbortController().signal;
const gone: LinkFault[] = [];
const open = (port: number, signal = never) =>
  Wire.open<RouterState>(
    tcp(port),
    (value) => RouterMessageSchema.parse(value),
    () => {},
    (fault) => gone.push(fault),
    signal,
  );

/** One that takes every line and says it is done at once. */
function obliging(): Promise<number> {
  let lines = 0;
  return controller((line, say) => {
    if (line.startsWith(':state')) say({ state: IDLE });
    else if (line.startsWith(':echo')) say({ echo: Number(line.slice(6)), state: { ...IDLE, done: lines } });
    else if (!line.startsWith(':')) say({ done: ++lines });
  });
}

describe('opening a link', () => {
  test('nothing listens: the machine cannot be reached', async () => {
    const port = await obliging();
    await new Promise((resolve) => server!.close(resolve));
    await expect(open(port)).rejects.toThrow(/cannot be reached; check that it is switched on/);
  });
  test('something else answers', async () => {
    const port = await controller((_, say) => say('HTTP/1.1 400 Bad Request'));
    await expect(open(port)).rejects.toThrow(/not a machine Kerbe knows/);
  });
  test('another program is linked already', async () => {
    const port = await controller((_, say) => say({ error: 'Another program is linked to this machine already.' }));
    await expect(open(port)).rejects.toThrow(/linked to this machine already/);
  });
  test('a machine that answers is open with its state', async () => {
    const link = await open(await obliging());
    expect(link.state?.word).toBe('idle');
    expect(link.isClosed).toBeUndefined();
    link.close();
    expect(link.isClosed).toBe('closed');
    expect(gone.at(-1)).toBe('closed');
  });
});

describe('talking over a link', () => {
  test('run resolves when every line is done', async () => {
    const link = await open(await obliging());
    await link.run(never, 'G0 X1', 'G0 X2', 'G0 X3');
    expect(link.sent).toBe(3);
    expect(link.done).toBe(3);
  });
  test('fresh waits for a state that was sent after the question', async () => {
    const link = await open(await obliging());
    await link.run(never, 'G0 X1');
    expect((await link.fresh(never)).done).toBe(1);
  });
  test('an alarm ends whoever waits, with a sentence', async () => {
    const link = await open(
      await controller((line, say) =>
        line.startsWith(':state') ? say({ state: IDLE }) : say({ alarm: 'the bit was driven into the stock' }),
      ),
    );
    await expect(link.run(never, 'G0 X1')).rejects.toThrow(
      /The machine has stopped: the bit was driven into the stock/,
    );
    link.clear();
    expect(link.isClosed).toBeUndefined();
  });
  test('a refused line is told with the machine’s own reason', async () => {
    const link = await open(
      await controller((line, say) =>
        line.startsWith(':state') ? say({ state: IDLE }) : say({ refused: 1, why: 'G41 is not known here.' }),
      ),
    );
    await expect(link.run(never, 'G41')).rejects.toThrow(/G41 is not known here/);
  });
  test('no more lines are sent ahead than the machine keeps up with', async () => {
    let heard = 0;
    const link = await open(await controller((line, say) => (line.startsWith(':') ? say({ state: IDLE }) : heard++)));
    const cancel = new AbortController();
    const sending = (async () => {
      for (let k = 0; k < 20_000; k++) await link.send(`G1 X${k}`, cancel.signal);
    })();
    while (heard < 2000) await new Promise((resolve) => setTimeout(resolve, 20));
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect([heard, link.sent]).toEqual([2000, 2000]);
    cancel.abort(new Error('enough'));
    await expect(sending).rejects.toThrow('enough');
  });
  test('a line that was cut off is not passed on', async () => {
    const told: string[] = [];
    const port = await controller((line, say, socket) => {
      if (!line.startsWith(':state')) return;
      say({ state: IDLE });
      setTimeout(() => {
        socket.write('{"alarm":"cut');
        socket.end();
      }, 20);
    });
    const link = await Wire.open<RouterState>(
      tcp(port),
      (value) => RouterMessageSchema.parse(value),
      ({ alarm }) => alarm && told.push(alarm),
      () => {},
      never,
    );
    await expect(link.until(() => false, never)).rejects.toThrow(/link to the machine broke/);
    expect(told).toEqual([]);
  });
  test('waiting ends with the signal’s reason, also before the machine has answered', async () => {
    const cancel = new AbortController();
    const waiting = open(await controller(() => {}), cancel.signal);
    setTimeout(() => cancel.abort(new Error('not any more')), 50);
    await expect(waiting).rejects.toThrow('not any more');
  });
  test('the machine hears a word at least twice a second', async () => {
    let words = 0;
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    await open(
      await controller((line, say) => {
        words++;
        if (line.startsWith(':state')) say({ state: IDLE });
      }),
    );
    const before = words;
    await vi.advanceTimersByTimeAsync(1500);
    while (words < before + 3) await new Promise((resolve) => setImmediate(resolve));
  });
  test('a touch comes back as a place; none as a sentence', async () => {
    const answers: unknown[] = [{ x: 1, y: 2, z: -3 }, null];
    let lines = 0;
    const link = await open(
      await controller((line, say) => {
        if (line.startsWith(':state')) return say({ state: IDLE });
        if (line.startsWith(':')) return;
        say({ probe: answers.shift() });
        say({ done: ++lines });
      }),
    );
    expect(await link.probeMove('G38.2 Z-10 F100', never)).toEqual({ x: 1, y: 2, z: -3 });
    await expect(link.probeMove('G38.2 Z-10 F100', never)).rejects.toThrow(/ended without a touch/);
  });
  test('a broken link is told to whoever waits', async () => {
    const link = await open(
      await controller((line, say, socket) => (line.startsWith(':state') ? say({ state: IDLE }) : socket.destroy())),
    );
    await expect(link.run(never, 'G0 X1')).rejects.toThrow(/link to the machine broke/);
    await expect(link.run(never, 'G0 X2')).rejects.toThrow(/link to the machine broke/);
  });
  test('a machine that falls silent counts as lost', async () => {
    const link = await open(
      await controller((line, say) => {
        if (line.startsWith(':state')) say({ state: IDLE });
      }),
    );
    await expect(link.run(never, 'G0 X1')).rejects.toThrow(/fallen silent; go and look at it/);
  });
});
