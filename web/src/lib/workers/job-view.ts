import type { PlacedItem } from '@kerbe/core/artwork/place';
import type { CutKind, SheetMark } from '@kerbe/core/cuts/kind';
import type { Bounds } from '@kerbe/core/geometry/outline';
import type { BitTime, CutResult } from '@kerbe/core/sequence/cut-result';
import type { Path } from '@kerbe/core/motion/path';
import type { Remark } from '@kerbe/core/cuts/remark';

/** A shape as the sheet draws it: path data in mm with y down from the sheet's origin (the sheet flips it). */
export interface ShapeView {
  name: string;
  /** The layer of the drawing that it lies in, where that has a name. */
  layer?: string;
  /** What cuts hold on to it by. */
  mark: string;
  d: string;
  rule: 'nonzero' | 'evenodd';
  open: boolean;
}

export interface ItemView {
  id: string;
  shapes: ShapeView[];
  bounds?: Bounds;
  problem?: string;
  nodes: PlacedItem['nodes'];
  notes: string[];
}

/** A way of the bit as path data: what is cut, and the moves between. */
export interface PathView {
  cutPath: string;
  linkPath: string;
}

/** What a cut came to, without its path's points. */
export type CutView = Omit<CutResult, 'path'> &
  PathView & {
    /** What it shows on the sheet besides its way, as path data. */
    marks: { look: SheetMark['look']; word: string; always: boolean; d: string }[];
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
  /** What could not be followed. */
  notes: string[];
}

/** What the worker tells the page of a computed job. */
export interface JobView {
  items: ItemView[];
  cuts: CutView[];
  minutes: number;
  /** Spent between the cuts and on the way back, minutes; a part of `minutes`. */
  besideMinutes: number;
  bitChanges: number;
  bits: BitTime[];
  remarks: Remark[];
  milliseconds: number;
}

const n = (value: number) => Math.round(value * 1000) / 1000;

export function itemView({ id, shapes, bounds, problem, nodes, notes }: PlacedItem): ItemView {
  return {
    id,
    bounds,
    problem,
    nodes,
    notes,
    shapes: shapes.map((shape) => ({
      name: shape.name,
      layer: shape.layer,
      mark: shape.mark,
      rule: shape.rule,
      open: shape.outlines.some((outline) => !outline.closed),
      d: shape.outlines.map(({ points, closed }) => lineData(points, closed)).join(''),
    })),
  };
}

/** @param kind the kind of the cut that the part belongs to. */
export function cutView({ path, ...rest }: CutResult, kind: CutKind | undefined): CutView {
  // Of a bit that clears its cut's kind knows nothing.
  const marks = rest.facts === null ? [] : (kind?.marks?.(rest) ?? []);
  return {
    ...rest,
    ...pathView(path),
    marks: marks
      .map(({ look, word, always, outlines, circles }) => ({
        look,
        word,
        always,
        d: [
          ...outlines.map(({ points, closed }) => lineData(points, closed)),
          ...circles.map(({ x, y, radius }) => circleData(x, y, radius)),
        ].join(''),
      }))
      .filter(({ d }) => d !== ''),
    points: path.feed.length,
  };
}

function lineData(points: ArrayLike<number>, closed: boolean): string {
  let d = `M${n(points[0])} ${n(points[1])}`;
  for (let i = 2; i < points.length; i += 2) d += `L${n(points[i])} ${n(points[i + 1])}`;
  return closed ? d + 'z' : d;
}

/** A circle as path data. */
export function circleData(x: number, y: number, r: number): string {
  return `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 0 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-2 * r)} 0z`;
}

/** A path seen from above; points nearer than a twentieth of a millimetre are left out of the picture. */
export function pathView({ xyz, rapid }: Path): PathView {
  let cutPath = '';
  let linkPath = '';
  let [x, y] = [NaN, NaN];
  let was: 'cut' | 'link' | undefined;
  for (let i = 1; i < rapid.length; i++) {
    const kind = rapid[i] ? 'link' : 'cut';
    const last = i + 1 === rapid.length || rapid[i + 1] !== rapid[i];
    const step = (px: number, py: number, command: string) => {
      if (kind === 'cut') cutPath += `${command}${n(px)} ${n(py)}`;
      else linkPath += `${command}${n(px)} ${n(py)}`;
    };
    if (kind !== was) {
      [x, y] = [xyz[3 * i - 3], xyz[3 * i - 2]];
      step(x, y, 'M');
    }
    was = kind;
    const [px, py] = [xyz[3 * i], xyz[3 * i + 1]];
    if (!last && Math.hypot(px - x, py - y) < 0.05) continue;
    if (px === x && py === y) continue;
    step(px, py, 'L');
    [x, y] = [px, py];
  }
  return { cutPath, linkPath };
}
