import { takenOut } from '../tools/leaves.ts';
import type { Profile } from '../tools/turned.ts';
import type { CarvedCut } from './section.ts';
import { sweptHeight } from './swept.ts';

/** Heights of the carved piece on a grid of cell centres, mm from the top of the stock, rows from y = 0 upwards. */
export interface HeightField {
  columns: number;
  rows: number;
  cell: number;
  heights: Float32Array;
}

/**
 * The piece as the cuts leave it.
 * @param cell size of a grid cell, mm.
 */
export function carveField(cuts: readonly CarvedCut[], length: number, width: number, cell: number): HeightField {
  const columns = Math.max(1, Math.ceil(length / cell));
  const rows = Math.max(1, Math.ceil(width / cell));
  const field: HeightField = { columns, rows, cell, heights: new Float32Array(columns * rows) };
  for (const { path, leaves } of cuts) {
    const profile = takenOut(leaves);
    if (!profile) continue;
    const { xyz, feed, power } = path;
    const through = leaves.kind === 'kerf' ? -leaves.depth : undefined;
    for (let i = 1; i < feed.length; i++) {
      if (through !== undefined && power[i] === 0) continue;
      const [za, zb] = [through ?? xyz[3 * i - 1], through ?? xyz[3 * i + 2]];
      sweep(field, profile, xyz[3 * i - 3], xyz[3 * i - 2], za, xyz[3 * i], xyz[3 * i + 1], zb);
    }
  }
  return field;
}

/** Takes away what one straight move cuts. */
function sweep(
  { columns, rows, cell, heights }: HeightField,
  profile: Profile,
  ax: number,
  ay: number,
  az: number,
  bx: number,
  by: number,
  bz: number,
): void {
  const low = Math.min(az, bz);
  if (low >= 0) return;
  const { flat, slope, radius } = profile;
  const dx = bx - ax;
  const dy = by - ay;
  const length = Math.sqrt(dx * dx + dy * dy);
  // A cone cuts the surface only as far out as its depth reaches.
  const r = slope > 0 ? Math.min(radius, flat - low * slope) : radius;
  const ux = length > 0 ? dx / length : 1;
  const uy = length > 0 ? dy / length : 0;
  const climb = length > 1e-9 ? (bz - az) / length : 0;
  const k = climb * slope;
  // The usual moves have their height in a few steps: pointed bits not buried past their cutting edges and not going
  // down along their own wall, and flat bits at one height. The rest goes by `sweptHeight`.
  const pointed = slope > 0 && flat === 0 && -low * slope <= radius && k > -1 && k < 1 && length > 1e-9;
  const level = slope === 0 && (climb === 0 || length <= 1e-9);
  const lean = pointed ? -k / Math.sqrt(1 - k * k) : 0;
  const rise = slope > 0 ? 1 / slope : 0;
  const r2 = r * r;
  const row0 = Math.max(0, Math.floor((Math.min(ay, by) - r) / cell - 0.5));
  const row1 = Math.min(rows - 1, Math.ceil((Math.max(ay, by) + r) / cell - 0.5));
  const left = Math.max(0, Math.floor((Math.min(ax, bx) - r) / cell - 0.5));
  const right = Math.min(columns - 1, Math.ceil((Math.max(ax, bx) + r) / cell - 0.5));
  for (let row = row0; row <= row1; row++) {
    const y = (row + 0.5) * cell;
    const qy = y - ay;
    let c0 = left;
    let c1 = right;
    // Of a slanted move's row only what lies no further beside it than the bit reaches.
    if (Math.abs(uy) > 1e-6) {
      const middle = ax + (qy * ux) / uy;
      const half = r / Math.abs(uy);
      c0 = Math.max(c0, Math.floor((middle - half) / cell - 0.5));
      c1 = Math.min(c1, Math.ceil((middle + half) / cell - 0.5));
    }
    for (let c = c0, index = row * columns + c0; c <= c1; c++, index++) {
      const old = heights[index];
      if (old <= low) continue;
      const qx = (c + 0.5) * cell - ax;
      if (pointed) {
        const across = Math.abs(qx * uy - qy * ux);
        if (low + across * rise >= old) continue;
        const along = qx * ux + qy * uy;
        let t = along + lean * across;
        if (t < 0) t = 0;
        else if (t > length) t = length;
        const off = along - t;
        const h = az + climb * t + Math.sqrt(across * across + off * off) * rise;
        if (h < old) heights[index] = h;
      } else if (level) {
        const across = qx * uy - qy * ux;
        const along = qx * ux + qy * uy;
        const off = along < 0 ? along : along > length ? along - length : 0;
        if (across * across + off * off <= r2) heights[index] = low;
      } else {
        const h = sweptHeight(profile, ax, ay, az, bx, by, bz, qx + ax, y);
        if (h < old) heights[index] = h;
      }
    }
  }
}
