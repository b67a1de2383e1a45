import { formatLength } from '../quantity/format.ts';
import { type KeepOut, thickest } from '../stock/stock.ts';
import type { CutResult } from '../job/compute.ts';
import { cutsOf, type Judged, type Remark, setCut } from './judge.ts';

/** Room between the bit and a clamp or a screw, mm: what a hand can place and a board can creep. */
const ROOM = 2;

/** Rules about holding the work: tabs, clamps and screws in the way, and the lift that clears them. */
export function judgeHolding(judged: Judged): Remark[] {
  const { job } = judged;
  const { stock, unit } = job;
  const remarks: Remark[] = [];
  for (const { cut, index, result } of cutsOf(judged)) {
    if (cut.kind === 'profile' && !result.problem && cut.depth > thickest(stock) - 0.2) {
      const loose = result.tabs.length === 0 && cut.skin === 0;
      if (loose && stock.holdDown !== 'tape')
        remarks.push({
          id: `tabs-${cut.id}`,
          stop: 'cuts',
          cut: cut.id,
          weight: 'wrong',
          text: 'Nothing holds the part once it is cut free: it has no tabs, and the stock is not taped down.',
          remedies: [
            {
              label: 'Add 4 tabs',
              patch: setCut(index, {
                tabs: { ...cut.tabs, at: [], count: 4, length: 6, height: Math.min(3, thickest(stock) / 2) },
              }),
            },
            { label: 'Hold it with tape', patch: [{ op: 'replace', path: '/stock/holdDown', value: 'tape' }] },
          ],
        });
    }
    const parts = judged.cuts.filter((made) => made.cut === cut.id);
    stock.keepOuts.forEach((keepOut, k) => {
      const inside = Math.max(0, ...parts.map((made) => deepestReach(made, keepOut)));
      if (inside <= 0) return;
      const free = freePlace(judged, keepOut);
      remarks.push({
        id: `keep-out-${cut.id}-${keepOut.id}`,
        stop: 'stock',
        cut: cut.id,
        weight: 'wrong',
        text: `The ${keepOut.kind} at ${formatLength(keepOut.x, unit, 0)}, ${formatLength(keepOut.y, unit, 0)} stands ${formatLength(inside, unit)} inside the way of the bit.`,
        remedies: [
          free
            ? {
                label: `Move the ${keepOut.kind} to ${formatLength(free.x, unit, 0)}, ${formatLength(free.y, unit, 0)}`,
                patch: [
                  { op: 'replace', path: `/stock/keepOuts/${k}/x`, value: free.x },
                  { op: 'replace', path: `/stock/keepOuts/${k}/y`, value: free.y },
                ],
              }
            : { label: `Take the ${keepOut.kind} away`, patch: [{ op: 'remove', path: `/stock/keepOuts/${k}` }] },
        ],
      });
    });
  }
  const highest = Math.max(0, ...stock.keepOuts.map((k) => k.height));
  if (stock.keepOuts.length > 0 && stock.lift < highest + ROOM)
    remarks.push({
      id: 'lift',
      stop: 'stock',
      weight: 'wrong',
      text: `The bit lifts ${formatLength(stock.lift, unit)}, and the clamps or screws stand ${formatLength(highest, unit)} high; between cuts it could strike one.`,
      remedies: [
        {
          label: `Lift ${formatLength(highest + ROOM, unit)}`,
          patch: [{ op: 'replace', path: '/stock/lift', value: highest + ROOM }],
        },
      ],
    });
  return remarks;
}

/** How far the bit's edge comes inside a keep-out while lower than its top, mm; 0 where it stays clear. */
function deepestReach({ path, profile }: CutResult, keepOut: KeepOut): number {
  const { xyz, feed } = path;
  const { x, y, length, width, height } = keepOut;
  let worst = 0;
  for (let i = 1; i < feed.length; i++) {
    const [ax, ay, az] = [xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i - 1]];
    const [bx, by, bz] = [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]];
    if (Math.min(az, bz) > height) continue;
    const r = profile.radius;
    if (Math.max(ax, bx) + r < x || Math.min(ax, bx) - r > x + length) continue;
    if (Math.max(ay, by) + r < y || Math.min(ay, by) - r > y + width) continue;
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay)));
    for (let k = 0; k <= steps; k++) {
      const px = ax + ((bx - ax) * k) / steps;
      const py = ay + ((by - ay) * k) / steps;
      const dx = Math.max(x - px, px - x - length);
      const dy = Math.max(y - py, py - y - width);
      const outside = dx > 0 || dy > 0 ? Math.hypot(Math.max(0, dx), Math.max(0, dy)) : Math.max(dx, dy);
      worst = Math.max(worst, r - outside);
    }
  }
  return worst;
}

/** The nearest place along x or y, in steps of 4 mm, where a keep-out is out of every cut's way; still on the edge it held. */
function freePlace({ job, cuts }: Judged, keepOut: KeepOut): { x: number; y: number } | undefined {
  const { length, width } = job.stock;
  for (let d = 4; d <= Math.max(length, width); d += 4)
    for (const [dx, dy] of [
      [0, d],
      [0, -d],
      [d, 0],
      [-d, 0],
    ]) {
      const moved = { ...keepOut, x: keepOut.x + dx, y: keepOut.y + dy };
      const onStock = moved.x < length && moved.x + moved.length > 0 && moved.y < width && moved.y + moved.width > 0;
      const others = job.stock.keepOuts.some(
        (k) =>
          k.id !== keepOut.id &&
          moved.x < k.x + k.length &&
          moved.x + moved.length > k.x &&
          moved.y < k.y + k.width &&
          moved.y + moved.width > k.y,
      );
      if (
        onStock &&
        !others &&
        cuts.every(
          (cut) =>
            deepestReach(cut, {
              ...moved,
              x: moved.x - ROOM,
              y: moved.y - ROOM,
              length: moved.length + 2 * ROOM,
              width: moved.width + 2 * ROOM,
            }) <= 0,
        )
      )
        return { x: moved.x, y: moved.y };
    }
  return undefined;
}
