/** A press that has no answer after this long, ms, is said in large words. */
export const LOUD_AFTER = 1000;
/** A press without an answer is sent again this often, ms, for as long as the other says. */
const AGAIN = 400;
const GIVES_UP_AFTER = 120_000;

/** What came back: taken, or why it was not, in a sentence. */
export type Answer = { taken: true } | { taken: false; why: string };

/**
 * One way to a runner. Rejects where nothing came back.
 * @param press the same for all ways and times of one press, which the runner counts once.
 */
export type Way = (press: string, signal: AbortSignal) => Promise<Answer>;

/** What is told of a press: that it waits for an answer in vain, and what came in the end. */
export interface PressTold {
  unanswered(seconds: number): void;
  answered(answer: Answer, seconds: number): void;
}

/**
 * Presses Hold or Stop: over all ways at once and again and again, until one brings an answer. What a bench refuses is an
 * answer too.
 *
 * @returns whether it was taken; false where it was refused, or given up after two minutes.
 */
export function pressed(ways: readonly Way[], told: PressTold, press: string = crypto.randomUUID()): Promise<boolean> {
  const began = performance.now();
  const seconds = () => (performance.now() - began) / 1000;
  const end = new AbortController();
  return new Promise((resolve) => {
    const timers: ReturnType<typeof setTimeout>[] = [];
    const finish = (taken: boolean) => {
      timers.forEach(clearTimeout);
      clearInterval(again);
      end.abort();
      resolve(taken);
    };
    const send = () => {
      for (const way of ways)
        way(press, end.signal).then(
          (answer) => {
            if (end.signal.aborted) return;
            told.answered(answer, seconds());
            finish(answer.taken);
          },
          // The next time, or the other way.
          () => {},
        );
    };
    const again = setInterval(send, AGAIN);
    timers.push(setTimeout(() => told.unanswered(seconds()), LOUD_AFTER));
    timers.push(setTimeout(() => finish(false), GIVES_UP_AFTER));
    send();
  });
}
