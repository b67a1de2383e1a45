import type { Loops } from './outline.ts';

/**
 * Loops count as equal when their points fall onto the same grid of this width, mm, after a shift. It is no round
 * number: points of type often lie just between two marks of a round one, and rounding noise would part equals.
 */
const SAME = 1e-4 * (Math.PI / 3);

/** Most code units that are made into text at once: engines limit how many arguments a call may have. */
const CHUNK = 8192;

/** A text that is the same for loops that are equal up to a shift, seen from (x, y); not made to be read. */
export function shapeKey(loops: Loops, x: number, y: number): string {
  let size = 0;
  for (const loop of loops) size += 1 + loop.length;
  const marks = new Int32Array(size);
  let k = 0;
  for (const loop of loops) {
    marks[k++] = loop.length;
    for (let i = 0; i < loop.length; i += 2) {
      marks[k++] = Math.round((loop[i] - x) / SAME);
      marks[k++] = Math.round((loop[i + 1] - y) / SAME);
    }
  }
  return textOf(marks.buffer);
}

/** A text that is the same for loops that are equal bit by bit; not made to be read. */
export function exactKey(loops: Loops): string {
  return loops.map((loop) => `${loop.length}:${textOf(loop.slice().buffer)}`).join('');
}

function textOf(buffer: ArrayBuffer): string {
  const units = new Uint16Array(buffer);
  let text = '';
  for (let i = 0; i < units.length; i += CHUNK) text += String.fromCharCode(...units.subarray(i, i + CHUNK));
  return text;
}

/** Loops moved on the sheet. */
export function shiftLoops(loops: Loops, dx: number, dy: number): Loops {
  return loops.map((loop) => {
    const out = new Float64Array(loop.length);
    for (let i = 0; i < loop.length; i += 2) {
      out[i] = loop[i] + dx;
      out[i + 1] = loop[i + 1] + dy;
    }
    return out;
  });
}
