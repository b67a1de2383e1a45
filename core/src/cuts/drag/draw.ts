import type { Job } from '../../document/job.ts';
import type { Clipper, Loops } from '../../geometry/clipper.ts';
import { signedArea } from '../../geometry/outline.ts';
import { PathBuilder } from '../../motion/path.ts';
import { checkMoves } from '../../motion/too-many-moves.ts';
import { flatTrack, reverseTrack, type Track } from '../../motion/track.ts';
import { formatLength } from '../../quantity/format.ts';
import { radians } from '../../quantity/units.ts';
import { type DragPoint, pointHeight } from '../../tools/drag/fields.ts';
import { checkClear } from '../../ways/checked.ts';
import { checkOnLines } from '../../ways/checked-lines.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { inPasses } from '../../ways/in-passes.ts';
import { joinedLines } from '../../ways/joined-lines.ts';
import { leftBetween } from '../../ways/left-between.ts';
import { type LinesAcross, linesAcross } from '../../ways/lines-across.ts';
import { orderTracks } from '../../ways/order-tracks.ts';
import { ringLevelsFrom } from '../../ways/ring-levels.ts';
import { nestRings } from '../../ways/rings.ts';
import { scanLines } from '../../ways/scan-lines.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { areaToCut, type CutPart, cutPart } from '../cut-part.ts';
import type { DragFacts } from './facts.ts';
import { type DragCut, fills } from './fields.ts';

export const RANK = 2;

/** Drawn lines come with their own width only where it shows: places of less than half a line's width squared do not. */
const SHOWS = 0.5;

/**
 * The way of a point over the work: down at once, along, up just clear of the stock, and over. In the program Z is minus
 * how far it is pressed for as long as it draws.
 *
 * @throws {CutProblem} for what its spring, its nose or the artwork does not allow.
 */
export function drawn(
  job: Job,
  cut: DragCut,
  point: DragPoint,
  given: CutArtwork,
  clipper: Clipper,
): CutPart<DragFacts>[] {
  const { unit } = job;
  if (cut.pressed > point.travel)
    throw new CutProblem(
      `The point is to be pressed ${formatLength(cut.pressed, unit, 2)}, and its spring gives ${formatLength(point.travel, unit, 2)}; press it less.`,
    );
  if (point.standOut !== null && point.standOut > pointHeight(point) + 1e-9)
    throw new CutProblem(
      `The point stands ${formatLength(point.standOut, unit, 2)} out of its nose, and is itself only ${formatLength(pointHeight(point), unit, 2)} high; measure its stand-out, and set it at Bits.`,
    );
  const artwork = cut.larger > 0 ? given.larger(1 + cut.larger / 100) : given;
  const { tracks, across } = fills(cut) ? filled(cut, point, artwork, clipper) : followed(cut, artwork);
  checkMoves(cut.passes * tracks.reduce((sum, { xyz }) => sum + xyz.length / 3, 0), 'step');
  const builder = new PathBuilder();
  // Down at once: there is no wood in the way, and the spring takes it.
  const down = job.bench.limits.speed.z;
  const depths = Array.from({ length: cut.passes }, () => cut.pressed);
  for (const { track, reversed } of orderTracks(tracks, { x: 0, y: 0 })) {
    const { xyz } = inPasses(reversed ? reverseTrack(tracks[track]) : tracks[track], depths);
    if (builder.length) builder.rapid(builder.x, builder.y, cut.rise);
    builder.rapid(xyz[0], xyz[1], cut.rise);
    builder.to(xyz[0], xyz[1], -cut.pressed, down);
    for (let i = 3; i < xyz.length; i += 3) builder.to(xyz[i], xyz[i + 1], xyz[i + 2], cut.feed);
  }
  builder.rapid(builder.x, builder.y, cut.rise);
  const facts: DragFacts = {
    runs: tracks.length,
    width: point.width,
    overlap: fills(cut) ? (point.width - cut.step) / point.width : null,
    across: across ?? null,
    nose: point.standOut,
    closed: closedUp(artwork.area().area, point.width, fills(cut), clipper),
  };
  return [cutPart({ ...cut, plunge: down, speed: 0 }, RANK, { path: builder.done(), passes: cut.passes, facts })];
}

