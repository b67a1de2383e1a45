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
