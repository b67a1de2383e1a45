import { polygonHull } from 'd3-polygon';
import { PathBuilder } from '../motion/path.ts';
import type { CutResult } from './cut-result.ts';

/** Ways of going round a work with nothing on: all its paths, the box that they lie in, or the hull of it. */
export const FRAMES = ['paths', 'box', 'hull'] as const;
export type Frame = (typeof FRAMES)[number];

/** How fast it is gone round, as a share of what the axes do: slowly enough to be followed by eye. */
const SHARE = 0.25;

/**
 * All that is burnt or cut, gone round once: a single cut with nothing on.
 * @param speed of the axes, mm/min.
 * @example of a disc of 10 mm about 0, 0 by its box: from -5, -5 along a square of 10 mm and back
 */
export function framingCut(
  cuts: readonly CutResult[],
  frame: 'box' | 'hull',
  speed: { x: number; y: number },
): CutResult[] {
  const points: [number, number][] = [];
  for (const { path } of cuts)
    for (let i = 1; i < path.power.length; i++)
      if (path.power[i] > 0) for (const k of [i - 1, i]) points.push([path.xyz[3 * k], path.xyz[3 * k + 1]]);
  if (points.length === 0) return [];
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const least = (all: number[]) => all.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (all: number[]) => all.reduce((a, b) => Math.max(a, b), -Infinity);
  const [x0, x1, y0, y1] = [least(xs), most(xs), least(ys), most(ys)];
  const box: [number, number][] = [[x0, y0], [x1, y0], [x1, y1], [x0, y1]]; // prettier-ignore
  const round = frame === 'hull' ? (polygonHull(points) ?? box) : box;
  const builder = new PathBuilder();
  builder.rapid(...round[0], 0);
  for (const [x, y] of [...round.slice(1), round[0]]) builder.to(x, y, 0, SHARE * Math.min(speed.x, speed.y), 0);
  return [{ ...cuts[0], path: builder.done() }];
}
