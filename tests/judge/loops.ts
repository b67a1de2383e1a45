export type Loop = [number, number][];
export type Dice = () => number;

/** Loops with y up, and for curved outlines the path data for it. */
export interface Made {
  loops: Loop[];
  /** One command list a loop, in the same coordinates as `loops`; without it, straight lines. */
  curves?: string[][];
}

export const between = (dice: Dice, low: number, high: number) => low + dice() * (high - low);
export const whole = (dice: Dice, low: number, high: number) => Math.floor(between(dice, low, high + 1));

export function ring(x: number, y: number, r: (angle: number) => number, n: number, turn = 0): Loop {
  return Array.from({ length: n }, (_, k) => {
    const a = turn + (2 * Math.PI * k) / n;
    return [x + r(a) * Math.cos(a), y + r(a) * Math.sin(a)];
  });
}

export const box = (x: number, y: number, w: number, h: number): Loop => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];

/** Without stretches that are gone along and back again at once: they have the area, or nothing, on both their sides. */
export function withoutSpikes(loop: Loop): Loop {
  const out = loop.filter(([x, y], k) => k === 0 || Math.hypot(x - loop[k - 1][0], y - loop[k - 1][1]) > 0);
  for (let k = 0, kept = 0; out.length > 3 && kept <= out.length;) {
    const n = out.length;
    const [a, b, c] = [out[(k + n - 1) % n], out[k % n], out[(k + 1) % n]];
    const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]];
    const back = ux * vx + uy * vy < 0 && Math.abs(ux * vy - uy * vx) < 1e-9 * Math.hypot(ux, uy) * Math.hypot(vx, vy);
    if (back || (vx === 0 && vy === 0)) {
      out.splice(k % n, 1);
      k = Math.max(0, k - 1);
      kept = 0;
    } else {
      k = (k + 1) % n;
      kept++;
    }
  }
  return out;
}