interface Drawn {
  tracks: Track[];
  /** How many lines cross a stroke of what is filled. */
  across?: LinesAcross;
}

/** Lines as they are drawn, with as few lifts as their ends and crossings allow. */
function followed(cut: DragCut, artwork: CutArtwork): Drawn {
  const lines = artwork.lines();
  const runs = joinedLines(lines, cut.join, 0, 'crossings');
  if (runs.length === 0)
    throw new CutProblem(
      lines.length === 0
        ? 'No lines are chosen for this cut; choose some on the sheet.'
        : 'All that is chosen are points; choose lines, or drill holes there.',
    );
  checkOnLines(runs, lines, 2 * cut.join);
  return { tracks: runs.map(({ points, closed }) => ({ ...flatTrack(closed ? points.subarray(0, -2) : points, 0, closed), oneWay: false })) }; // prettier-ignore
}

/** The inside of closed outlines, filled so that no line reaches past them. */
function filled(cut: DragCut, { width }: DragPoint, artwork: CutArtwork, clipper: Clipper): Drawn {
  const area = areaToCut(artwork);
  const inside = clipper.offset(area, -width / 2);
  if (inside.length === 0)
    throw new CutProblem('Every chosen shape is narrower than the line; draw it as an outline, or take a finer point.');
  const levels = cut.pattern === 'rings' ? ringLevelsFrom(inside, cut.step, clipper) : [];
  const tracks = nestRings(levels, 0);
  const counted = cut.pattern === 'rings' ? [linesAcross(area, tracks, width)] : [];
  const angles = { outline: [], rings: [], hatch: [cut.angle], cross: [cut.angle, cut.angle + 90] }[cut.pattern];
  for (const angle of angles) {
    const rows = scanLines(inside, radians(angle), cut.step, 0, 'exact');
    counted.push(linesAcross(area, rows, width, radians(angle)));
    tracks.push(...rows);
  }
  // Where lines are to lie side by side, textured or solid, none stays blank in the middle of the rings.
  if (cut.fill === 'solid' || cut.step <= width + 1e-9) tracks.push(...leftBetween(levels, width, clipper));
  // Stripes end where they end; what is to be solid has its edge drawn, too.
  if (angles.length > 0 && cut.fill === 'solid') tracks.push(...inside.map((loop) => flatTrack(loop, 0, true)));
  if (tracks.length === 0)
    throw new CutProblem('At this step no line falls into the chosen shapes; make the step smaller.');
  checkClear(tracks, area, true, width / 2);
  return { tracks: tracks.map((track) => ({ ...track, oneWay: false })), across: together(counted) };
}

/** Counts of several sets of lines, as one. */
function together(counts: readonly (LinesAcross | undefined)[]): LinesAcross | undefined {
  const known = counts.filter((count) => count !== undefined);
  if (known.length === 0) return undefined;
  return {
    least: Math.min(...known.map(({ least }) => least)),
    usual: Math.min(...known.map(({ usual }) => usual)),
    most: Math.max(...known.map(({ most }) => most)),
  };
}

/**
 * Places of some size that a line's width changes: of a filling those it is too wide for, of outlines those where the
 * lines on both sides run together, inside and between shapes.
 */
function closedUp(area: Loops, width: number, filling: boolean, clipper: Clipper): Float64Array[] {
  if (area.length === 0) return [];
  const r = width / 2;
  const inner = clipper.offset(clipper.offset(area, -r), r);
  const lost = clipper.difference(area, inner);
  const between = filling ? [] : clipper.difference(clipper.offset(clipper.offset(area, r), -r), area);
  return [...lost, ...between].filter((loop) => signedArea(loop) > SHOWS * width * width);
}
