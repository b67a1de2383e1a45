import type { Cluster } from './cluster.ts';

const LOOK_EVERY = 500;
const LONGEST_PAUSE = 15_000;

/** Starts a database again whenever it has ended; returns what ends that. */
export function keepCluster(cluster: Cluster, say: (sentence: string) => void): () => void {
  let stopped = false;
  let timer: NodeJS.Timeout;
  let pause = LOOK_EVERY;
  const look = async () => {
    if (!stopped && cluster.pid() === undefined) {
      say('The database has ended; it is started again.');
      try {
        await cluster.start();
        pause = LOOK_EVERY;
      } catch (error) {
        pause = Math.min(LONGEST_PAUSE, 2 * pause);
        say(`The database could not be started (${String(error).slice(0, 300)}); it is tried again.`);
      }
    }
    if (!stopped) timer = setTimeout(() => void look(), pause);
  };
  timer = setTimeout(() => void look(), pause);
  return () => {
    stopped = true;
    clearTimeout(timer);
  };
}
