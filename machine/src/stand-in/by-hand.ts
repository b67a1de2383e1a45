import type { Point } from './axes.ts';

/** A hand-held move goes on this long after it was last asked for, seconds of real time. */
export const DRIVE_FOR = 0.14;
/** Longest single step, mm. */
export const LONGEST_STEP = 102;

/** Where a move by hand leads, and how fast it is asked for, mm/min. */
export interface HandMove {
  to: Point;
  feed: number;
}

/** One step: `x dx`, `y dy` or `z dz` in mm, and `f`; nothing where it is longer than a step may be. @example stepped({ x: 1, y: 0, z: 0 }, 'x2 f500') // { to: { x: 3, y: 0, z: 0 }, feed: 500 } */
export function stepped(from: Point, argument: string): HandMove | undefined {
  const by = said(argument);
  return Math.max(Math.abs(by.x), Math.abs(by.y), Math.abs(by.z)) > LONGEST_STEP ? undefined : moved(from, by, 1);
}

/** Along a direction as far as any axis goes: `x1 y0 z0`, and `f`. @param travel of the axes, mm. */
export const driven = (from: Point, argument: string, travel: Point): HandMove =>
  moved(from, said(argument), Math.hypot(travel.x, travel.y));

const moved = ({ x, y, z }: Point, by: ReturnType<typeof said>, times: number): HandMove => ({
  to: { x: x + times * by.x, y: y + times * by.y, z: z + times * by.z },
  feed: by.f,
});

function said(argument: string) {
  const v = numbers(argument);
  return { x: v.get('x') ?? 0, y: v.get('y') ?? 0, z: v.get('z') ?? 0, f: v.get('f') ?? 1000 };
}

/** `x1 y-2 f300` as letters and numbers. */
function numbers(argument: string): Map<string, number> {
  return new Map([...argument.matchAll(/([xyzf])\s*(-?[\d.]+)/g)].map((m) => [m[1], Number(m[2])]));
}
