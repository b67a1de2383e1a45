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
  const heights = new Float32Array(columns * rows);
  for (const { path, profile } of cuts) {
    const { xyz, feed } = path;
    for (let i = 1; i < feed.length; i++) {
      const [ax, ay, az] = [xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i - 1]];
      const [bx, by, bz] = [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]];
      const low = Math.min(az, bz);
      if (low >= 0) continue;
      // A cone cuts the surface only as far out as its depth reaches.
      const r = profile.slope > 0 ? Math.min(profile.radius, profile.flat - low * profile.slope) : profile.radius;
      const dx = bx - ax;
      const dy = by - ay;
      const length2 = dx * dx + dy * dy;
      const reach2 = length2 > 0 ? r * r * length2 : Infinity;
      const c0 = Math.max(0, Math.floor((Math.min(ax, bx) - r) / cell - 0.5));
      const c1 = Math.min(columns - 1, Math.ceil((Math.max(ax, bx) + r) / cell - 0.5));
      const r0 = Math.max(0, Math.floor((Math.min(ay, by) - r) / cell - 0.5));
      const r1 = Math.min(rows - 1, Math.ceil((Math.max(ay, by) + r) / cell - 0.5));
      for (let row = r0; row <= r1; row++)
        for (let c = c0; c <= c1; c++) {
          const k = row * columns + c;
          if (heights[k] <= low) continue;
          // Most cells of a slanted move's box lie beside it.
          const qx = (c + 0.5) * cell - ax;
          const qy = (row + 0.5) * cell - ay;
          const cross = qx * dy - qy * dx;
          if (cross * cross > reach2) continue;
          const h = sweptHeight(profile, ax, ay, az, bx, by, bz, (c + 0.5) * cell, (row + 0.5) * cell);
          if (h < heights[k]) heights[k] = h;
        }
    }
  }
  return { columns, rows, cell, heights };
}
