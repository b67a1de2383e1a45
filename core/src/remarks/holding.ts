import { formatLength } from '../quantity/format.ts';
import { KEEP_OUT_ROOM } from '../stock/keep-out.ts';
import type { KeepOut } from '../document/keep-out.ts';
import { missingTabs } from '../cuts/missing-tabs.ts';
import { thickest } from '../stock/stock.ts';
import { intrusion } from '../carving/intrusion.ts';
import { cutsOf, type Judged, type Remark, setCut } from './remark.ts';

/** Rules about holding the work: tabs, and clamps, screws and pins in the way of cutting moves. */
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
    const missing = result.problem ? 0 : missingTabs(cut, result);
    if (missing > 0 && 'tabs' in cut)
      remarks.push({
        id: `fewer-tabs-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'advice',
        text: `${missing === 1 ? 'One of the tabs has' : `${missing} of the tabs have`} no place where ${missing === 1 ? 'it' : 'they'} would stand, and ${result.tabs.length === 0 ? 'none is left' : `only ${result.tabs.length} hold the part`}.`,
        remedies: [
          {
            label: 'Make them half as long',
            patch: setCut(index, { tabs: { ...cut.tabs, length: cut.tabs.length / 2 } }),
          },
        ],
      });
    const parts = judged.cuts.filter((made) => made.cut === cut.id);
    stock.keepOuts.forEach((keepOut, k) => {
      const inside = Math.max(0, ...parts.map((made) => intrusion(made.path, made.profile.radius, keepOut)));
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
  return remarks;
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
            intrusion(cut.path, cut.profile.radius, {
              ...moved,
              x: moved.x - KEEP_OUT_ROOM,
              y: moved.y - KEEP_OUT_ROOM,
              length: moved.length + 2 * KEEP_OUT_ROOM,
              width: moved.width + 2 * KEEP_OUT_ROOM,
            }) <= 0,
        )
      )
        return { x: moved.x, y: moved.y };
    }
  return undefined;
}
