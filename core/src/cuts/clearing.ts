import { ofKinds } from '../tools/kinds.ts';
import { presetFor } from '../tools/preset-for.ts';
import type { Bit } from '../tools/turned.ts';
import type { Job } from '../document/job.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { radians } from '../quantity/units.ts';
import { CutProblem } from '../ways/cut-problem.ts';
import { pocket } from '../ways/pocket.ts';
import { type CutPart, cutPart, type Driven } from './cut-part.ts';

/** The bits that clear before a cut’s own, largest first, as the cut names them. */
export function clearBitsOf(job: Job, ids: readonly string[], under: number): Bit[] {
  const bits = ids.map((id) => {
    const bit = job.bits.find((b) => b.id === id);
    if (!bit) throw new CutProblem('A bit that should clear first is no longer in the job; choose another.');
    const [mill] = ofKinds<Bit>([bit], ['end']);
    if (!mill) throw new CutProblem('Clearing needs an end mill; choose one for this cut.');
    return mill;
  });
  const largest = [...bits].sort((a, b) => b.diameter - a.diameter);
  if (largest.some((bit) => bit.diameter <= under && under < Infinity))
    throw new CutProblem(
      'A bit that clears first must be larger than the cut’s own; take it out or choose a larger one.',
    );
  return largest;
}

/** How an area is cleared before a cut. */
export interface Clearing {
  depth: number;
  startDepth: number;
  /** Where the clearing comes in the order of cuts. */
  rank: number;
  /** Most that is taken at once where a bit has no setting of its own, mm. */
  depthPerPass: number;
  /** As the cut's own bit goes, where that is a pocket's; else rings with ramps at 40 % of each bit. */
  like?: {
    pattern: 'rings' | 'lines';
    /** Direction of lines, and slope of the way in, degrees. */
    angle: number;
    entry: { kind: 'ramp' | 'helix' | 'plunge'; angle: number };
    climb: boolean;
    slots: boolean;
    finish: number;
    stepShare: number;
  };
}

/** Clears an area with some bits, each cutting only what those before it could not reach. */
export function cleared(
  job: Job,
  cut: Driven,
  bits: readonly Bit[],
  area: Loops,
  { depth, startDepth, rank, depthPerPass, like: own }: Clearing,
  clipper: Clipper,
): CutPart<null>[] {
  const parts: CutPart<null>[] = [];
  const radii: number[] = [];
  for (const [index, bit] of bits.entries()) {
    if (clipper.offset(area, -bit.diameter / 2).length === 0) continue;
    const preset = presetFor(bit, job.stock);
    const drive = { feed: preset?.feed ?? cut.feed, plunge: preset?.plunge ?? cut.plunge };
    const clearing = {
      step: Math.min(bit.diameter, (own?.stepShare ?? 0.4) * bit.diameter),
      depthPerPass: preset?.depthPerPass ?? Math.min(depthPerPass, bit.diameter),
    };
    const made = pocket(
      area,
      {
        ...drive,
        lift: job.stock.lift,
        diameter: bit.diameter,
        depth,
        startDepth,
        ...clearing,
        pattern: own?.pattern ?? 'rings',
        angle: radians(own?.angle ?? 0),
        climb: own?.climb ?? true,
        slots: own?.slots ?? false,
        limits: job.bench.limits,
        finish: own?.finish ?? 0,
        leave: true,
        entry: own ? { kind: own.entry.kind, angle: radians(own.entry.angle) } : { kind: 'ramp', angle: radians(5) },
        clearedBy: radii.slice(),
      },
      clipper,
    );
    radii.push(bit.diameter / 2);
    if (made.path.feed.length === 0) continue;
    parts.push(
      cutPart<null>(cut, rank + index / 100, {
        ...drive,
        id: `${cut.id}.${index + 1}`,
        bit: bit.id,
        speed: preset?.speed ?? cut.speed,
        path: made.path,
        passes: made.passes,
        clearing,
        facts: null,
      }),
    );
  }
  return parts;
}
