import type { Drawn } from './drawings.ts';
import { type Edges, toSegment } from './edges.ts';
import { say, radiusOf } from './finding.ts';
import { judgeFloor } from './judge-floor.ts';
import { judgeWalls } from './judge-walls.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';
import { Wood } from './wood.ts';

/** Cells of a judgement at most: a larger drawing gets larger cells. */
const MOST_CELLS = 120_000;

/** A step of heights as they are written, mm, in inches the coarser. */
const ROUNDED = 2.6e-3;

/** What is wrong in the wood as the program takes it, move by move: depth at once, slopes, rapid moves, direction, what is left. */
export function judgeWood(
  text: string,
  moves: Move[],
  drawn: Drawn,
  asked: Asked,
  edges: Edges,
  deepest: number,
): string[] {
  const found: string[] = [];
  const own = asked.diameter / 2;
  const { bounds } = edges;
  const room = asked.kind === 'profile' || asked.kind === 'inlay' ? 2 * own + asked.lead + 1 : 0.5;
  const box = {
    minX: bounds.minX - room,
    minY: bounds.minY - room,
    maxX: bounds.maxX + room,
    maxY: bounds.maxY + room,
  };
  const cell = Math.max(own / 8, 0.04, Math.sqrt(((box.maxX - box.minX) * (box.maxY - box.minY)) / MOST_CELLS));
  // On a page that is large for its bit such cells would see nothing; there the outline alone is judged.
  if (cell > own / 3) return [];
  // A start depth means that so much is gone already.
  const wood = new Wood(box, cell, -asked.startDepth);
  const swept = new Wood(box, cell, -asked.startDepth);
  const perPass = Math.max(asked.perPass, asked.lastPass);
  // What is taken at once beyond a pass is bitten off sideways from where the bit's middle has been before.
  const lateral = 1.06 * asked.finish + 0.03;
  const slope = Math.tan((asked.ramp * Math.PI) / 180);
  const gone: Move[] = [];
  let going: Move[] = [];
  let deep = new Map<Move, number>();
  let worstDeep: { drop: number; move: Move; far: number } | undefined;
  let steep: { move: Move; ratio: number } | undefined;
  // Where the bit's middle has no way to go along, it can only go straight down.
  let extent = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  let steepHere: typeof steep;
  let rapid: { move: Move; by: number } | undefined;
  let descent = { drop: 0, length: 0, wood: 0 };
  let [right, wrong] = [0, 0];
  let wrongMove: Move | undefined;
  const endOfTrack = () => {
    const wide = Math.hypot(extent.maxX - extent.minX, extent.maxY - extent.minY);
    const bit = steepHere ? 2 * radiusOf(asked, steepHere.move.bit) : 0;
    if (steepHere && wide > 0.06 * bit + 0.05 && steepHere.ratio > (steep?.ratio ?? 0)) steep = steepHere;
    steepHere = undefined;
    extent = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
    for (const [move, drop] of deep) {
      if (drop <= (worstDeep?.drop ?? 0)) continue;
      const z = Math.min(move.az, move.bz) + perPass + 0.01;
      let far = 0;
      for (const t of [0, 0.5, 1]) {
        const [x, y] = [move.ax + t * (move.bx - move.ax), move.ay + t * (move.by - move.ay)];
        let near = Infinity;
        for (const m of gone)
          // Straight down it has cleared its place as deep as it got.
          if ((m.ax === m.bx && m.ay === m.by ? m.bz : Math.max(m.az, m.bz)) <= z) {
            // A larger bit has cleared further to its side.
            const wider = radiusOf(asked, m.bit) - radiusOf(asked, move.bit);
            near = Math.min(near, toSegment(x, y, m.ax, m.ay, m.bx, m.by) - wider);
          }
        far = Math.max(far, near);
      }
      if (far > lateral) worstDeep = { drop, move, far };
    }
    deep = new Map();
    gone.push(...going);
    going = [];
  };
  const endOfDescent = (move: Move) => {
    if (descent.wood > 0.02 && asked.ramp > 0) {
      const ratio = (descent.drop - 0.004) / Math.max(1e-9, descent.length);
      if (ratio > 1.05 * slope + 0.01 && ratio > (steepHere?.ratio ?? 0)) steepHere = { move, ratio };
    }
    descent = { drop: 0, length: 0, wood: 0 };
  };
  for (const [index, move] of moves.entries()) {
    const radius = radiusOf(asked, move.bit);
    if (move.feed === 0) {
      endOfDescent(move);
      if (Math.min(move.az, move.bz) < -1e-3)
        wood.under(move, radius - 0.02, (index, z) => {
          const by = wood.height[index] - z;
          if (by > (rapid?.by ?? 5e-3)) rapid = { move, by };
        });
      if (move.bz > move.az) endOfTrack();
      continue;
    }
    if (Math.min(move.az, move.bz) > 0) continue;
    extent.minX = Math.min(extent.minX, move.bx);
    extent.maxX = Math.max(extent.maxX, move.bx);
    extent.minY = Math.min(extent.minY, move.by);
    extent.maxY = Math.max(extent.maxY, move.by);
    let taken = 0;
    wood.under(move, radius - 0.02, (index, z) => {
      const drop = wood.height[index] - z;
      if (drop > 0.02) taken++;
      if (drop > perPass + 0.01) deep.set(move, Math.max(deep.get(move) ?? 0, drop));
    });
    const length = Math.hypot(move.bx - move.ax, move.by - move.ay);
    if (move.bz < move.az - 1e-6) {
      // What an end mill's middle meets; a sliver at its rim is not what a ramp is for, and air is no wood.
      let top = -Infinity;
      const bottom = { ...move, ax: move.bx, ay: move.by };
      wood.under(bottom, radius / 2, (index) => (top = Math.max(top, wood.height[index])));
      const drop = Math.min(move.az, top) - move.bz;
      if (drop > 0.02 || (drop > 0 && descent.wood > 0)) {
        descent.drop += drop;
        descent.length += length;
        descent.wood = Math.max(descent.wood, drop);
      } else endOfDescent(move);
    } else {
      endOfDescent(move);
      // So short a piece of a gentle ramp is level as heights are written.
      const ofRamp = length * slope < ROUNDED && [moves[index - 1], moves[index + 1]].some((m) => m && m.feed > 0 && m.bz < m.az - 1e-6); // prettier-ignore
      if (taken > 1 && !ofRamp && move.bit === 1 && length > 1e-3 && asked.kind !== 'drill' && asked.side !== 'on') {
        const [mx, my] = [(move.ax + move.bx) / 2, (move.ay + move.by) / 2];
        const wall = edges.nearest(mx, my);
        const away = wall ? Math.hypot(wall[0] - mx, wall[1] - my) : Infinity;
        // Half of an inlay’s fit lies on each half, and what stands between its places thinner than a bit is rounded away.
        const [at, thin] = asked.kind === 'inlay' ? [radius - asked.fit / 2, 2 * radius] : [radius, 0];
        const beyond = (share: number) =>
          edges.inside(wall![0] + ((wall![0] - mx) / away) * share * thin, wall![1] + ((wall![1] - my) / away) * share * thin) !== (asked.side === 'outside'); // prettier-ignore
        if (wall && Math.abs(away - at) < 0.012 && !(thin > 0 && [0.25, 0.5, 0.75, 1].some(beyond))) {
          const [nx, ny] = [(mx - wall[0]) / away, (my - wall[1]) / away];
          const slot = edges.distance(mx + nx * 0.06, my + ny * 0.06) < radius + 0.05;
          const cross = (move.bx - move.ax) * (wall[1] - my) - (move.by - move.ay) * (wall[0] - mx);
          const along = Math.abs(cross) / away / length > 0.9;
          if (!slot && along) {
            if (cross < 0 === asked.climb) right += length;
            else {
              wrong += length;
              wrongMove ??= move;
            }
          }
        }
      }
    }
    wood.cut(move, radius);
    going.push(move);
    swept.cut(move, radius + 0.012);
  }
  endOfTrack();
  if (worstDeep)
    found.push(
      say(
        worstDeep.move,
        `takes ${worstDeep.drop.toFixed(3)} mm at once, ${perPass} a pass were asked for, ${worstDeep.far === Infinity ? 'far' : worstDeep.far.toFixed(2) + ' mm'} from what was cleared`,
      ),
    );
  if (steep)
    found.push(
      say(
        steep.move,
        `goes down in wood at ${((Math.atan(steep.ratio) * 180) / Math.PI).toFixed(1)}°, ${asked.ramp}° were asked for`,
      ),
    );
  if (rapid) found.push(say(rapid.move, `a rapid move ${rapid.by.toFixed(3)} mm into wood`));
  if (wrong > 1 && wrong > 0.02 * right)
    found.push(
      say(
        wrongMove!,
        `${wrong.toFixed(1)} mm of wall are cut against the direction asked for, ${right.toFixed(1)} mm along it`,
      ),
    );
  // The corners of an inlay are rounder than its bit by half of what each half is moved.
  if (asked.kind === 'pocket') found.push(...judgeFloor(swept, edges, deepest, own));
  if (asked.kind === 'inlay' && asked.side === 'inside')
    found.push(...judgeFloor(swept, edges, deepest, own + Math.abs(asked.fit) / 2, asked.fit / 2));
  if (asked.kind === 'profile') found.push(...judgeWalls(moves, swept, wood, drawn, asked, edges, deepest));
  for (const [, title, pass] of text.matchAll(/^\(((?:clear for )?pocket): .* ([\d.]+) (?:mm|in) a pass/gm))
    if (
      title.startsWith('clear') &&
      asked.options.includes('--units in') === false &&
      Number(pass) > perPass + 2e-3 &&
      Number(pass) > asked.perPass + 2e-3
    )
      found.push(`the heading says ${pass} mm a pass for ${title}`);
  return found;
}
