import type { Path } from '../motion/path.ts';

/** How far a flat bit is buried in wood along the way, at one depth. */
export interface Engagement {
  /** Length cut in wood, mm. */
  length: number;
  /**
   * Of that, the length of slots: stretches longer than the bit is wide over which it meets wood across at least nine
   * tenths of its width. Shorter ones are the corners that every ring has.
   */
  slots: number;
}

/** Size of a cell, as a share of the bit’s radius. */
const CELL = 1 / 24;

/** Places looked at round the front half of the bit. */
const AROUND = 48;

/** Across this share of its diameter a bit is buried; across less than the other it meets no wood. */
const BURIED = 0.9;
const MEETS = 0.1;

/**
 * Follows a path and notes how wide the wood is that a flat bit meets: the width across its way of all places at its
 * front rim that nothing has cut before.
 *
 * @param z moves that reach this depth or lower count as cutting; ramps down to it are left out.
 * @param before ways of bits that have cut there already.
 * @example a straight line of 100 mm into solid wood: 100 mm in wood, all of it a slot
 */
export function engagementOf(
  { xyz, rapid }: Path,
  radius: number,
  z: number,
  before: readonly { path: Path; radius: number }[] = [],
): Engagement {
  const cell = radius * CELL;
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < rapid.length; i++) {
    if (xyz[3 * i + 2] > z + 1e-6) continue;
    minX = Math.min(minX, xyz[3 * i]);
    maxX = Math.max(maxX, xyz[3 * i]);
    minY = Math.min(minY, xyz[3 * i + 1]);
    maxY = Math.max(maxY, xyz[3 * i + 1]);
  }
  const out: Engagement = { length: 0, slots: 0 };
  if (!(maxX >= minX)) return out;
  minX -= 2 * radius;
  minY -= 2 * radius;
  const columns = Math.ceil((maxX + 2 * radius - minX) / cell) + 1;
  const rows = Math.ceil((maxY + 2 * radius - minY) / cell) + 1;
  const cut = new Uint8Array(columns * rows);
  const isCut = (x: number, y: number) => cut[Math.floor((y - minY) / cell) * columns + Math.floor((x - minX) / cell)];
  const stamp = (x: number, y: number, reach = radius) => {
    const r0 = Math.max(0, Math.ceil((y - reach - minY) / cell - 0.5));
    const r1 = Math.min(rows - 1, Math.floor((y + reach - minY) / cell - 0.5));
    for (let row = r0; row <= r1; row++) {
      const dy = minY + (row + 0.5) * cell - y;
      const half = Math.sqrt(Math.max(0, reach * reach - dy * dy));
      const c0 = Math.max(0, Math.ceil((x - half - minX) / cell - 0.5));
      const c1 = Math.min(columns - 1, Math.floor((x + half - minX) / cell - 0.5));
      if (c1 >= c0) cut.fill(1, row * columns + c0, row * columns + c1 + 1);
    }
  };
  for (const { path, radius: reach } of before)
    for (let i = 1; i < path.feed.length; i++) {
      const [ax, ay, az, bx, by, bz] = path.xyz.subarray(3 * i - 3, 3 * i + 3);
      if (Math.max(az, bz) > z + 1e-6) continue;
      const steps = Math.ceil(Math.hypot(bx - ax, by - ay) / (2 * cell)) || 1;
      for (let k = 0; k <= steps; k++) stamp(ax + ((bx - ax) * k) / steps, ay + ((by - ay) * k) / steps, reach);
    }
  let run = 0;
  const endRun = () => {
    if (run > 2 * radius) out.slots += run;
    run = 0;
  };
  for (let i = 1; i < rapid.length; i++) {
    const [ax, ay, bx, by] = [xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i], xyz[3 * i + 1]];
    if (rapid[i] || xyz[3 * i - 1] > z + 1e-6 || xyz[3 * i + 2] > z + 1e-6) {
      if (xyz[3 * i + 2] <= z + 1e-6) stamp(bx, by);
      endRun();
      continue;
    }
    const length = Math.hypot(bx - ax, by - ay);
    if (length === 0) continue;
    const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
    const steps = Math.ceil(length / (2 * cell));
    for (let k = 0; k < steps; k++) {
      const x = ax + (bx - ax) * (k / steps);
      const y = ay + (by - ay) * (k / steps);
      stamp(x, y);
      const width = ahead(x, y, ux, uy);
      if (width > MEETS) out.length += length / steps;
      if (width >= BURIED) run += length / steps;
      else endRun();
    }
    stamp(bx, by);
  }
  endRun();
  return out;

  /** How wide the wood just ahead of the rim is, seen along the way, as a share of the bit's diameter. */
  function ahead(x: number, y: number, ux: number, uy: number): number {
    const r = radius + 1.5 * cell;
    let width = 0;
    for (let k = 0; k < AROUND; k++) {
      const from = -Math.PI / 2 + (Math.PI * k) / AROUND;
      const to = from + Math.PI / AROUND;
      const a = (from + to) / 2;
      const [forward, beside] = [r * Math.cos(a), r * Math.sin(a)];
      if (!isCut(x + forward * ux - beside * uy, y + forward * uy + beside * ux))
        width += (Math.sin(to) - Math.sin(from)) / 2;
    }
    return width;
  }
}
