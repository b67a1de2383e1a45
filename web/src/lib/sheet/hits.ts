import Flatbush from 'flatbush';
import type { ItemView } from '../workers/job-view.ts';

/** A shape of an item. */
export interface Hit {
  item: string;
  shape: number;
}

/** An outline is caught from so far away, pixels. */
const CATCH = 6;

const BESIDE = 1e6;

/** Finds shapes of a sheet by places. */
export class Hits {
  private readonly index: Flatbush | undefined;
  private readonly shapes: Hit[] = [];
  private readonly boxes: { minX: number; minY: number; maxX: number; maxY: number }[] = [];

  constructor(private readonly items: readonly ItemView[]) {
    for (const { id, shapes } of items)
      shapes.forEach(({ box }, shape) => {
        this.shapes.push({ item: id, shape });
        this.boxes.push(box);
      });
    if (this.shapes.length === 0) return;
    this.index = new Flatbush(this.shapes.length);
    for (const { minX, minY, maxX, maxY } of this.boxes) this.index.add(minX, minY, maxX, maxY);
    this.index.finish();
  }

  /**
   * The shape at a place, mm: the one whose outline lies nearest, where one does within a few pixels; else the smallest of
   * those whose outlines go round the place. @param pixel mm
   */
  at(x: number, y: number, pixel: number): Hit | undefined {
    const reach = CATCH * pixel;
    const found = this.index?.search(x - reach, y - reach, x + reach, y + reach) ?? [];
    let nearest: number | undefined;
    let near = reach;
    let around: number | undefined;
    let least = Infinity;
    for (const k of found) {
      const { off, area } = this.seenFrom(k, x, y);
      // Of two that lie on each other the smaller.
      if (off < near || (off === near && nearest !== undefined && area < this.seenFrom(nearest, x, y).area))
        [nearest, near] = [k, off];
      if (area < least) [around, least] = [k, area];
    }
    const best = nearest ?? around;
    return best === undefined ? undefined : this.shapes[best];
  }

  /** The shapes that lie within a loop drawn on the sheet, mm; for a box those that it holds whole. */
  within(loop: readonly { x: number; y: number }[]): Hit[] {
    const xs = loop.map(({ x }) => x);
    const ys = loop.map(({ y }) => y);
    const found = this.index?.search(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)) ?? [];
    return found
      .toSorted((a, b) => a - b)
      .filter((k) => {
        const { minX, minY, maxX, maxY } = this.boxes[k];
        return [[minX, minY], [maxX, minY], [maxX, maxY], [minX, maxY]].every(([x, y]) => holds(loop, x, y)); // prettier-ignore
      })
      .map((k) => this.shapes[k]);
  }

  /** The next shape from one in a direction, by the middles of their boxes; without one the first. */
  next(from: Hit | undefined, dx: number, dy: number): Hit | undefined {
    const at = from && this.shapes.findIndex(({ item, shape }) => item === from.item && shape === from.shape);
    if (at === undefined || at < 0) return this.shapes[0];
    const middle = (k: number) => ({ x: (this.boxes[k].minX + this.boxes[k].maxX) / 2, y: (this.boxes[k].minY + this.boxes[k].maxY) / 2 }); // prettier-ignore
    const here = middle(at);
    let best: number | undefined;
    let least = Infinity;
    for (let k = 0; k < this.shapes.length; k++) {
      const there = middle(k);
      const along = (there.x - here.x) * dx + (there.y - here.y) * dy;
      const across = Math.abs((there.x - here.x) * dy - (there.y - here.y) * dx);
      if (k === at || along <= 1e-6) continue;
      // What lies rather beside than in that direction comes last.
      const far = along + 2 * across + (across > along ? BESIDE : 0);
      if (far < least) [best, least] = [k, far];
    }
    return this.shapes[best ?? at];
  }

  /** The shape that comes so many later in the order of the drawing, or earlier; at its ends the last or the first. */
  after(from: Hit | undefined, by: number): Hit | undefined {
    const at = from ? this.shapes.findIndex(({ item, shape }) => item === from.item && shape === from.shape) : 0;
    return this.shapes[Math.max(0, Math.min(this.shapes.length - 1, at + by))];
  }

  /** How far a shape's outlines are off a place, mm, and what the smallest of them that goes round it holds, mm²; none is infinite. */
  private seenFrom(k: number, x: number, y: number): { off: number; area: number } {
    const { item, shape } = this.shapes[k];
    const view = this.items.find(({ id }) => id === item)!;
    const { from, to } = view.shapes[shape];
    const { points, starts, closed } = view.lines;
    let off = Infinity;
    let area = Infinity;
    for (let line = from; line < to; line++) {
      const [first, end] = [starts[line], starts[line + 1]];
      let inside = false;
      let twice = 0;
      for (let i = first, j = end - 1; i < end; j = i++) {
        const [ax, ay, bx, by] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
        // An open line does not go back to its start; a single point is one all the same.
        if (i > first || closed[line] || end - first === 1) off = Math.min(off, toStretch(x, y, ax, ay, bx, by));
        if (!closed[line]) continue;
        twice += ax * by - bx * ay;
        if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
      }
      if (inside) area = Math.min(area, Math.abs(twice) / 2);
    }
    return { off, area };
  }
}

/** How far a place is off a straight stretch. */
function toStretch(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / square));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

function holds(loop: readonly { x: number; y: number }[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const [a, b] = [loop[j], loop[i]];
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside;
  }
  return inside;
}
