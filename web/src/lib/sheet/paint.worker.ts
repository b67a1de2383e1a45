import { expose, transfer } from 'comlink';
import type { FillRule } from '@kerbe/core/geometry/clipper';
import type { SheetFrame } from '../sheet-frame.ts';
import type { Lines } from './lines.ts';
import { type Group, paint, type Tones } from './paint.ts';

/** A group as it is told to the thread: its lines by their number. */
export interface ToldGroup {
  lines: number;
  /** First and last line of each range, and which are filled by the even-odd rule. */
  ranges: Uint32Array;
  evenOdd: Uint8Array;
  look: Group['look'];
}

export interface ToldPicture {
  groups: ToldGroup[];
  frame: SheetFrame;
  size: { width: number; height: number; ratio: number };
  tones: Tones;
}

/** Lines by their numbers, of each canvas that is drawn. */
const all = new Map<number, Map<number, Lines>>();
const linesOf = (owner: number) => all.get(owner) ?? all.set(owner, new Map<number, Lines>()).get(owner)!;
const canvas = new OffscreenCanvas(1, 1);
const context = canvas.getContext('2d')!;

const api = {
  /**
   * A picture of groups. @param fresh lines that it has not been given before, by their numbers; those that it does not
   * need any more are forgotten.
   */
  picture(owner: number, fresh: readonly [number, Lines][], { groups, frame, size, tones }: ToldPicture): ImageBitmap {
    const kept = linesOf(owner);
    for (const [number, lines] of fresh) kept.set(number, lines);
    const used = new Set(groups.map(({ lines }) => lines));
    for (const number of kept.keys()) if (!used.has(number)) kept.delete(number);
    canvas.width = Math.round(size.width * size.ratio);
    canvas.height = Math.round(size.height * size.ratio);
    paint(
      context,
      groups.map(({ lines, ranges, evenOdd, look }) => ({
        lines: kept.get(lines)!,
        ranges: Array.from(evenOdd, (odd, k) => ({
          from: ranges[2 * k],
          to: ranges[2 * k + 1],
          rule: (odd ? 'evenodd' : 'nonzero') as FillRule,
        })),
        look,
      })),
      frame,
      size,
      tones,
    );
    const bitmap = canvas.transferToImageBitmap();
    return transfer(bitmap, [bitmap]);
  },

  forget(owner: number): void {
    all.delete(owner);
  },
};

export type PaintWorker = typeof api;

expose(api);
