import { obstaclesOf } from '../stock/obstacles.ts';
import { toolKindOf } from '../tools/kinds.ts';
import { takenOut, type Leaves, widthLeft } from '../tools/leaves.ts';
import { measurePath } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import { piercingMoved, pierceWaits } from '../motion/piercing.ts';
import { splitTime } from '../motion/split-time.ts';
import { clearLinks } from './clear-links.ts';
import type { CutPart, MeasuredPart } from '../cuts/cut-part.ts';
import type { Job } from '../document/job.ts';

/** What one bit does for a cut, with its times and lengths. */
export interface CutResult extends MeasuredPart {
  /** What the cut works on, in words. */
  works: string;
  split: { cutting: number; plunging: number; linking: number };
  cutLength: number;
  linkLength: number;
  /** Times the bit lifts between cutting. */
  lifts: number;
  /** Outlines of the chosen shapes that are not closed, and so are left out. */
  openOutlines: number;
}

/** A part with what was found about its cut, before its links are led clear and its moves are timed. */
export type UntimedPart = CutPart & Pick<CutResult, 'works' | 'openOutlines' | 'problem'>;

/**
 * Leads the links of a part clear of what holds the work, and plans how long its moves take on the job’s bench.
 * @param post of the bench: what it takes at each pierce.
 */
export function timedCut(part: UntimedPart, job: Job, { pierceSeconds = 0 }: { pierceSeconds?: number }): CutResult {
  const bit = job.bits.find((b) => b.id === part.bit);
  const leaves: Leaves =
    part.leaves ?? (bit && part.problem === undefined ? toolKindOf(bit).leaves(bit) : { kind: 'nothing' });
  const taken = takenOut(leaves);
  const radius = taken?.radius ?? widthLeft(leaves, 0) / 2;
  const { stock, bench } = job;
  const { path, pointNow } = clearLinks(part.path, {
    keepOuts: part.flat ? [] : obstaclesOf(job),
    stock,
    radius,
    limits: bench.limits,
    atLeast: part.approach,
  });
  const dwells = part.dwells && { ...part.dwells, points: part.dwells.points.map(pointNow) };
  const pierce = part.pierce && piercingMoved(part.pierce, pointNow);
  const { lowest } = measurePath(path);
  return {
    ...part,
    path,
    dwells,
    pierce,
    leaves,
    radius,
    depth: leaves.kind === 'kerf' ? leaves.depth : taken ? -lowest : 0,
    pressed: taken ? 0 : -lowest,
    over: leaves.kind === 'kerf' ? lowestWithPower(path) : undefined,
    turns: bit === undefined || toolKindOf(bit).turns,
    ...timesOf({ path, dwells, pierce }, bench.limits, pierceSeconds),
  };
}

/** The least height at which a path goes with power on, mm. */
function lowestWithPower({ xyz, power }: CutResult['path']): number {
  let lowest = Infinity;
  for (let i = 0; i < power.length; i++) if (power[i] > 0) lowest = Math.min(lowest, xyz[3 * i + 2]);
  return lowest;
}

/** The times and lengths of a path. */
function timesOf(
  { path, dwells, pierce }: Pick<CutResult, 'path' | 'dwells' | 'pierce'>,
  limits: Job['bench']['limits'],
  pierceSeconds: number,
): Pick<CutResult, 'waits' | 'minutes' | 'split' | 'cutLength' | 'linkLength' | 'lifts'> {
  const waits = pierce ? pierceWaits(path, pierce, pierceSeconds) : dwells;
  const plan = planMotion(path, limits, waits);
  const { cut: cutLength, link: linkLength, lifts } = measurePath(path);
  return { waits, minutes: plan.minutes, split: splitTime(path, plan), cutLength, linkLength, lifts };
}

/** A cut whose path has become another, with the times of that. */
export function retimed(
  cut: CutResult,
  { limits }: Pick<Job['bench'], 'limits'>,
  { pierceSeconds = 0 }: { pierceSeconds?: number },
): CutResult {
  return { ...cut, ...timesOf(cut, limits, pierceSeconds) };
}

/** What one bit does in a job, all its cuts together. */
export interface BitTime {
  bit: string;
  minutes: number;
  /** mm. */
  cutLength: number;
}

/** Time and way of each bit, in the order they first come in; cuts that cannot be made are left out. */
export function bitTimes(cuts: readonly CutResult[]): BitTime[] {
  const out: BitTime[] = [];
  for (const { bit, minutes, cutLength, problem } of cuts) {
    if (problem !== undefined) continue;
    let found = out.find((time) => time.bit === bit);
    if (!found) out.push((found = { bit, minutes: 0, cutLength: 0 }));
    found.minutes += minutes;
    found.cutLength += cutLength;
  }
  return out;
}
