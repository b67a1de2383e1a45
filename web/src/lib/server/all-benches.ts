import { benchStates, linkedBenches, runnerEvents } from './runner-client.ts';

/** How often it is asked what the benches are at, ms. */
const EVERY = 400;

/** How soon a runner that does not answer is asked again, ms. */
const AGAIN = 1000;

/** Told again and again what the benches are at, as JSON. */
type Listener = (benches: string) => void;

const listeners = new Set<Listener>();
let timer: ReturnType<typeof setTimeout> | undefined;

async function look(): Promise<void> {
  const now = JSON.stringify(await benchStates());
  for (const listener of listeners) listener(now);
  timer = listeners.size > 0 ? setTimeout(() => void look(), EVERY) : undefined;
}

function listen(listener: Listener): () => void {
  listeners.add(listener);
  timer ??= setTimeout(() => void look(), 0);
  return () => void listeners.delete(listener);
}

/** Takes a runner's server-sent events apart; each is told as what it holds, JSON. */
async function readEvents(stream: ReadableStream<Uint8Array>, told: (data: string) => void): Promise<void> {
  const decoder = new TextDecoder();
  let rest = '';
  for (const reader = stream.getReader(); ;) {
    const { done, value } = await reader.read();
    // What broke off within an event is none.
    if (done) return;
    const events = (rest + decoder.decode(value, { stream: true })).split('\n\n');
    rest = events.pop()!;
    for (const event of events) if (event.startsWith('data: ')) told(event.slice('data: '.length));
  }
}

/** Tells all that a bench does until the signal says so, and that it cannot be heard; it is asked again and again. */
async function follow(
  bench: string,
  pages: readonly string[],
  told: (state: string | undefined) => void,
  signal: AbortSignal,
): Promise<void> {
  while (!signal.aborted) {
    if (linkedBenches().includes(bench))
      await runnerEvents(bench, pages, signal)
        .then((stream) => readEvents(stream, told))
        .catch(() => {});
    if (signal.aborted) return;
    told(undefined);
    await new Promise((resolve) => setTimeout(resolve, AGAIN));
  }
}

/** A page, and the bench that it follows where it follows one. */
export interface PageAt {
  page: string;
  bench?: string;
}

/**
 * One stream for all pages of a browser: what all benches are at, as events named `benches`, and all that those do which a
 * page follows, as events named `state` of `{ bench, state }`. While one of them cannot be heard an event named `absent`
 * tells its id, and the others are told of all the same. Of what one reads slowly only the newest is kept.
 *
 * @example events: 'benches' [{ "id": "dome", "name": "Dome", "bench": "ready" }], 'state' { "bench": "dome", "state": { … } }
 */
export function benchEvents(pages: readonly PageAt[], signal: AbortSignal): ReadableStream<Uint8Array> {
  const ended = new AbortController();
  const both = AbortSignal.any([signal, ended.signal]);
  const encoder = new TextEncoder();
  /** What waits to be read, the newest of each. */
  const waiting = new Map<string, string>();
  let write = () => {};
  const put = (what: string, event: string, data: string) => {
    waiting.delete(what);
    waiting.set(what, `event: ${event}\ndata: ${data}\n\n`);
    write();
  };
  const stop = listenOnce((benches) => put('benches', 'benches', benches));
  const followed = new Map<string, string[]>();
  for (const { page, bench } of pages)
    if (bench !== undefined) followed.set(bench, [...(followed.get(bench) ?? []), page]);
  return new ReadableStream({
    start(controller) {
      write = () => {
        while (waiting.size > 0 && (controller.desiredSize ?? 0) > 0) {
          const [[what, event]] = waiting;
          waiting.delete(what);
          controller.enqueue(encoder.encode(event));
        }
      };
      both.addEventListener('abort', stop);
      for (const [bench, at] of followed) {
        const id = JSON.stringify(bench);
        const told = (state: string | undefined) =>
          state === undefined ? put(bench, 'absent', id) : put(bench, 'state', `{"bench":${id},"state":${state}}`);
        void follow(bench, at, told, both);
      }
    },
    pull: () => write(),
    cancel() {
      stop();
      ended.abort();
    },
  });
}

/** As `listen`, and only what is new. */
function listenOnce(listener: Listener): () => void {
  let told = '';
  return listen((benches) => {
    if (benches === told) return;
    told = benches;
    listener(benches);
  });
}
