import { formatLength } from '../quantity/format.ts';
import { KEEP_OUT_ROOM } from '../stock/keep-out.ts';
import { type Obstacle, obstaclesOf, UNKNOWN_HEIGHT } from '../stock/obstacles.ts';
import { intrusion } from '../carving/intrusion.ts';
import type { Remark } from '../cuts/remark.ts';
import { cutsOf, type Judged } from './judged.ts';

/** Rules about what holds the work: clamps, screws and pins in the way of cutting moves. */
export function judgeHolding(judged: Judged): Remark[] {
  const { job } = judged;
  const { stock, unit } = job;
  const remarks: Remark[] = heightsAsked(judged);
  const obstacles = obstaclesOf(job);
  for (const { cut } of cutsOf(judged)) {
    const parts = judged.cuts.filter((made) => made.cut === cut.id);
    obstacles.forEach((keepOut) => {
      const k = stock.keepOuts.findIndex(({ id }) => id === keepOut.id);
      const inside = Math.max(0, ...parts.map((made) => intrusion(made.path, made.radius, keepOut)));
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

/** Clamps whose height nobody has measured: no tool goes over them before it is known. */
function heightsAsked({ job, cuts }: Judged): Remark[] {
  const { unit } = job;
  // A beam stays at its own height, over whatever it can pass.
  if (cuts.length > 0 && cuts.every(({ flat }) => flat)) return [];
  return job.stock.keepOuts
    .filter(({ height }) => height === null)
    .map(({ id, kind, x, y }) => ({
      id: `height-${id}`,
      stop: 'stock',
      weight: 'wrong',
      withholds: true,
      text: `How high does the ${kind} at ${formatLength(x, unit, 0)}, ${formatLength(y, unit, 0)} stand over the stock? Measure it and write it there; ${formatLength(UNKNOWN_HEIGHT, unit, 0)} is reckoned with meanwhile, and no program is written.`,
      remedies: [],
    }));
}

/** The nearest place along x or y, in steps of 4 mm, where a keep-out is out of every cut's way; still on the edge it held. */
function freePlace({ job, cuts }: Judged, keepOut: Obstacle): { x: number; y: number } | undefined {
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
            intrusion(cut.path, cut.radius, {
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
