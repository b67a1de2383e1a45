import type { Look } from '@kerbe/core/cuts/look';
import type { FillRule } from '@kerbe/core/geometry/clipper';
import type { SheetFrame } from '../sheet-frame.ts';
import { paintRaster } from './raster.ts';
import { type Lines, type Range, trace, type Window } from './lines.ts';

/** Lines that look alike; each range is filled by itself, so that shapes that lie over each other take nothing away. */
export interface Group {
  lines: Lines;
  ranges: readonly (Range & { rule: FillRule })[];
  look: Omit<Look, 'tone'> & { tone: Look['tone'] | 'wood' };
}

/** Colours by their names. */
export type Tones = Record<Group['look']['tone'], string>;

/** Detail finer than this is not drawn, pixels; where a great many points are in sight, then twice that. */
const FINEST = 0.5;
const MANY = 60_000;
/** Shapes that are smaller than this in both directions are drawn as a dot, pixels. */
const DOT = 1.5;
/** More points than this are not dashed: from so far nobody sees strokes. */
const MOST_DASHED = 20_000;
/** Lines go on outside the picture by this much, pixels, so that their ends are not seen. */
const BEYOND = 8;

/** All of some lines, filled by the nonzero rule. */
export const whole = (lines: Lines): Group['ranges'] => [{ from: 0, to: lines.closed.length, rule: 'nonzero' }];

/**
 * Draws groups, the first lowest.
 *
 * @param frame where the stock lies in the picture, in CSS pixels. @param ratio device pixels to one of these.
 */
export function paint(
  context: OffscreenCanvasRenderingContext2D,
  groups: readonly Group[],
  { k, left, base }: SheetFrame,
  { width, height, ratio }: { width: number; height: number; ratio: number },
  tones: Tones,
): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width * ratio, height * ratio);
  context.setTransform(ratio * k, 0, 0, -ratio * k, ratio * left, ratio * base);
  const window: Window = {
    minX: (-left - BEYOND) / k,
    maxX: (width - left + BEYOND) / k,
    minY: (base - height - BEYOND) / k,
    maxY: (base + BEYOND) / k,
  };
  for (const { lines, ranges, look } of groups) {
    if (look.fill === 'raster') {
      context.globalAlpha = look.strength ?? 1;
      if (lines.raster) paintRaster(context, lines.raster, tones[look.tone], ratio * k);
      context.globalAlpha = 1;
      continue;
    }
    const seen = ranges.filter((range) => inSight(lines, range, window));
    if (seen.length === 0) continue;
    const points = seen.reduce((sum, { from, to }) => sum + lines.starts[to] - lines.starts[from], 0);
    const finest = (points > MANY ? 2 * FINEST : FINEST) / k;
    context.lineJoin = points > MANY ? 'bevel' : 'round';
    const { tone, fill, strength = 1, line, across = 0, arrows, dash } = look;
    if (fill) {
      context.fillStyle = fill === 'solid' ? tones[tone] : hatch(context, fill, tones[tone], ratio, k);
      context.globalAlpha = strength;
      let dots: Path2D | undefined;
      for (const range of seen) {
        const box = range.to === range.from + 1 ? 4 * range.from : -1;
        if (
          box >= 0 &&
          (lines.boxes[box + 2] - lines.boxes[box]) * k < DOT &&
          (lines.boxes[box + 3] - lines.boxes[box + 1]) * k < DOT
        ) {
          dots ??= new Path2D();
          dots.rect(lines.boxes[box], lines.boxes[box + 1], DOT / k, DOT / k);
          continue;
        }
        context.beginPath();
        trace(context, lines, range, finest, window);
        context.fill(range.rule);
      }
      if (dots) context.fill(dots);
      context.globalAlpha = 1;
    }
    if (line) {
      context.strokeStyle = tones[tone];
      context.lineWidth = Math.max(line / k, across);
      context.lineCap = across > 0 ? 'round' : 'butt';
      context.setLineDash(dash && points < MOST_DASHED ? dash.map((length) => length / k) : []);
      context.beginPath();
      for (const range of seen) trace(context, lines, range, finest, window);
      context.stroke();
      context.setLineDash([]);
    }
    if (arrows) {
      context.fillStyle = tones[tone];
      context.beginPath();
      for (const range of seen) arrowHeads(context, lines, range, k, window);
      context.fill();
    }
  }
}

/** From head to head, and how long one is, pixels. */
const HEAD_EVERY = 90;
const HEAD = 8;

/** Arrow heads along lines; where several passes lie over each other, or one comes back, one of them. */
function arrowHeads(path: CanvasPath, lines: Lines, { from, to }: Range, k: number, window: Window): void {
  const { points, starts, boxes } = lines;
  let ahead = HEAD_EVERY / 2 / k;
  const taken = new Set<string>();
  const cell = HEAD_EVERY / 2 / k;
  for (let line = from; line < to; line++) {
    const box = 4 * line;
    if (boxes[box] > window.maxX || boxes[box + 2] < window.minX || boxes[box + 1] > window.maxY || boxes[box + 3] < window.minY) continue; // prettier-ignore
    for (let i = 2 * starts[line] + 2; i < 2 * starts[line + 1]; i += 2) {
      const [ax, ay] = [points[i - 2], points[i - 1]];
      const [dx, dy] = [points[i] - ax, points[i + 1] - ay];
      const long = Math.hypot(dx, dy);
      for (; ahead < long; ahead += HEAD_EVERY / k) {
        const [x, y] = [ax + (dx * ahead) / long, ay + (dy * ahead) / long];
        const place = `${Math.floor(x / cell)} ${Math.floor(y / cell)}`;
        if (taken.has(place)) continue;
        taken.add(place);
        const [ux, uy] = [(dx / long) * (HEAD / k), (dy / long) * (HEAD / k)];
        path.moveTo(x + ux, y + uy);
        path.lineTo(x - ux * 0.4 - uy * 0.6, y - uy * 0.4 + ux * 0.6);
        path.lineTo(x - ux * 0.4 + uy * 0.6, y - uy * 0.4 - ux * 0.6);
        path.closePath();
      }
      ahead -= long;
    }
  }
}

function inSight({ boxes }: Lines, { from, to }: Range, { minX, minY, maxX, maxY }: Window): boolean {
  for (let i = 4 * from; i < 4 * to; i += 4)
    if (boxes[i] <= maxX && boxes[i + 2] >= minX && boxes[i + 1] <= maxY && boxes[i + 3] >= minY) return true;
  return false;
}

/** Lines at 45°, and across them for a cross; they keep their distance on the screen and their place on the sheet. */
function hatch(
  context: OffscreenCanvasRenderingContext2D,
  kind: 'hatch' | 'cross',
  colour: string,
  ratio: number,
  k: number,
): CanvasPattern | string {
  const side = 8;
  const tile = new OffscreenCanvas(side * ratio, side * ratio);
  const ink = tile.getContext('2d')!;
  ink.scale(ratio, ratio);
  ink.strokeStyle = colour;
  ink.globalAlpha = 0.6;
  ink.beginPath();
  for (const shift of [-side, 0, side]) {
    ink.moveTo(shift - 1, side + 1);
    ink.lineTo(shift + side + 1, -1);
    if (kind === 'cross') {
      ink.moveTo(shift - 1, -1);
      ink.lineTo(shift + side + 1, side + 1);
    }
  }
  ink.stroke();
  const pattern = context.createPattern(tile, 'repeat');
  pattern?.setTransform(new DOMMatrix([1 / (ratio * k), 0, 0, -1 / (ratio * k), 0, 0]));
  return pattern ?? colour;
}
