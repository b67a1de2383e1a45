import Flatbush from 'flatbush';
import type { Outline } from '../geometry/outline.ts';

/** A line, with the places put into it at which it is bridged to another. */
export interface BridgedLine {
  points: ArrayLike<number>;
  closed: boolean;
}

interface Bridge {
  /** The two lines, the side of each on which the bridge stands, and the place there. */
  lines: [number, number];
  sides: [number, number];
  places: [number, number][];
  length: number;
}

/** Nearer than this loops touch, and are joined where they do, mm. */
const TOUCHING = 1e-6;

/**
 * Closed lines that come within `join` of each other, with the shortest bridges that make one of them (Kruskal 1956): a place
 * is put into both where a bridge stands. Open lines are as they were.
 *
 * @example two squares 0.3 mm apart, with a join of 0.4: one bridge of 0.3 mm, and a place more in each of them
 */
export function loopBridges(
  lines: readonly (Pick<Outline, 'closed'> & { points: ArrayLike<number> })[],
  join: number,
): { lines: BridgedLine[]; bridges: BridgedLine[] } {
  const sides = sidesOf(lines);
  if (join <= 0 || sides.length === 0) return { lines: [...lines], bridges: [] };
  const bush = new Flatbush(sides.length);
  for (const { ax, ay, bx, by } of sides)
    bush.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  bush.finish();
  const best = new Map<string, Bridge>();
  sides.forEach((side, s) => {
    const { ax, ay, bx, by } = side;
    const [minX, maxX] = [Math.min(ax, bx) - join, Math.max(ax, bx) + join];
    const [minY, maxY] = [Math.min(ay, by) - join, Math.max(ay, by) + join];
    for (const o of bush.search(minX, minY, maxX, maxY)) {
      const other = sides[o];
      if (o <= s || other.line === side.line) continue;
      const key = `${Math.min(side.line, other.line)} ${Math.max(side.line, other.line)}`;
      const bridge = between(side, other);
      if (bridge.length > join || bridge.length >= (best.get(key)?.length ?? Infinity)) continue;
      best.set(key, bridge);
    }
  });
  const root = lines.map((_, k) => k);
  const rootOf = (k: number): number => (root[k] === k ? k : (root[k] = rootOf(root[k])));
  const kept = [...best.values()]
    .sort((a, b) => a.length - b.length)
    .filter(({ lines: [a, b], length }) => {
      const [ra, rb] = [rootOf(a), rootOf(b)];
      if (ra === rb) return false;
      root[ra] = rb;
      return length > TOUCHING;
    });
  return {
    lines: lines.map((line, k) => ({ ...line, points: withPlaces(line.points, k, kept) })),
    bridges: kept.map(({ places }) => ({ points: Float64Array.from(places.flat()), closed: false })),
  };
}

interface Side {
  line: number;
  side: number;
  ax: number;
  ay: number;
  bx: number;
  by: number;
}

function sidesOf(lines: readonly (Pick<Outline, 'closed'> & { points: ArrayLike<number> })[]): Side[] {
  return lines.flatMap(({ points, closed }, line): Side[] => {
    const n = points.length / 2;
    if (!closed || n < 3) return [];
    return Array.from({ length: n }, (_, side) => {
      const [i, k] = [2 * side, 2 * ((side + 1) % n)];
      return { line, side, ax: points[i], ay: points[i + 1], bx: points[k], by: points[k + 1] };
    });
  });
}

/** The shortest way from a side to another that it does not cross: it begins or ends at an end of one of them. */
function between(a: Side, b: Side): Bridge {
  const ways = [
    [a, b.ax, b.ay, true],
    [a, b.bx, b.by, true],
    [b, a.ax, a.ay, false],
    [b, a.bx, a.by, false],
  ] as const;
  const found = ways.map(([side, x, y, onFirst]) => {
    const [dx, dy] = [side.bx - side.ax, side.by - side.ay];
    const long = dx * dx + dy * dy;
    const t = long > 0 ? Math.max(0, Math.min(1, ((x - side.ax) * dx + (y - side.ay) * dy) / long)) : 0;
    const on: [number, number] = [side.ax + t * dx, side.ay + t * dy];
    const end: [number, number] = [x, y];
    return { places: onFirst ? [on, end] : [end, on], length: Math.hypot(on[0] - x, on[1] - y) };
  });
  const [shortest] = found.sort((p, q) => p.length - q.length);
  return { lines: [a.line, b.line], sides: [a.side, b.side], ...shortest };
}

/** The points of a line, with the places at which its bridges stand. */
function withPlaces(points: ArrayLike<number>, line: number, bridges: readonly Bridge[]): ArrayLike<number> {
  const own = bridges.flatMap(({ lines, sides, places }) =>
    lines.flatMap((of, end) => (of === line ? [{ side: sides[end], x: places[end][0], y: places[end][1] }] : [])),
  );
  if (own.length === 0) return points;
  const out: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    out.push(points[i], points[i + 1]);
    const from = ({ x, y }: { x: number; y: number }) => Math.hypot(x - points[i], y - points[i + 1]);
    const here = own.filter(({ side }) => side === i / 2).sort((p, q) => from(p) - from(q));
    for (const { x, y } of here) out.push(x, y);
  }
  return Float64Array.from(out);
}
