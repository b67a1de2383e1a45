import { toolKindOf } from '../tools/kinds.ts';
import { takenOut, type Leaves, widthLeft } from '../tools/leaves.ts';
import { measurePath } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
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

/** Leads the links of a part clear of what holds the work, and plans how long its moves take on the job’s bench. */
export function timedCut(part: UntimedPart, job: Job): CutResult {
  const bit = job.bits.find((b) => b.id === part.bit);
  const leaves: Leaves = bit && part.problem === undefined ? toolKindOf(bit).leaves(bit) : { kind: 'nothing' };
  const taken = takenOut(leaves);
  const radius = taken?.radius ?? widthLeft(leaves, 0) / 2;
  const { stock, bench } = job;
  const { path, pointNow } = clearLinks(part.path, {
    keepOuts: stock.keepOuts,
    stock,
    radius,
    limits: bench.limits,
  });
  const dwells = part.dwells && { ...part.dwells, points: part.dwells.points.map(pointNow) };
  const plan = planMotion(path, bench.limits, dwells);
  const { cut: cutLength, link: linkLength, lowest, lifts } = measurePath(path);
  return {
    ...part,
    path,
    dwells,
    leaves,
    radius,
    minutes: plan.minutes,
    split: splitTime(path, plan),
    depth: taken ? -lowest : 0,
    pressed: taken ? 0 : -lowest,
    turns: bit === undefined || toolKindOf(bit).turns,
    cutLength,
    linkLength,
    lifts,
  };
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
