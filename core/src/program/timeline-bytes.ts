import { PLANNED_AT, type Timeline } from './timeline.ts';

/** Bytes of a number of the head and of a line's minutes, and of one at an override. */
const [WIDE, NARROW] = [8, 4];

/**
 * A program's times as bytes: a NaN, how many overrides, which; of every line its minutes, eight bytes each; of every
 * override those of every line, four bytes each.
 * @example of 120 lines at six overrides: 64 + 960 + 2880 bytes
 */
export function timelineBytes({ minutes, others }: Timeline): Uint8Array {
  const head = Float64Array.of(NaN, others.length, ...others.map(({ percent }) => percent));
  const bytes = new Uint8Array(head.byteLength + minutes.byteLength + others.length * minutes.length * NARROW);
  bytes.set(new Uint8Array(head.buffer));
  bytes.set(new Uint8Array(minutes.buffer, minutes.byteOffset, minutes.byteLength), head.byteLength);
  others.forEach((other, k) => {
    const narrow = Float32Array.from(other.minutes);
    bytes.set(new Uint8Array(narrow.buffer), head.byteLength + minutes.byteLength + k * minutes.length * NARROW);
  });
  return bytes;
}

/** A program's times from such bytes, also from those written before overrides were planned. */
export function timelineFrom(given: Uint8Array): Timeline {
  const bytes = given.slice();
  if (bytes.length === 0) return { minutes: new Float64Array(), others: [] };
  const first = new Float64Array(bytes.buffer, 0, 1)[0];
  if (!Number.isNaN(first)) return beforeOverrides(new Float64Array(bytes.buffer));
  const count = new Float64Array(bytes.buffer, WIDE, 1)[0];
  const percents = new Float64Array(bytes.buffer, 2 * WIDE, count);
  const start = (2 + count) * WIDE;
  const lines = (bytes.length - start) / (WIDE + count * NARROW);
  return {
    minutes: new Float64Array(bytes.buffer, start, lines),
    others: [...percents].map((percent, k) => ({
      percent,
      minutes: new Float32Array(bytes.buffer, start + lines * WIDE + k * lines * NARROW, lines),
    })),
  };
}

/** Of every line its minutes, then of every line its minutes of feeding, which went with one over the override. */
function beforeOverrides(numbers: Float64Array): Timeline {
  const half = numbers.length / 2;
  const [minutes, feeding] = [numbers.subarray(0, half), numbers.subarray(half)];
  return {
    minutes,
    others: PLANNED_AT.map((percent) => ({
      percent,
      minutes: minutes.map((all, line) => all - feeding[line] + (feeding[line] * 100) / percent),
    })),
  };
}
