import { type Leaves, widthLeft } from '../tools/leaves.ts';
import type { Path } from '../motion/path.ts';

/** Where a line over the work meets what was drawn on it: as shares of its length. */
export interface MetMark {
  from: number;
  to: number;
}

/**
 * The marks that lie across a line from (x0, y0) to (x1, y1): what a tool leaves that takes nothing away.
 * @example a line of 0.3 mm drawn square over the middle of one 30 mm long: from 0.495 to 0.505
 */
export function marksAlong(
  cuts: readonly { path: Path; leaves: Leaves }[],
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): MetMark[] {
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length === 0) return [];
  const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length];
  const found: MetMark[] = [];
  for (const { path, leaves } of cuts) {
    if (leaves.kind !== 'mark' && leaves.kind !== 'burn') continue;
    const width = widthLeft(leaves, 0);
    const { xyz, rapid } = path;
    for (let i = 1; i < rapid.length; i++) {
      if (rapid[i] || xyz[3 * i + 2] > 0 || xyz[3 * i - 1] > 0) continue;
      const [ax, ay, bx, by] = [xyz[3 * i - 3] - x0, xyz[3 * i - 2] - y0, xyz[3 * i] - x0, xyz[3 * i + 1] - y0];
      const [across, over] = [ay * ux - ax * uy, by * ux - bx * uy];
      if (across > 0 === over > 0) continue;
      const t = across / (across - over);
      const at = (ax + t * (bx - ax)) * ux + (ay + t * (by - ay)) * uy;
      const long = Math.hypot(bx - ax, by - ay);
      // The flatter it crosses, the wider it is on the line; along it, it is as long as it is.
      const half = Math.min(long / 2 + width / 2, (width / 2) * (long / Math.max(1e-9, Math.abs(over - across))));
      if (at + half < 0 || at - half > length) continue;
      found.push({ from: Math.max(0, (at - half) / length), to: Math.min(1, (at + half) / length) });
    }
  }
  found.sort((a, b) => a.from - b.from);
  const out: MetMark[] = [];
  for (const mark of found) {
    const last = out.at(-1);
    if (last && mark.from <= last.to) last.to = Math.max(last.to, mark.to);
    else out.push({ ...mark });
  }
  return out;
}
