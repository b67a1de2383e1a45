import type { Timeline } from './timeline.ts';

/**
 * A program's times as bytes: of every line its minutes, then of every line its minutes of feeding, eight bytes each.
 * @example of 120 lines: 1920 bytes
 */
export function timelineBytes({ minutes, feeding }: Timeline): Uint8Array {
  const times = new Float64Array(minutes.length + feeding.length);
  times.set(minutes);
  times.set(feeding, minutes.length);
  return new Uint8Array(times.buffer);
}

/** A program's times from such bytes. */
export function timelineFrom(bytes: Uint8Array): Timeline {
  const numbers = new Float64Array(bytes.slice().buffer);
  const half = numbers.length / 2;
  return { minutes: numbers.subarray(0, half), feeding: numbers.subarray(half) };
}
