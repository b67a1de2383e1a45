import type { Job } from '../../document/job.ts';
import { ArcLength } from '../../geometry/arc-length.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { lengthOf } from '../../geometry/outline.ts';
import { PathBuilder } from '../../motion/path.ts';
import { checkMoves } from '../../motion/too-many-moves.ts';
import { formatLength } from '../../quantity/format.ts';
import { thickest } from '../../stock/stock.ts';
import type { Beam } from '../../tools/beam/fields.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { innerFirst, type Nested } from '../../ways/inner-first.ts';
import { type KerfLoop, kerfLoops } from '../../ways/kerf-loops.ts';
import { closesUp } from '../../ways/moved-outlines.ts';
import { nestedArea } from '../../ways/nested-area.ts';
import { neverBurnt } from '../../ways/never-burnt.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { type CutPart, cutPart, nothingToCut } from '../cut-part.ts';
import type { LaserCutFacts } from './facts.ts';
import type { LaserCut } from './fields.ts';
import { nearEdges } from './near-edges.ts';

/** Shorter lines than this are points, mm. */
const SHORTEST = 0.05;

interface Stroke extends Nested {
  points: ArrayLike<number>;
  closed: boolean;
}

/** Where it comes among other cuts; see `CutKind.rank`. */
export const rankOf = ({ side }: LaserCut): number => (side === 'nested' || side === 'outside' ? 4 : 3);

/**
 * Kerfs half a spot beside the lines, outer ones outwards and inner ones inwards, and on open lines; what lies inside first.
 * @throws {CutProblem} for what cannot be cut.
 */
export function cutThrough(
  job: Job,
  cut: LaserCut,
  _: Beam,
  artwork: CutArtwork,
  clipper: Clipper,
): CutPart<LaserCutFacts>[] {
  neverBurnt(job.stock.material);
  const { area: drawn, open: openCount, overlaps, touching: drawnTouching } = artwork.area();
  const { area, crossing, touching } = cut.side === 'nested' ? nestedArea(artwork.covers(), clipper) : { area: drawn, crossing: false, touching: drawnTouching }; // prettier-ignore
  const side = cut.side === 'nested' ? 'outside' : cut.side;
  const loops = kerfLoops(area, { side, offset: side === 'on' ? 0 : cut.kerf / 2, keptOnRight: true }, clipper);
  const open = artwork.lines().filter(({ closed }) => !closed);
  const lines = open.filter((line) => lengthOf(line) > SHORTEST);
  if (loops.length === 0 && lines.length === 0) {
    if (area.length > 0)
      throw new CutProblem(
        `The kerf of ${formatLength(cut.kerf, job.unit, 2)} is wider than all that is chosen; draw it larger, or take a beam with a smaller spot.`,
      );
    if (open.length > 0)
      throw new CutProblem('All that is chosen are points, or lines whose points lie in one place; choose lines.');
    throw nothingToCut(openCount);
  }
  checkMoves(
    cut.passes *
      [...loops, ...lines].reduce(
        (sum: number, { points }: { points: ArrayLike<number> }) => sum + points.length / 2,
        0,
      ),
    'number of passes',
  );
  const strokes: Stroke[] = loops.map(({ points, within }) => {
    const at = { x: points[0], y: points[1] };
    return { from: at, to: at, within, turnable: false, points, closed: true };
  });
  // There and back it ends where it begins.
  const across = cut.passes % 2 === 1;
  for (const { points } of lines) {
    const from = { x: points[0], y: points[1] };
    const end = { x: points.at(-2)!, y: points.at(-1)! };
    strokes.push({ from, to: across ? end : from, within: -1, turnable: across, points, closed: false });
  }
  const facts: LaserCutFacts = {
    lines: strokes.length,
    kerf: cut.kerf,
    nearEdge: nearEdges(loops, cut.kerf),
    closes: closesUp(area, loops, side),
    overlaps: cut.side === 'nested' ? Number(crossing) : overlaps,
    touching,
    empty: open.length - lines.length,
  };
  return [
    cutPart({ ...cut, plunge: 0, speed: 0 }, rankOf(cut), {
      path: laid(strokes, loops, cut),
      facts,
      passes: cut.passes,
      leaves: { kind: 'kerf', width: cut.kerf, depth: thickest(job.stock) },
      kerf: 'here',
      flat: true,
      power: cut.power / 100,
      air: cut.air,
    }),
  ];
}

/** Over to each stroke with no power, and along it as often as it has passes. */
function laid(strokes: readonly Stroke[], loops: readonly KerfLoop[], cut: LaserCut) {
  const builder = new PathBuilder();
  const power = cut.power / 100;
  for (const { item, reversed } of innerFirst(strokes, { x: 0, y: 0 })) {
    const { points, closed } = strokes[item];
    const n = points.length / 2;
    const first = reversed ? n - 1 : 0;
    builder.rapid(points[2 * first], points[2 * first + 1], 0);
    for (let pass = 0; pass < cut.passes; pass++) {
      const back = !closed && (pass % 2 === 1) !== reversed;
      for (let i = 1; i < n; i++) {
        const k = back ? n - 1 - i : i;
        builder.to(points[2 * k], points[2 * k + 1], 0, cut.feed, power);
      }
      if (closed) builder.to(points[0], points[1], 0, cut.feed, power);
    }
    if (closed && cut.overburn > 0) goOn(builder, loops[item].points, cut);
  }
  return builder.done();
}

/** A little further along a loop than its start. */
function goOn(builder: PathBuilder, points: Float64Array, { overburn, feed, power }: LaserCut): void {
  const along = new ArcLength(points);
  const end = Math.min(overburn, along.total);
  for (let i = 1; i < along.at.length && along.at[i] < end; i++)
    builder.to(along.loop[2 * i], along.loop[2 * i + 1], 0, feed, power / 100);
  const { x, y } = along.pointAt(end);
  builder.to(x, y, 0, feed, power / 100);
}
