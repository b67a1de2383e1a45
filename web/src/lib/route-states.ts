import { basisOf } from '@kerbe/machine/runner/of-job';
import { judgeZero, zeroTrouble } from '@kerbe/machine/runner/zero';
import type { BenchFeed } from './bench-feed.svelte';
import type { JobSession } from './job-session.svelte';
import type { StopName } from './stops';

/** What the route bar writes under a stop; `asks` where it wants the carver. */
export interface StopState {
  word: string;
  asks?: boolean;
}

/** The state of each stop in a word, from the job, its remarks and the bench; `runs` are those logged before. */
export function routeStates(session: JobSession, feed: BenchFeed, runs: number): Record<StopName, StopState> {
  const { job, view } = session;
  const remarked = (stop: StopName): StopState => {
    if (!session.current) return { word: session.cancelled ? 'out of date' : 'computing' };
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

function setUpState(session: JobSession, { state }: BenchFeed): StopState {
  if (session.job.bench.link !== 'stand-in') return { word: 'by hand' };
  const { bench, zero } = state;
  if (bench === 'off' || bench === 'connecting') return { word: 'not begun' };
  if (bench === 'lost' || bench === 'left') return { word: 'link lost', asks: true };
  if (bench === 'emergency' || bench === 'alarm') return { word: 'stopped', asks: true };
  if (bench === 'unhomed') return { word: 'connected' };
  // What was zeroed for another job was never this one's.
  if (![zero?.xy, zero?.z].some((part) => part?.basis.job.id === session.id)) return { word: 'homed' };
  return zeroTrouble(judgeZero(zero!, basisOf(session.id, session.job)))
    ? { word: 'zero void', asks: true }
    : { word: 'zero set' };
}

function runState(session: JobSession, { state }: BenchFeed): StopState {
  const run = state.run?.jobId === session.id ? state.run : undefined;
  if (!run) return { word: 'not begun' };
  if (run.endedAt) return { word: ENDED[run.phase], asks: run.phase !== 'done' };
  if (run.bit || run.prompt || state.question)
    return { word: run.bit ? 'change the bit' : 'waits for you', asks: true };
  if (state.bench.startsWith('held:')) return { word: 'held', asks: true };
  return { word: `carving, ${Math.floor((100 * run.line) / Math.max(1, run.lines))} %` };
}

const ENDED = { on: 'on', done: 'done', stopped: 'stopped', failed: 'broken off', lost: 'link lost' } as const;
