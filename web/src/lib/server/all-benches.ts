import { benchStates, runnerEvents } from './runner-client.ts';

/** How often it is asked what the benches are at, ms. */
const EVERY = 400;

/** Told of every change of what the benches are at, as JSON. */
type Listener = (benches: string) => void;

const listeners = new Set<Listener>();
let latest = '';
let timer: ReturnType<typeof setTimeout> | undefined;

async function look(): Promise<void> {
  const now = JSON.stringify(await benchStates());
  if (now !== latest) {
    latest = now;
    for (const listener of listeners) listener(now);
  }
  timer = listeners.size > 0 ? setTimeout(() => void look(), EVERY) : undefined;
}

function listen(listener: Listener): () => void {
  listeners.add(listener);
  if (latest) listener(latest);
  if (timer === undefined) timer = setTimeout(() => void look(), 0);
  return () => void listeners.delete(listener);
}

/**
 * One stream for a page: what all benches are at, as events named `benches`, and all that one of them does, where the page
 * follows one. Where that one does not answer, the stream fails, and the page asks again.
 */
export async function benchEvents(
  followed: string | undefined,
  page: string,
  signal: AbortSignal,
): Promise<ReadableStream<Uint8Array>> {
  const ended = new AbortController();
  const both = AbortSignal.any([signal, ended.signal]);
  const own = followed === undefined ? undefined : (await runnerEvents(followed, page, both)).getReader();
  const encoder = new TextEncoder();
  let stop = () => {};
  return new ReadableStream({
    start(controller) {
      const close = () => {
        stop();
        try {
          controller.close();
        } catch {
          // It is closed already.
        }
      };
      // What a bench says comes in pieces, and another event may only stand between two of its own.
      let waiting: string | undefined;
      let whole = true;
      const tell = () => {
        if (!whole || waiting === undefined) return;
        controller.enqueue(encoder.encode(`event: benches\ndata: ${waiting}\n\n`));
        waiting = undefined;
      };
      stop = listen((benches) => {
        waiting = benches;
        tell();
      });
      both.addEventListener('abort', close);
      const pass = async () => {
        try {
          for (;;) {
            const { done, value } = await own!.read();
            if (done) break;
            controller.enqueue(value);
            whole = value.at(-1) === 10 && value.at(-2) === 10;
            tell();
          }
        } catch {
          // The runner has gone; the page hears of it by the stream's end.
        }
        close();
      };
      if (own) void pass();
    },
    cancel() {
      stop();
      ended.abort();
    },
  });
}
