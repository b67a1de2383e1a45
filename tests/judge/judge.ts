import type { Drawn } from './drawings.ts';
import { Edges, toSegment } from './edges.ts';
import { type Move, movesOf } from './moves.ts';
import type { Asked } from './settings.ts';
import { Wood } from './wood.ts';

/** Nothing outside is cut by more than this, mm. */
const GOUGE = 0.01;
/** How far a place may lie from where a bit could reach it, and still be asked for, mm. */
const SLIVER = 0.03;
/** Cells of a judgement at most: a larger drawing gets larger cells. */
const MOST_CELLS = 120_000;

/** What is wrong with a program for a drawing and settings: one line a finding, none where all is right. */
export function judge(text: string, drawn: Drawn, asked: Asked): string[] {
  const moves = placed(movesOf(text), asked, drawn);
  if (asked.kind === 'v-carve') return judgeCarving(moves, drawn, asked);
  if (asked.kind === 'drill') return judgeHoles(moves, drawn, asked);
  return judgeFlat(text, moves, drawn, asked);
}

export function placed(moves: Move[], { options }: Asked, { width, height }: Drawn): Move[] {
  if (!options.includes('--zero centre')) return moves;
  const [dx, dy] = [width / 2, height / 2];
  return moves.map((m) => ({ ...m, ax: m.ax + dx, ay: m.ay + dy, bx: m.bx + dx, by: m.by + dy }));
}

const say = (move: Move, what: string) => `line ${move.line}: ${what}`;

/** Radius of the bit with a number: the cut's own is the first. */
const radiusOf = ({ diameter, clear }: Asked, bit: number) => (bit === 1 ? diameter : clear[bit - 2]) / 2;

