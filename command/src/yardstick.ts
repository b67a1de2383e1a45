import Delaunator from 'delaunator';
import { importSvg } from '@kerbe/core/artwork/svg';
import { areaOf } from '@kerbe/core/artwork/united-shapes';
import { clipperFromDisk } from '@kerbe/machine/core-from-disk';
import { letterPage } from './bench-page.ts';
import { sampled } from './sampled-loops.ts';

const ROUNDS = 5;

/**
 * The yardstick: one Delaunay triangulation of 118,000 outline samples. The machine that the targets in seconds were set
 * on takes 135 ms for it; here a target of a second is a second times what it takes here over that. It is taken beside
 * what is measured: a machine that others share may be twice as slow a minute later.
 */
export const YARDSTICK = { samples: 118_000, ms: 135 };

/** What a row is held to: a figure and the most that it may be. */
export interface Limit {
  is: number;
  most: number;
  wanted: string;
}

/** A target in milliseconds, as it stands on this machine beside what was measured. */
export function within(is: number, ms: number, yardstick = yardstickNow()): Limit {
  const most = (ms / YARDSTICK.ms) * yardstick;
  return {
    is,
    most,
    wanted: `at most ${most.toFixed(0)} ms here, where 118,000 samples take ${yardstick.toFixed(0)} ms to triangulate: ${ms} ms where they take ${YARDSTICK.ms}`,
  };
}

/** Milliseconds that a triangulation of some samples comes to for as many as the yardstick has. */
export const asYardstick = (ms: number, samples: ArrayLike<number>) => (ms * YARDSTICK.samples) / (samples.length / 2);

let page: Float64Array | undefined;

/** The triangulation of a page of letters, the middle of some. */
export function yardstickNow(): number {
  const times = Array.from({ length: ROUNDS }, () => {
    const t = performance.now();
    new Delaunator(page!);
    return performance.now() - t;
  });
  return asYardstick(middle(times), page!);
}

/** Reads the page that is triangulated. */
export async function readYardstick(): Promise<void> {
  const clipper = await clipperFromDisk();
  const { area } = areaOf(importSvg(new TextEncoder().encode(letterPage(400)), clipper).shapes, clipper);
  page = sampled(area, 0.2);
  new Delaunator(page);
}

/** The one in the middle of some. */
export function middle(values: readonly number[]): number {
  return values.toSorted((a, b) => a - b)[values.length >> 1];
}
