import type { Limits } from '@kerbe/core/document/limits';
import { pathAlong } from '@kerbe/core/motion/path';
import { planMotion } from '@kerbe/core/motion/plan';
import type { ProgramWay } from './program-ways.ts';

type Point = { x: number; y: number; z: number };

/** What is known at the machine when a program is to be run: machine coordinates, mm. */
export interface WaysFrom {
  /** Where the tool is. */
  at: Point;
  /** Where the job's zero lies. */
  origin: Point;
  /** Where a bit is measured, from where it goes on after a change; nothing where none is. */
  setter?: { x: number; y: number } | null;
  limits: Limits;
  /** What the plan has for the last way up already, minutes. */
  up: number;
}

/** How long each way of a program takes, minutes, by the line at which it is made. */
export interface WayTime {
  line: number;
  minutes: number;
}

/** How long the ways of a program take from where the machine is. A way whose beginning is not known is left out. */
export function wayTimes(ways: readonly ProgramWay[], { at, origin, setter, limits, up }: WaysFrom): WayTime[] {
  const times: WayTime[] = [];
  for (const { way, line, from, moves } of ways) {
    const start =
      way === 'to-first'
        ? at
        : way === 'from-change'
          ? setter && { ...setter, z: 0 }
          : from && { x: origin.x + from.x, y: origin.y + from.y, z: origin.z + from.z };
    if (!start) continue;
    const points = [start];
    for (const { to, direct } of moves) {
      const next = { ...points.at(-1)! };
      for (const axis of ['x', 'y', 'z'] as const)
        if (to[axis] !== undefined) next[axis] = to[axis] + (direct ? 0 : origin[axis]);
      points.push(next);
    }
    const { minutes } = planMotion(pathAlong(Float64Array.from(points.flatMap(({ x, y, z }) => [x, y, z]))), limits);
    times.push({ line, minutes: way === 'to-park' ? Math.max(0, minutes - up) : minutes });
  }
  return times;
}

/** Minutes of the ways that are made before so many lines are. */
export const waysUntil = (times: readonly WayTime[], lines: number): number =>
  times.reduce((sum, { line, minutes }) => (line < lines ? sum + minutes : sum), 0);
