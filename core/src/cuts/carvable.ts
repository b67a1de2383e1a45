import type { Shape } from '../artwork/svg.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { medialAxis, type MedialAxis } from '../geometry/medial-axis.ts';
import { boundsOf, type Bounds } from '../geometry/outline.ts';
import { regionsOf, type Region } from '../geometry/regions.ts';

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
 * Shapes count as equal when their points fall onto the same grid of this width, mm, after a shift. It is no round
 * number: points of type often lie just between two marks of a round one, and rounding noise would part equals.
 */
const SAME = 1e-4 * (Math.PI / 3);

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
  const groups = groupsOf(closed.map(({ bounds }) => bounds));
  for (const [index, group] of groups.entries()) {
    const { minX, minY } = closed[group[0]].bounds;
    const key = group.map((k) => keyOf(closed[k], minX, minY)).join(' + ');
    let regions = known.get(key);
    if (!regions) {
      const united = group.map((k) => clipper.union(shifted(closed[k].loops, -minX, -minY), closed[k].rule));
      const area = united.length === 1 ? united[0] : clipper.union(united.flat(), 'nonzero');
      regions = regionsOf(area).map((region) => out.regions.push({ region, axis: medialAxis(region) }) - 1);
      known.set(key, regions);
    }
    for (const region of regions) out.places.push({ region, dx: minX, dy: minY });
    await step((index + 1) / groups.length);
  }
  return out;
}

function shifted(loops: Loops, dx: number, dy: number): Loops {
  return loops.map((loop) => {
    const out = new Float64Array(loop.length);
    for (let i = 0; i < loop.length; i += 2) {
      out[i] = loop[i] + dx;
      out[i + 1] = loop[i + 1] + dy;
    }
    return out;
  });
}

function keyOf({ loops, rule }: { loops: Loops; rule: string }, x: number, y: number): string {
  const parts: (string | number)[] = [rule];
  for (const loop of loops) {
    parts.push('/');
    for (let i = 0; i < loop.length; i += 2)
      parts.push(Math.round((loop[i] - x) / SAME), Math.round((loop[i + 1] - y) / SAME));
  }
  return parts.join(' ');
}

/** Numbers of boxes that overlap, directly or by way of others, swept from left to right. */
function groupsOf(boxes: readonly Bounds[]): number[][] {
  const parent = boxes.map((_, i) => i);
  const root = (i: number) => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  const order = boxes.map((_, i) => i).sort((a, b) => boxes[a].minX - boxes[b].minX);
  let open: number[] = [];
  for (const i of order) {
    const box = boxes[i];
    open = open.filter((k) => boxes[k].maxX >= box.minX);
    for (const k of open) if (boxes[k].maxY >= box.minY && boxes[k].minY <= box.maxY) parent[root(i)] = root(k);
    open.push(i);
  }
  const groups = new Map<number, number[]>();
  boxes.forEach((_, i) => {
    const r = root(i);
    const group = groups.get(r);
    if (group) group.push(i);
    else groups.set(r, [i]);
  });
  return [...groups.values()];
}
