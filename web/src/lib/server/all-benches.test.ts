import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchEvents } from './all-benches.ts';
import * as runners from './runner-client.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
let leave: AbortController;
let states: { id: string; name: string; bench: string }[];

beforeEach(() => {
  vi.useFakeTimers();
  leave = new AbortController();
  states = [{ id: 'b', name: 'Other', bench: 'running' }];
  vi.spyOn(runners, 'doorOf').mockReturnValue({} as never);
  vi.spyOn(runners, 'benchStates').mockImplementation(async () => states);
});
afterEach(async () => {
  leave.abort();
  await vi.advanceTimersByTimeAsync(2000);
  vi.useRealTimers();
  vi.restoreAllMocks();
});

/** A runner that says what it is handed, and ends when it is told to. */
function runner(): { says(text: string): void; ends(): void; stream: ReadableStream<Uint8Array>; read: () => number } {
  let out!: ReadableStreamDefaultController<Uint8Array>;
  let read = 0;
  const stream = new ReadableStream<Uint8Array>(
    { start: (c) => void (out = c), pull: () => void read++ },
    { highWaterMark: 0 },
  );
  return { says: (text) => out.enqueue(bytes(text)), ends: () => out.close(), stream, read: () => read };
}

const pieces = (stream: ReadableStream<Uint8Array>) => {
  const reader = stream.getReader();
  return async () => {
    const next = reader.read();
    await vi.advanceTimersByTimeAsync(1500);
    const { value, done } = await next;
    return done ? 'end' : new TextDecoder().decode(value);
  };
};

test('what the followed bench says goes through, and the others stand between its events, never in one', async () => {
  const own = runner();
  vi.spyOn(runners, 'runnerEvents').mockResolvedValue(own.stream);
  const next = pieces(benchEvents('a', 'page', leave.signal));
  own.says('data: {"half":');
  expect(await next()).toBe('data: {"half":');
  states = [{ id: 'b', name: 'Other', bench: 'ready' }];
  own.says('1}\n\n');
  expect(await next()).toBe('1}\n\n');
  expect(await next()).toBe(`event: benches\ndata: ${JSON.stringify(states)}\n\n`);
});

test('a bench that cannot be heard is said to be absent, asked again, and hides no other', async () => {
  const own = runner();
  const open = vi.spyOn(runners, 'runnerEvents').mockRejectedValueOnce(new Error('gone')).mockResolvedValue(own.stream);
  const next = pieces(benchEvents('a', 'page', leave.signal));
  own.says('data: 1\n\n');
  const said = [await next(), await next(), await next()];
  expect(said.toSorted()).toEqual(['data: 1\n\n', 'event: absent\ndata: 1\n\n', expect.stringContaining('running')]);
  expect(open).toHaveBeenCalledTimes(2);
});

test('one that breaks off within an event ends the stream, so that the page asks anew', async () => {
  const own = runner();
  vi.spyOn(runners, 'runnerEvents').mockResolvedValue(own.stream);
  const next = pieces(benchEvents('a', 'page', leave.signal));
  own.says('data: {');
  expect(await next()).toBe('data: {');
  own.ends();
  expect(await next()).toBe('end');
});

test('a page that follows no bench hears of all; a state that stays is told once', async () => {
  const next = pieces(benchEvents(undefined, 'page', leave.signal));
  expect(await next()).toContain('running');
  await vi.advanceTimersByTimeAsync(5000);
  states = [{ id: 'b', name: 'Other', bench: 'held:running' }];
  expect(await next()).toContain('held:running');
});

test('who does not read is not written to without end, and hears the newest when he does', async () => {
  const own = runner();
  vi.spyOn(runners, 'runnerEvents').mockResolvedValue(own.stream);
  const stream = benchEvents('a', 'page', leave.signal);
  for (let k = 0; k < 200; k++) own.says(`data: ${k}\n\n`);
  for (let k = 0; k < 50; k++) {
    states = [{ id: 'b', name: 'Other', bench: `s${k}` }];
    await vi.advanceTimersByTimeAsync(400);
  }
  expect(own.read()).toBeLessThan(5);
  const next = pieces(stream);
  const said: string[] = [];
  for (let k = 0; k < 205 && !said.at(-1)?.includes('s49'); k++) said.push(await next());
  expect(said.at(-1)).toContain('s49');
});
