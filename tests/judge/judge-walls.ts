import type { Drawn } from './drawings.ts';
import { type Edges, toSegment } from './edges.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';
import type { Wood } from './wood.ts';

/** Every wall that the bit can follow is cut to depth, but for tabs; and these stand as long and as high as asked for. */
export function judgeWalls(
  moves: Move[],
  swept: Wood,
  wood: Wood,
  drawn: Drawn,
  asked: Asked,
  edges: Edges,
  deepest: number,
): string[] {
  const found: string[] = [];
  const { tabs } = asked;
  const radius = asked.diameter / 2;
  const through = tabs.count > 0 && asked.skin === 0;
  // An outline with a narrow neck, or that crosses itself, is gone round in several loops, each with its tabs.
  const ways = loopsOf(moves, deepest);
  const ceiling = -(asked.depth - tabs.height);
  for (const loop of drawn.loops) {
    const near = (asked.side === 'on' ? 0 : radius) + asked.lead + 0.05;
    const own = ways.filter((way) => way.some(([x, y]) => distanceTo(loop, x, y) < near));
    const loops = Math.max(1, own.length);
    const high: boolean[] = [];
    const heights: number[] = [];
    const places: [number, number][] = [];
    /** Where the bit could not go along between this place and the one before. */
    const broken: boolean[] = [];
    let away = false;
    let step = 0;
    let missed = 0;
    let at: [number, number] = [0, 0];
    const every = Math.max(0.1, swept.cell);
    for (let i = 0; i < loop.length; i++) {
      const [ax, ay] = loop[i];
      const [bx, by] = loop[(i + 1) % loop.length];
      const length = Math.hypot(bx - ax, by - ay);
      if (!edges.has([ax, ay], [bx, by])) continue;
      for (let s = every - step; s < length; s += every) {
        const [wx, wy] = [ax + ((bx - ax) * s) / length, ay + ((by - ay) * s) / length];
        const [nx, ny] = [-(by - ay) / length, (bx - ax) / length];
        const inward = edges.inside(wx + nx * 1e-4, wy + ny * 1e-4) === (asked.side === 'inside');
        const off = asked.side === 'on' ? 0 : inward ? radius : -radius;
        const [px, py] = [wx + nx * off, wy + ny * off];
        if (
          asked.side !== 'on' &&
          (edges.distance(px, py) < radius - 1e-3 || edges.inside(px, py) !== (asked.side === 'inside'))
        ) {
          away = true;
          continue;
        }
        broken.push(away);
        away = false;
        const z = wood.at(px, py);
        high.push(z > -deepest + 0.02);
        heights.push(z);
        const before = places.at(-1);
        places.push([px, py]);
        if (z > -deepest + 0.02) {
          // Along the bit's way or along the wall, whichever is shorter: a tab is as long on one of them.
          missed += before ? Math.min(every, Math.hypot(px - before[0], py - before[1])) : every;
          at = [px, py];
        }
      }
      step = (step + length) % every;
    }
    const perimeter = high.length * every;
    const most = through ? loops * tabs.count * (tabs.length + 4 * every) : 0;
    if (missed > most + 2 * every)
      found.push(
        `${missed.toFixed(2)} mm of wall stand, ${most.toFixed(2)} are tabs, at ${at.map((v) => v.toFixed(2)).join(', ')}`,
      );
    if (!through || perimeter < 4 * (tabs.length + asked.diameter) || deepest < tabs.height) continue;
    const first = high.indexOf(false);
    if (first < 0) continue;
    const runs: number[][] = [];
    for (let k = 0; k < high.length; k++) {
      const index = (first + k) % high.length;
      if (!high[index]) continue;
      if (k > 0 && high[(first + k - 1) % high.length]) runs[runs.length - 1].push(index);
      else runs.push([index]);
    }
    for (const run of runs) {
      // What stands at the part, along its edge.
      const long = run.length * every;
      // Where the bit cannot go along, as in a corner that is narrower than it, no part of the edge is asked for.
      const whole = ![...run, (run[run.length - 1] + 1) % high.length].some((k) => broken[k]);
      // Where another stretch of outline passes an end of the tab, the bit goes there, too: half of it stands at least.
      const apart = Math.ceil(tabs.length / every);
      const crowded = [run[0], run[run.length - 1]].some((k) => {
        const [x, y] = places[k];
        const near = asked.diameter + (asked.side === 'on' ? 0 : radius) + 0.1;
        return (
          drawn.loops.some((other) => other !== loop && distanceTo(other, x, y) < near) ||
          places.some(([px, py], j) => {
            const between = Math.abs(j - k);
            const along = Math.min(between, places.length - between);
            const across = Math.hypot(px - x, py - y);
            // Round the tip of a slit it is near in no time.
            return across < near && (along > apart || along * every > 3 * across + 2 * every);
          })
        );
      });
      // What such a bit leaves of the tab's other end is a scrap beside it.
      const scrap =
        crowded &&
        runs.some(
          (other) =>
            other !== run && other.length * every > tabs.length / 2 && stepsBetween(run, other, high.length) < apart,
        );
      const least = crowded ? tabs.length / 2 : tabs.length;
      // Where outlines cross, a tab goes round the corner from one to the other, and the bit past its bend.
      const bent = [run[0], run[run.length - 1]].some((k) => drawn.loops.some((other) => other !== loop && distanceTo(other, ...places[k]) < radius + every)); // prettier-ignore
      if (whole && !bent && !scrap && run.length > 2 && long < least - 0.1 - 2 * every - swept.cell)
        found.push(
          `a tab is ${long.toFixed(2)} mm long, ${tabs.length} were asked for, at ${places[run[0]].map((v) => v.toFixed(2)).join(', ')}`,
        );
      const middle = run.slice(Math.floor(run.length * 0.2), Math.ceil(run.length * 0.8));
      const lowest = Math.min(...middle.map((k) => heights[k]));
      if (lowest < ceiling - 0.02)
        found.push(`a tab is ${(lowest + asked.depth).toFixed(2)} mm high, ${tabs.height} were asked for`);
    }
  }
  return [...new Set(found)].slice(0, 4);
}

function distanceTo(loop: readonly (readonly [number, number])[], x: number, y: number): number {
  let nearest = Infinity;
  loop.forEach(([ax, ay], k) => {
    const [bx, by] = loop[(k + 1) % loop.length];
    nearest = Math.min(nearest, toSegment(x, y, ax, ay, bx, by));
  });
  return nearest;
}

/** How many places lie between two runs of them round a loop of `count`. */
function stepsBetween(a: readonly number[], b: readonly number[], count: number): number {
  const after = (first: readonly number[], second: readonly number[]) =>
    (second[0] - first[first.length - 1] + count) % count;
  return Math.min(after(a, b), after(b, a));
}

/** The ways at depth between lifts: one along another that was gone before is that one again. */
function loopsOf(moves: readonly Move[], deepest: number): [number, number][][] {
  const all: [number, number][][] = [];
  let lifted = true;
  for (const { feed, bx, by, bz } of moves) {
    if (feed === 0) lifted = true;
    else if (bz < -deepest + 0.02) {
      if (lifted) all.push([[bx, by]]);
      else all.at(-1)?.push([bx, by]);
      lifted = false;
    }
  }
  const ways: [number, number][][] = [];
  for (const way of all) {
    const on = (earlier: [number, number][]) => way.filter(([x, y]) => distanceTo(earlier, x, y) < 0.05).length;
    if (!ways.some((earlier) => on(earlier) > way.length / 2)) ways.push(way);
  }
  return ways;
}
