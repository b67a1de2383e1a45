import type { BenchFeed } from './bench-feed.svelte';
import type { JobSession } from './job-session.svelte';
import type { StopName } from './stops';

/** What the route bar writes under a stop; `asks` where it wants the carver. */
export interface StopState {
  word: string;
  asks?: boolean;
}

const LINK_WORDS = { off: 'not begun', lost: 'link lost' } as const;

/** The state of each stop in a word, from the job, its remarks and the bench; `runs` are those logged before. */
export function routeStates(session: JobSession, feed: BenchFeed, runs: number): Record<StopName, StopState> {
  const { job, view } = session;
  const remarked = (stop: StopName): StopState => {
    if (!session.current) return { word: 'computing' };
    const remarks = view!.remarks.filter((remark) => remark.stop === stop);
    if (remarks.length === 0) return { word: 'ready' };
    return {
      word: remarks.length === 1 ? '1 remark' : `${remarks.length} remarks`,
      asks: remarks.some((remark) => remark.weight === 'wrong'),
    };
  };
  const logged = runs + feed.started;
  return {
    artwork: job.artwork.length ? remarked('artwork') : { word: 'empty', asks: true },
    stock: remarked('stock'),
    bits: remarked('bits'),
    cuts: job.cuts.length ? remarked('cuts') : { word: 'none yet', asks: true },
    proof: proofState(session),
    'set-up': setUpState(session, feed),
    run: runState(session, feed),
    log: { word: logged === 0 ? 'no runs yet' : logged === 1 ? '1 run' : `${logged} runs` },
  };
}

function proofState(session: JobSession): StopState {
  if (!session.current) return { word: session.cancelled ? 'out of date' : 'computing', asks: session.cancelled };
  if (session.view!.remarks.some((remark) => remark.weight === 'wrong')) return { word: 'not fit to run', asks: true };
  return { word: session.job.cuts.length ? 'up to date' : 'nothing yet' };
}

function setUpState(session: JobSession, feed: BenchFeed): StopState {
  const { machine, link, zero } = feed.state;
  if (session.job.bench.link !== 'stand-in') return { word: 'by hand' };
  if (link !== 'on') return { word: LINK_WORDS[link as keyof typeof LINK_WORDS] ?? 'not begun', asks: link === 'lost' };
  if (machine?.word === 'emergency' || machine?.word === 'alarm') return { word: 'stopped', asks: true };
  return { word: zero ? 'zero set' : machine?.homed ? 'homed' : 'connected' };
}

function runState(session: JobSession, feed: BenchFeed): StopState {
  const run = feed.state.run?.jobId === session.id ? feed.state.run : undefined;
  if (!run) return { word: 'not begun' };
  if (run.endedAt) return { word: run.phase, asks: run.phase !== 'done' };
  if (run.phase === 'bit-change') return { word: 'change the bit', asks: true };
  return { word: `carving, ${Math.floor((100 * run.line) / Math.max(1, run.lines))} %` };
}
