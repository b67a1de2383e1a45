import Flatbush from 'flatbush';
import type { ItemView } from '../workers/job-view.ts';

/** A shape of an item. */
export interface Hit {
  item: string;
  shape: number;
}

/** Shapes narrower than this, in pixels, are caught as if they were so wide. */
const CATCH = 12;
/** A shape that is hit inside counts as so much smaller than one whose box alone is hit. */
const INSIDE = 0.6;

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

  /** The shape at a place, mm: of those whose box it lies in the smallest. @param pixel mm */
  at(x: number, y: number, pixel: number): Hit | undefined {
    const reach = (CATCH / 2) * pixel;
    let best: number | undefined;
    let least = Infinity;
    for (const k of this.index?.search(x - reach, y - reach, x + reach, y + reach) ?? []) {
      const { minX, minY, maxX, maxY } = this.boxes[k];
      const [wide, high] = [Math.max(0, reach - (maxX - minX) / 2), Math.max(0, reach - (maxY - minY) / 2)];
      if (x < minX - wide || x > maxX + wide || y < minY - high || y > maxY + high) continue;
      const size = Math.max(maxX - minX, pixel) * Math.max(maxY - minY, pixel);
      const score = size * (this.inside(k, x, y) ? INSIDE : 1);
      if (score < least) [best, least] = [k, score];
    }
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

  private inside(k: number, x: number, y: number): boolean {
    const { item, shape } = this.shapes[k];
    const view = this.items.find(({ id }) => id === item)!;
    const { from, to, rule } = view.shapes[shape];
    const { points, starts, closed } = view.lines;
    let turns = 0;
    let crossings = 0;
    for (let line = from; line < to; line++) {
      if (!closed[line]) continue;
      for (let i = starts[line], j = starts[line + 1] - 1; i < starts[line + 1]; j = i++) {
        const [ax, ay, bx, by] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
        if (ay > y === by > y || x >= ax + ((y - ay) / (by - ay)) * (bx - ax)) continue;
        crossings++;
        turns += by > ay ? 1 : -1;
      }
    }
    return rule === 'evenodd' ? crossings % 2 === 1 : turns !== 0;
  }
}

function holds(loop: readonly { x: number; y: number }[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const [a, b] = [loop[j], loop[i]];
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside;
  }
  return inside;
}
