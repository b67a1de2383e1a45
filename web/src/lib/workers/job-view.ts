import { rasterOfGreys } from '@kerbe/core/artwork/greys/raster';
import type { PlacedItem } from '@kerbe/core/artwork/place';
import type { CutKind, SheetMark } from '@kerbe/core/cuts/kind';
import type { Look } from '@kerbe/core/cuts/look';
import type { Grouped } from '@kerbe/core/document/groups';
import type { FillRule } from '@kerbe/core/geometry/clipper';
import { type Bounds, boundsOf } from '@kerbe/core/geometry/outline';
import type { BitTime, CutResult } from '@kerbe/core/sequence/cut-result';
import type { Path } from '@kerbe/core/motion/path';
import type { Remark } from '@kerbe/core/cuts/remark';
import type { Left } from '@kerbe/core/cuts/left-on-purpose';
import { buffersOf, type Lines, LinesBuilder, type Range } from '../sheet/lines.ts';

/** A shape as the sheet draws it: lines of its item’s, and what it belongs to. */
export interface ShapeView extends Grouped, Range {
  name: string;
  /** What cuts hold on to it by. */
  mark: string;
  rule: FillRule;
  open: boolean;
  box: Bounds;
}

export interface ItemView {
  id: string;
  shapes: ShapeView[];
  lines: Lines;
  bounds?: Bounds;
  problem?: string;
  nodes: PlacedItem['nodes'];
  notes: string[];
}

/** A way of the bit: what is cut, and the moves between. */
export interface PathView {
  way: Lines;
  links: Lines;
}

/** What a cut came to, without its path's points. */
export type CutView = Omit<CutResult, 'path'> &
  PathView & {
    /** What it shows on the sheet besides its way. */
    marks: {
      look: Look;
      word: string;
      always: boolean;
      /** Places, marked by circles. */ round?: true;
      lines: Lines;
    }[];
    points: number;
  };

/** A program from elsewhere, seen on this job's sheet. */
export interface ForeignProgram extends PathView {
  name: string;
  lines: number;
  minutes: number;
  deepest: number;
  /** Bits it calls, by their numbers. */
  bits: number[];
  /** What to see to before it is run. */
  findings: string[];
  /** What could not be followed, and what was taken for granted. */
  notes: string[];
  /** All its moves were followed; where not, time and depth are those of what was. */
  whole: boolean;
}

/** What the worker tells the page of a computed job. */
export interface JobView {
  cuts: CutView[];
  minutes: number;
  /** Spent between the cuts and on the way back, minutes; a part of `minutes`. */
  besideMinutes: number;
  bitChanges: number;
  bits: BitTime[];
  /** Those that stand, and those that were left on purpose. */
  remarks: Remark[];
  left: Left[];
  milliseconds: number;
}

/** A shape without a point lies nowhere. */
const NOWHERE: Bounds = { minX: 0, minY: 0, maxX: 0, maxY: 0 };

export function itemView({ id, shapes, bounds, problem, nodes, notes }: PlacedItem): ItemView {
  const lines = new LinesBuilder();
  const views = shapes.map(({ name, layer, colour, line, word, mark, rule, outlines }): ShapeView => {
    const from = lines.count;
    for (const { points, closed } of outlines) lines.line(points, closed);
    const box = boundsOf(outlines) ?? NOWHERE;
    return {
      name,
      layer,
      colour,
      line,
      word,
      mark,
      rule,
      open: outlines.some(({ closed }) => !closed),
      from,
      to: lines.count,
      box,
      width: box.maxX - box.minX,
      height: box.maxY - box.minY,
      outlines: outlines.length,
    };
  });
  const picture = shapes.find(({ greys }) => greys)?.greys;
  const drawn = { ...lines.done(), ...(picture && { raster: rasterOfGreys(picture) }) };
  return { id, bounds, problem, nodes, notes, shapes: views, lines: drawn };
}

/** What is marked on the sheet, as its lines. */
export const marksView = (marks: readonly SheetMark[]): CutView['marks'] =>
  marks
    .filter(({ outlines, circles, raster }) => raster !== undefined || outlines.length + circles.length > 0)
    .map(({ look, word, always, outlines, circles, raster }) => {
      const lines = new LinesBuilder();
      for (const { points, closed } of outlines) lines.line(points, closed);
      for (const { x, y, radius } of circles) lines.circle(x, y, radius);
      const round = outlines.length === 0 && circles.length > 0;
      return { look, word, always, ...(round && { round }), lines: { ...lines.done(), ...(raster && { raster }) } };
    });

/** @param kind the kind of the cut that the part belongs to. */
export function cutView({ path, ...rest }: CutResult, kind: CutKind | undefined): CutView {
  // Of a bit that clears its cut's kind knows nothing.
  const marks = rest.facts === null ? [] : (kind?.marks?.(rest) ?? []);
  return {
    ...rest,
    ...pathView(path),
    marks: marksView(marks),
    points: path.feed.length,
  };
}

/** Lines are no longer than so many points, so that what is out of sight can be left out. */
const LONGEST = 400;

/** Points nearer to each other than this are one in the picture, mm. */
const FINEST = 0.05;

/** A path seen from above: its moves at feed, and those between them. */
export function pathView({ xyz, rapid }: Path): PathView {
  const way = new LinesBuilder();
  const links = new LinesBuilder();
  let [x, y] = [NaN, NaN];
  let length = 0;
  for (let i = 1; i < rapid.length; i++) {
    const into = rapid[i] ? links : way;
    const first = i === 1 || rapid[i] !== rapid[i - 1];
    const last = i + 1 === rapid.length || rapid[i + 1] !== rapid[i];
    if (first) {
      [x, y] = [xyz[3 * i - 3], xyz[3 * i - 2]];
      into.point(x, y);
      length = 1;
    }
    const [px, py] = [xyz[3 * i], xyz[3 * i + 1]];
    if ((last || Math.hypot(px - x, py - y) >= FINEST) && (px !== x || py !== y)) {
      into.point(px, py);
      [x, y] = [px, py];
      length++;
    }
    if (last) into.end();
    else if (length >= LONGEST) {
      into.end();
      into.point(x, y);
      length = 1;
    }
  }
  return { way: way.done(), links: links.done() };
}

/** What of a view can be handed over and not copied. */
export function buffersIn({ cuts }: JobView): ArrayBuffer[] {
  return cuts.flatMap(({ way, links, marks }) => [way, links, ...marks.map(({ lines }) => lines)].flatMap(buffersOf));
}
