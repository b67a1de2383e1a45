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
  vi.spyOn(runners, 'linkedBenches').mockReturnValue(['a', 'b']);
  vi.spyOn(runners, 'benchStates').mockImplementation(async () => states);
});
afterEach(async () => {
  leave.abort();
  await vi.advanceTimersByTimeAsync(2000);
  vi.useRealTimers();
  vi.restoreAllMocks();
});

/** A runner that says what it is handed, and ends when it is told to. */
function runner(): { says(text: string): void; ends(): void; stream: ReadableStream<Uint8Array> } {
  let out!: ReadableStreamDefaultController<Uint8Array>;
  const stream = new ReadableStream<Uint8Array>({ start: (c) => void (out = c) });
  return { says: (text) => out.enqueue(bytes(text)), ends: () => out.close(), stream };
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

const parsed = (event: string) => ({
  is: /^event: (\w+)\n/.exec(event)?.[1],
  data: JSON.parse(/\ndata: (.*)\n\n$/.exec(event)![1]) as unknown,
});

test('what the followed bench says goes through whole, however it comes, and names the bench', async () => {
  const own = runner();
  vi.spyOn(runners, 'runnerEvents').mockResolvedValue(own.stream);
  const next = pieces(benchEvents([{ page: 'p', bench: 'a' }], leave.signal));
  own.says('data: {"half":');
  own.says('1}\n\ndata: {"half":2}\n\nda');
  const said = [parsed(await next()), parsed(await next()), parsed(await next())];
  expect(said).toContainEqual({ is: 'benches', data: states });
  expect(said.filter(({ is }) => is === 'state').map(({ data }) => data)).toEqual([
    { bench: 'a', state: { half: 1 } },
    { bench: 'a', state: { half: 2 } },
  ]);
  own.says('ta: {"half":3}\n\n');
  expect(parsed(await next())).toEqual({ is: 'state', data: { bench: 'a', state: { half: 3 } } });
});

test('one stream carries the presence of all pages, each at its bench', async () => {
  const open = vi.spyOn(runners, 'runnerEvents').mockImplementation(async () => runner().stream);
  benchEvents(
    [{ page: 'p', bench: 'a' }, { page: 'q', bench: 'b' }, { page: 'r', bench: 'a' }, { page: 's' }],
    leave.signal,
  );
  await vi.advanceTimersByTimeAsync(10);
  expect(open.mock.calls.map(([bench, pages]) => [bench, pages])).toEqual([
    ['a', ['p', 'r']],
    ['b', ['q']],
  ]);
});

test('a bench that cannot be heard is said to be absent, asked again, and hides no other', async () => {
  const own = runner();
  const open = vi.spyOn(runners, 'runnerEvents').mockRejectedValueOnce(new Error('gone')).mockResolvedValue(own.stream);
  const next = pieces(benchEvents([{ page: 'p', bench: 'a' }], leave.signal));
  const first = [parsed(await next()), parsed(await next())];
  expect(first.map(({ is }) => is).toSorted()).toEqual(['absent', 'benches']);
  expect(first).toContainEqual({ is: 'absent', data: 'a' });
  own.says('data: 1\n\n');
  expect(parsed(await next())).toEqual({ is: 'state', data: { bench: 'a', state: 1 } });
  expect(open).toHaveBeenCalledTimes(2);
});

test('what breaks off within an event is none of it', async () => {
  const own = runner();
  vi.spyOn(runners, 'runnerEvents').mockResolvedValueOnce(own.stream).mockRejectedValue(new Error('gone'));
  const next = pieces(benchEvents([{ page: 'p', bench: 'a' }], leave.signal));
  own.says('data: {');
  own.ends();
  const said = [parsed(await next()), parsed(await next())];
  expect(said.map(({ is }) => is).toSorted()).toEqual(['absent', 'benches']);
});

test('a bench that is not linked is absent, and the others are heard', async () => {
  const next = pieces(benchEvents([{ page: 'p', bench: 'nowhere' }], leave.signal));
  const said = [parsed(await next()), parsed(await next())];
  expect(said.map(({ is }) => is).toSorted()).toEqual(['absent', 'benches']);
});

test('a page that follows no bench hears of all; a state that stays is told once', async () => {
  const next = pieces(benchEvents([{ page: 'p' }], leave.signal));
  expect(await next()).toContain('running');
  await vi.advanceTimersByTimeAsync(5000);
  states = [{ id: 'b', name: 'Other', bench: 'held:running' }];
  expect(await next()).toContain('held:running');
});

test('who does not read has only the newest of each waiting', async () => {
  const own = runner();
  vi.spyOn(runners, 'runnerEvents').mockResolvedValue(own.stream);
  const stream = benchEvents([{ page: 'p', bench: 'a' }], leave.signal);
  for (let k = 0; k < 200; k++) {
    own.says(`data: ${k}\n\n`);
    states = [{ id: 'b', name: 'Other', bench: `s${k}` }];
    await vi.advanceTimersByTimeAsync(400);
  }
  const next = pieces(stream);
  // One was written before anybody read.
  const said = [await next(), await next(), await next()];
  expect(said.slice(1).join()).toContain('s199');
  expect(said.slice(1).join()).toContain('"state":199');
});
