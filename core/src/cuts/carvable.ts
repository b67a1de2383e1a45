import type { Shape } from '../artwork/svg.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { medialAxis, type MedialAxis } from '../geometry/medial-axis.ts';
import { boxGroups } from '../geometry/box-groups.ts';
import { boundsOf, type Bounds } from '../geometry/outline.ts';
import { regionsOf, type Region } from '../geometry/regions.ts';
import { shapeKey, shiftLoops } from '../geometry/same-shape.ts';

/** A connected region with its medial axis, in coordinates of its own. */
export interface Carvable {
  region: Region;
  axis: MedialAxis;
}

/** What V-carving works on: each region that differs once, and where on the sheet the equal ones lie. */
export interface Carvables {
  regions: Carvable[];
  places: { region: number; dx: number; dy: number }[];
  /** Outlines that are not closed, and so are left out. */
  open: number;
}

/**
 * Unites shapes that may overlap and finds the medial axis of every connected region. Shapes, or groups
 * of overlapping ones, that are equal up to a shift, such as the letters of a text, are worked out once.
 *
 * @param step told after each group of shapes how much is done, 0 to 1; may be asynchronous to let others work.
 * @throws {TriangulationError} where outlines cross themselves beyond what uniting mends.
 */
export async function carvablesOf(
  shapes: readonly Shape[],
  clipper: Clipper,
  step: (share: number) => Promise<void> | void = () => {},
): Promise<Carvables> {
  const out: Carvables = { regions: [], places: [], open: 0 };
  const closed: { loops: Loops; rule: Shape['rule']; bounds: Bounds }[] = [];
  for (const shape of shapes) {
    const outlines = shape.outlines.filter((outline) => outline.closed && outline.points.length >= 6);
    out.open += shape.outlines.filter((outline) => !outline.closed).length;
    const bounds = boundsOf(outlines);
    if (bounds) closed.push({ loops: outlines.map((outline) => outline.points), rule: shape.rule, bounds });
  }
  const known = new Map<string, number[]>();
  const groups = boxGroups(closed.map(({ bounds }) => bounds));
  for (const [index, group] of groups.entries()) {
    const { minX, minY } = closed[group[0]].bounds;
    const key = group.map((k) => closed[k].rule + shapeKey(closed[k].loops, minX, minY)).join(' + ');
    let regions = known.get(key);
    if (!regions) {
      const united = group.map((k) => clipper.union(shiftLoops(closed[k].loops, -minX, -minY), closed[k].rule));
      const area = united.length === 1 ? united[0] : clipper.union(united.flat(), 'nonzero');
      regions = regionsOf(area).map((region) => out.regions.push({ region, axis: medialAxis(region) }) - 1);
      known.set(key, regions);
    }
    for (const region of regions) out.places.push({ region, dx: minX, dy: minY });
    await step((index + 1) / groups.length);
  }
  return out;
}