function judgeFlat(text: string, moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = judgeHeading(text, moves, asked);
  const largest = Math.max(asked.diameter, ...asked.clear) / 2;
  const edges = new Edges(drawn.loops, 2 * largest + 1);
  const outside = asked.kind === 'profile' && asked.side === 'outside';
  const on = asked.kind === 'profile' && asked.side === 'on';
  const thick = asked.depth;
  const deepest = asked.skin > 0 ? Math.min(asked.depth, thick - asked.skin) : asked.depth;
  let worst: { by: number; move: Move } | undefined;
  let wrongSide: Move | undefined;
  let low = 0;
  for (const move of moves) {
    const z = Math.min(move.az, move.bz);
    low = Math.min(low, z);
    if (z > -1e-3) continue;
    const radius = radiusOf(asked, move.bit);
    const [mx, my] = [(move.ax + move.bx) / 2, (move.ay + move.by) / 2];
    if (on) {
      if (asked.lead > 0) continue;
      const by = edges.distance(mx, my);
      if (by > (worst?.by ?? GOUGE)) worst = { by, move };
      continue;
    }
    const by = radius - edges.fromMove(move.ax, move.ay, move.bx, move.by, radius);
    if (by > (worst?.by ?? GOUGE)) worst = { by, move };
    if (edges.inside(mx, my) === outside) wrongSide ??= move;
  }
  if (worst) found.push(say(worst.move, `cuts ${worst.by.toFixed(4)} mm beyond the outline`));
  if (wrongSide) found.push(say(wrongSide, 'runs on the wrong side of the outline'));
  if (low < -deepest - 2e-3) found.push(`cuts ${-low} mm deep, ${deepest} were asked for`);
  if (moves.length && low > -deepest + 2e-3) found.push(`cuts only ${-low} mm deep, ${deepest} were asked for`);
  found.push(...judgeWood(text, moves, drawn, asked, edges, deepest));
  if (asked.kind === 'profile') found.push(...judgeOrder(moves, drawn, asked, deepest));
  return found;
}

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
    if (steepHere && wide > 0.06 * asked.diameter + 0.05 && steepHere.ratio > (steep?.ratio ?? 0)) steep = steepHere;
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
  for (const move of moves) {
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
      if (taken > 1 && move.bit === 1 && length > 1e-3 && asked.kind !== 'drill' && asked.side !== 'on') {
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

/** What is cut out within something else that is cut out comes before it: then the work is held by what is left. */
function judgeOrder(moves: Move[], { loops }: Drawn, { side, diameter }: Asked, deepest: number): string[] {
  const segments = loops.reduce((sum, loop) => sum + loop.length, 0);
  const deep = moves.filter((m) => m.feed > 0 && Math.max(m.az, m.bz) < -deepest + 2e-3);
  if (loops.length < 2 || deep.length * segments > 3e6) return [];
  /** Where in the program each is gone along: the middle counts, since outlines that touch share a piece. */
  const along = loops.map((): number[] => []);
  const middle = (list: readonly number[]) => list[list.length >> 1];
  // A way along both, where the bit has no room beside it, belongs to neither.
  const together = new Set<string>();
  let way = new Set<number>();
  deep.forEach((m, at) => {
    if (at > 0 && (m.ax !== deep[at - 1].bx || m.ay !== deep[at - 1].by)) way = new Set();
    let [best, which] = [Infinity, -1];
    loops.forEach((loop, k) => {
      for (let i = 0; i < loop.length; i++) {
        const [[ax, ay], [bx, by]] = [loop[i], loop[(i + 1) % loop.length]];
        const d = toSegment((m.ax + m.bx) / 2, (m.ay + m.by) / 2, ax, ay, bx, by);
        if (d < best) [best, which] = [d, k];
      }
    });
    // A lead is on its way to the outline, and may be nearer to another, or cross it.
    const wanted = side === 'on' ? 0 : diameter / 2;
    const ends = [toLoop(loops[which], m.ax, m.ay), toLoop(loops[which], m.bx, m.by)];
    if ([best, ...ends].some((d) => Math.abs(d - wanted) > 0.05)) return;
    way.add(which);
    for (const a of way) for (const b of way) together.add(`${a} ${b}`);
    along[which].push(at);
  });
  for (let outer = 0; outer < loops.length; outer++)
    for (let inner = 0; inner < loops.length; inner++) {
      if (together.has(`${outer} ${inner}`) || !along[inner].length || !along[outer].length) continue;
      // Outlines that cross or touch are one for who cuts them.
      if (!loops[inner].every(([x, y]) => within(loops[outer], x, y) && toLoop(loops[outer], x, y) > 0.1)) continue;
      if (middle(along[inner]) > middle(along[outer]))
        return [say(deep[middle(along[inner])], 'cuts out an inner outline after an outer one')];
    }
  return [];
}

/** Distance from a place to a loop. */
function toLoop(loop: Drawn['loops'][number], x: number, y: number): number {
  return loop.reduce((least, [ax, ay], i) => {
    const [bx, by] = loop[(i + 1) % loop.length];
    return Math.min(least, toSegment(x, y, ax, ay, bx, by));
  }, Infinity);
}

/** Even-odd test against one loop. */
function within(loop: Drawn['loops'][number], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0; i < loop.length; i++) {
    const [[ax, ay], [bx, by]] = [loop[i], loop[(i + 1) % loop.length]];
    if (ay > y !== by > y && x < ax + ((bx - ax) * (y - ay)) / (by - ay)) inside = !inside;
  }
  return inside;
}

/** The heading says the depth and the feeds that the program has. */
export function judgeHeading(text: string, moves: Move[], { options }: Asked): string[] {
  const found: string[] = [];
  const unit = options.includes('--units in') ? 25.4 : 1;
  const lines = [...text.matchAll(/^\(.*: .*?, ([\d.]+) (?:mm|in) deep, feed ([\d.]+) .*?, plunge ([\d.]+) /gm)];
  if (lines.length === 0) return ['has no heading'];
  const fed = moves.filter((m) => m.feed > 0);
  const low = fed.reduce((least, m) => Math.min(least, m.bz), 0);
  const deep = Math.max(...lines.map((line) => Number(line[1]) * unit));
  if (Math.abs(deep + low) > 0.0006 * unit + 1e-3) found.push(`the heading says ${deep} mm deep, and it is ${-low}`);
  // A slope is fed no faster downwards than a plunge, and so at something between the two.
  const said = lines.map((line) => [Number(line[2]), Number(line[3])].map((f) => f * unit).sort((a, b) => a - b));
  const odd = fed.find(({ feed }) => !said.some(([least, most]) => feed >= least - unit && feed <= most + unit));
  if (odd) found.push(say(odd, `feeds ${odd.feed} mm/min, which no heading says`));
  return found;
}

/** All that the smallest bit can reach is cut to the floor. @param beyond how far past the outline the wall is, mm. */
function judgeFloor(swept: Wood, edges: Edges, deepest: number, radius: number, beyond = 0): string[] {
  const reachable = new Uint8Array(swept.height.length);
  for (let index = 0; index < reachable.length; index++) {
    const [x, y] = swept.place(index);
    if (edges.distance(x, y) < radius + 0.004 || !edges.inside(x, y)) continue;
    swept.under(
      { ax: x, ay: y, az: 0, bx: x, by: y, bz: 0, feed: 1, bit: 1, line: 0 },
      radius + beyond - SLIVER,
      (at) => {
        reachable[at] = 1;
      },
    );
  }
  let left = 0;
  let where = -1;
  for (let index = 0; index < reachable.length; index++)
    if (reachable[index] && swept.height[index] > -deepest + 2e-3) {
      left++;
      where = index;
    }
  if (left === 0) return [];
  const [x, y] = swept.place(where);
  return [
    `leaves ${(left * swept.cell ** 2).toFixed(3)} mm² that the bit can reach, at ${x.toFixed(2)}, ${y.toFixed(2)}`,
  ];
}

/** Every wall that the bit can follow is cut to depth, but for tabs; and these stand as long and as high as asked for. */
function judgeWalls(
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
  // An outline with a narrow neck is gone round in several loops, each with its tabs.
  const starts: [number, number][] = [];
  let lifted = true;
  for (const { feed, bx, by, bz } of moves) {
    if (feed === 0) lifted = true;
    else if (lifted && bz < -deepest + 0.02) {
      lifted = false;
      if (!starts.some(([x, y]) => Math.hypot(x - bx, y - by) < 1)) starts.push([bx, by]);
    }
  }
  const loops = Math.max(1, starts.length / drawn.loops.length);
  const ceiling = -(asked.depth - tabs.height);
  for (const loop of drawn.loops) {
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
        places.push([px, py]);
        if (z > -deepest + 0.02) {
          missed += every;
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
      // Along the bit's way, as the tab's length is meant; round a corner its arc counts as the chord here.
      const long = run.reduce((sum, k, i) => {
        if (i === 0) return every;
        const [a, b] = [places[run[i - 1]], places[k]];
        return sum + Math.hypot(a[0] - b[0], a[1] - b[1]);
      }, 0);
      // Round a corner the bit's way is longer than the wall, and a tab is as long as asked on the way.
      const whole = ![...run, (run[run.length - 1] + 1) % high.length].some((k) => {
        const [[ax, ay], [bx, by]] = [places[k], places[(k + high.length - 1) % high.length]];
        return broken[k] || Math.hypot(ax - bx, ay - by) > 2 * every;
      });
      if (whole && run.length > 2 && long < tabs.length - 3 * every - swept.cell - radius)
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

/** Every hole at its place, to its depth, by pecks; and no rapid move into what is not drilled yet. */
function judgeHoles(moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = [];
  const reached = new Map<number, number>();
  for (const move of moves) {
    if (Math.min(move.az, move.bz) >= 0) continue;
    if (Math.hypot(move.bx - move.ax, move.by - move.ay) > 1e-6) found.push(say(move, 'goes sideways in a hole'));
    const hole = drawn.loops.findIndex(([[x, y]]) => Math.hypot(move.bx - x, move.by - y) < 2e-3);
    if (hole < 0) {
      found.push(say(move, 'drills where no hole is drawn'));
      continue;
    }
    const deep = reached.get(hole) ?? 0;
    if (move.bz >= move.az) continue;
    const most = asked.peck > 0 ? asked.peck : asked.depth;
    if (move.feed === 0 && -move.bz > deep + 1e-6) found.push(say(move, 'a rapid move into undrilled wood'));
    if (-move.bz > deep + most + 3e-3) found.push(say(move, `drills ${(-move.bz - deep).toFixed(3)} mm at once`));
    reached.set(hole, Math.max(deep, -move.bz));
  }
  drawn.loops.forEach((_, k) => {
    if (Math.abs((reached.get(k) ?? 0) - asked.depth) > 2e-3)
      found.push(`hole ${k + 1} is ${reached.get(k) ?? 0} mm deep`);
  });
  return [...new Set(found)].slice(0, 4);
}

export type Placed = readonly [x: number, y: number];

/** How deep a V-bit's tip may go at a place whose nearest edge is `clearance` away, below where carving starts. */
function judgeCarving(moves: Move[], drawn: Drawn, asked: Asked): string[] {
  const found: string[] = [];
  const { slope, flat, startDepth } = asked;
  const big = asked.diameter / 2;
  const edges = new Edges(drawn.loops, big + Math.max(0, ...asked.clear) + 1);
  // No deeper than the cone is high, whatever was asked for.
  const limit = Math.min(asked.depth, startDepth + (big - flat) / slope);
  const widthAt = (z: number) => Math.max(0, -z - startDepth) * slope + flat;
  let worst: { by: number; move: Move } | undefined;
  let low = 0;
  const way = moves.reduce((sum, m) => sum + Math.hypot(m.bx - m.ax, m.by - m.ay), 0);
  // Close together on small drawings; never more than a minute's work.
  const every = Math.max(0.02, way / 30_000);
  for (const move of moves) {
    low = Math.min(low, move.az, move.bz);
    const z = Math.min(move.az, move.bz);
    if (z > -startDepth - 1e-3) continue;
    if (move.bit !== 1) {
      const needed = asked.clear[move.bit - 2] / 2 + (-z - startDepth) * slope;
      const by = needed - edges.fromMove(move.ax, move.ay, move.bx, move.by, needed);
      if (by > (worst?.by ?? GOUGE + 2e-3 * slope)) worst = { by, move };
      if (z < -limit - 2e-3) found.push(say(move, `clears ${-z} mm deep, the V-bit reaches ${limit.toFixed(3)}`));
      continue;
    }
    const length = Math.hypot(move.bx - move.ax, move.by - move.ay);
    const steps = Math.max(1, Math.min(400, Math.ceil((length + Math.abs(move.bz - move.az) * slope) / every)));
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      const x = move.ax + t * (move.bx - move.ax);
      const y = move.ay + t * (move.by - move.ay);
      const depth = move.az + t * (move.bz - move.az);
      if (depth > -startDepth - 1e-6) continue;
      // Half a thousandth of a rounded depth is so much in width.
      const away = edges.distance(x, y);
      const by = widthAt(depth) - 6e-4 * slope - away;
      if (by > (worst?.by ?? GOUGE)) worst = { by, move };
      // In the middle of what is not to be carved a cone may touch its walls all round, and cut none of them.
      if (away > 2 * GOUGE && !edges.inside(x, y)) found.push(say(move, 'carves outside the outline'));
    }
  }
  if (worst) found.push(say(worst.move, `cuts ${worst.by.toFixed(4)} mm beyond the outline`));
  if (low < -limit - 2e-3) found.push(`carves ${-low} mm deep, ${limit} is the most`);
  found.push(...judgeCarved(moves, asked, edges, limit));
  return [...new Set(found)].slice(0, 4);
}

/** At places all over, the wood is as deep as the cone between the walls goes. */
function judgeCarved(moves: Move[], asked: Asked, edges: Edges, limit: number): string[] {
  const { slope, flat, startDepth } = asked;
  const { bounds } = edges;
  const big = asked.diameter / 2;
  const ridge = Math.max(0, (asked.step - 2 * flat) / 2 / slope);
  const [w, h] = [bounds.maxX - bounds.minX, bounds.maxY - bounds.minY];
  const deepest = moves.reduce((most, { bz }) => Math.max(most, -bz), 0);
  const grid = Math.max(0.3, Math.max(w, h) / 60, Math.min(big, deepest * slope) / 3);
  const cells = new Map<number, Move[]>();
  const cell = (i: number, j: number) => i * 1_000_003 + j;
  const cellOf = (value: number) => Math.floor(value / grid);
  for (const move of moves) {
    if (Math.min(move.az, move.bz) > 0 || move.feed === 0) continue;
    const low = -Math.min(move.az, move.bz) - startDepth;
    const r = (move.bit === 1 ? Math.min(big, flat + Math.max(0, low) * slope) : asked.clear[move.bit - 2] / 2) + 0.02;
    const [x0, x1] = [cellOf(Math.min(move.ax, move.bx) - r), cellOf(Math.max(move.ax, move.bx) + r)];
    const [y0, y1] = [cellOf(Math.min(move.ay, move.by) - r), cellOf(Math.max(move.ay, move.by) + r)];
    for (let i = x0; i <= x1; i++)
      for (let j = y0; j <= y1; j++) {
        const list = cells.get(cell(i, j));
        if (!list) cells.set(cell(i, j), [move]);
        else list.push(move);
      }
  }
  const places = 400;
  const across = Math.max(2, Math.round(Math.sqrt((places * w) / Math.max(h, 1e-6))));
  const up = Math.max(2, Math.round(places / across));
  let worst: { by: number; x: number; y: number } | undefined;
  for (let i = 0; i < across; i++)
    for (let j = 0; j < up; j++) {
      const x = bounds.minX + ((i + 0.5 + 0.3 * Math.sin(7 * j + i)) * w) / across;
      const y = bounds.minY + ((j + 0.5 + 0.3 * Math.sin(5 * i + j)) * h) / up;
      if (!edges.inside(x, y)) continue;
      const clear = edges.distance(x, y);
      // In the middle of a groove the tip is as flat as it is.
      const wanted = Math.min((clear - flat) / slope, limit - startDepth - ridge);
      if (wanted <= 0.05) continue;
      let depth = 0;
      for (const move of cells.get(cell(cellOf(x), cellOf(y))) ?? [])
        depth = Math.max(depth, depthUnder(move, x, y, asked) - startDepth);
      const by = wanted - depth;
      if (by > (worst?.by ?? 0.012 / slope + 0.02)) worst = { by, x, y };
    }
  return worst ? [`leaves ${worst.by.toFixed(3)} mm standing at ${worst.x.toFixed(2)}, ${worst.y.toFixed(2)}`] : [];
}

/** Depth that a move cuts at a place, by golden section: a cone's depth along a straight move has one maximum. */
export function depthUnder(
  move: Move,
  x: number,
  y: number,
  { slope, flat, clear, diameter }: Asked,
  wider = 0.012,
): number {
  const radius = (move.bit === 1 ? diameter : clear[move.bit - 2]) / 2 + wider;
  const [dx, dy] = [move.bx - move.ax, move.by - move.ay];
  const l2 = dx * dx + dy * dy;
  let [a, b] = [0, 1];
  if (l2 > 0) {
    const middle = ((x - move.ax) * dx + (y - move.ay) * dy) / l2;
    const away = ((x - move.ax) * dy - (y - move.ay) * dx) ** 2 / l2;
    if (away > radius * radius) return -1;
    const half = Math.sqrt((radius * radius - away) / l2);
    [a, b] = [Math.max(0, middle - half), Math.min(1, middle + half)];
    if (a > b) return -1;
  } else if (Math.hypot(x - move.ax, y - move.ay) > radius) return -1;
  const at = (t: number): number => {
    const z = -(move.az + t * (move.bz - move.az));
    if (move.bit !== 1 || slope === 0) return z;
    return z - Math.max(0, Math.hypot(x - move.ax - t * dx, y - move.ay - t * dy) - flat) / slope;
  };
  let best = Math.max(at(a), at(b));
  const g = (Math.sqrt(5) - 1) / 2;
  for (let k = 0; k < 24; k++) {
    const [c, d] = [b - g * (b - a), a + g * (b - a)];
    if (at(c) > at(d)) b = d;
    else a = c;
    best = Math.max(best, at((a + b) / 2));
  }
  return best;
}
