import { benchStates, doorOf, runnerEvents } from './runner-client.ts';

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

/** What a runner says, piece by piece, and nothing where it cannot be heard; it is asked again until the signal says so. */
async function* heard(bench: string, page: string, signal: AbortSignal): AsyncGenerator<Uint8Array | undefined> {
  while (!signal.aborted) {
    try {
      const reader = (await runnerEvents(bench, page, signal)).getReader();
      for (;;) {
        const { done, value } = await reader.read();
        if (done) break;
        yield value;
      }
    } catch {
      // Whatever it was, the page is told that nothing is heard.
    }
    if (signal.aborted) return;
    yield undefined;
    await new Promise((resolve) => setTimeout(resolve, AGAIN));
  }
}

/**
 * One stream for a page: what all benches are at, as events named `benches`, and all that one of them does, where the page
 * follows one. While that one cannot be heard an event named `absent` says so, and the others are told of all the same.
 * Who reads slowly is not written to faster than that.
 *
 * @throws {BenchProblem} for a bench that is not linked.
 */
export function benchEvents(
  followed: string | undefined,
  page: string,
  signal: AbortSignal,
): ReadableStream<Uint8Array> {
  if (followed !== undefined) doorOf(followed);
  const ended = new AbortController();
  const both = AbortSignal.any([signal, ended.signal]);
  const own = followed === undefined ? undefined : heard(followed, page, both);
  const encoder = new TextEncoder();
  let stop = () => {};
  /** What a bench says comes in pieces, and another event may only stand between two whole ones. */
  let whole = true;
  return new ReadableStream({
    start(controller) {
      let told = '';
      stop = listen((benches) => {
        if (benches === told || !whole || (controller.desiredSize ?? 0) <= 0) return;
        told = benches;
        controller.enqueue(encoder.encode(`event: benches\ndata: ${benches}\n\n`));
      });
      both.addEventListener('abort', stop);
    },
    async pull(controller) {
      if (!own) return new Promise((resolve) => both.addEventListener('abort', () => resolve()));
      const { done, value } = await own.next();
      if (both.aborted) return;
      // What broke off within an event cannot be gone on with: the page asks anew.
      if (done || (value === undefined && !whole)) {
        stop();
        ended.abort();
        return controller.close();
      }
      controller.enqueue(value ?? encoder.encode('event: absent\ndata: 1\n\n'));
      whole = value === undefined || (value.at(-1) === 10 && value.at(-2) === 10);
    },
    cancel() {
      stop();
      ended.abort();
    },
  });
}
