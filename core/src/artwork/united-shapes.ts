import { boxGroups } from '../geometry/box-groups.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { type Bounds, boundsOf, coveredBy } from '../geometry/outline.ts';
import { OVERLAP, sharedByPairs } from '../geometry/shared-by-pairs.ts';
import { sharedLines } from '../geometry/shared-lines.ts';
import { shapeKey, shiftLoops } from '../geometry/same-shape.ts';
import type { Shape } from './shape.ts';

/** What shapes cover: each piece that differs once, in coordinates of its own, and where the equal ones lie. */
export interface UnitedShapes {
  pieces: Loops[];
  places: { piece: number; dx: number; dy: number }[];
  /** Outlines that are not closed, and so are left out. */
  open: number;
  /** Pieces whose shapes overlap, and are one there. */
  overlaps: number;
  /** How much of their lines others share that do not overlap, and are one there, mm. */
  touching: number;
}

/**
 * Unites shapes by their fill rules in groups that may overlap. Groups that are equal up to a shift, such as the letters
 * of a text, are united once.
 *
 * @example two equal squares side by side: one piece, two places
 */
export function unitedShapes(shapes: readonly Shape[], clipper: Clipper): UnitedShapes {
  const out: UnitedShapes = { pieces: [], places: [], open: 0, overlaps: 0, touching: 0 };
  const overlapping = new Set<number>();
  const touching: number[] = [];
  const closed: { loops: Loops; rule: Shape['rule']; bounds: Bounds }[] = [];
  for (const { outlines, rule } of shapes) {
    const usable = outlines.filter((outline) => outline.closed && outline.points.length >= 6);
    out.open += outlines.filter((outline) => !outline.closed).length;
    const bounds = boundsOf(usable);
    if (bounds) closed.push({ loops: usable.map(({ points }) => points), rule, bounds });
  }
  const known = new Map<string, number>();
  for (const group of boxGroups(closed.map(({ bounds }) => bounds))) {
    const { minX, minY } = closed[group[0]].bounds;
    const key = group.map((k) => closed[k].rule + shapeKey(closed[k].loops, minX, minY)).join(' + ');
    let piece = known.get(key);
    if (piece === undefined) {
      const parts = group.map((k) => clipper.union(shiftLoops(closed[k].loops, -minX, -minY), closed[k].rule));
      piece = out.pieces.push(parts.length === 1 ? parts[0] : clipper.union(parts.flat(), 'nonzero')) - 1;
      known.set(key, piece);
      if (parts.length > 1 && coveredBy(parts.flat()) - coveredBy(out.pieces[piece]) > OVERLAP) {
        overlapping.add(piece);
        touching[piece] = sharedByPairs(parts, clipper);
      } else touching[piece] = sharedLines(parts, out.pieces[piece]);
    }
    out.touching += touching[piece] ?? 0;
    if (overlapping.has(piece)) out.overlaps++;
    out.places.push({ piece, dx: minX, dy: minY });
  }
  return out;
}

/** What the closed outlines of some shapes cover. */
export interface DrawnArea {
  /** On the sheet. */
  area: Loops;
  /** Outlines that are open, and so left out. */
  open: number;
  /** Places where shapes overlap, which are one there. */
  overlaps: number;
  /** How much of their lines shapes share that do not overlap, and are one there, mm. */
  touching: number;
}

/** All that shapes cover, on the sheet. */
export function areaOf(shapes: readonly Shape[], clipper: Clipper): DrawnArea {
  const { pieces, places, open, overlaps, touching } = unitedShapes(shapes, clipper);
  return { area: places.flatMap(({ piece, dx, dy }) => shiftLoops(pieces[piece], dx, dy)), open, overlaps, touching };
}
