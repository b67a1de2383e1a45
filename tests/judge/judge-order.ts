import type { Drawn } from './drawings.ts';
import { toSegment } from './edges.ts';
import { say } from './finding.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** What is cut out within something else that is cut out comes before it: then the work is held by what is left. */
export function judgeOrder(moves: Move[], { loops }: Drawn, { side, diameter }: Asked, deepest: number): string[] {
  const segments = loops.reduce((sum, loop) => sum + loop.length, 0);
  let rapids = 0;
  const counted = moves.map((m) => ({ m, after: m.feed > 0 ? rapids : ++rapids }));
  const onFloor = counted.filter(({ m }) => m.feed > 0 && Math.max(m.az, m.bz) < -deepest + 2e-3);
  const deep = onFloor.map(({ m }) => m);
  if (loops.length < 2 || deep.length * segments > 3e6) return [];
  /** Where in the program each is gone along: the middle of the way counts, since outlines that touch share a piece. */
  const along = loops.map((): number[] => []);
  const long = ({ ax, ay, bx, by }: Move) => Math.hypot(bx - ax, by - ay);
  const middle = (list: readonly number[]) => {
    let left = list.reduce((sum, at) => sum + long(deep[at]), 0) / 2;
    return list.find((at) => (left -= long(deep[at])) <= 0) ?? list[list.length - 1];
  };
  // A way along both, where the bit has no room beside it, belongs to neither; over a tab it is the same way.
  const together = new Set<string>();
  let way = new Set<number>();
  deep.forEach((m, at) => {
    if (at > 0 && onFloor[at].after !== onFloor[at - 1].after) way = new Set();
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
