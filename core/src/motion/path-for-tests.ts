import type { Path } from './path.ts';

/** A path as tests write it down: points with the feed of the move to each, where 0 stands for a rapid move. */
export function pathForTests(xyz: Iterable<number>, feed: Iterable<number>): Path {
  const feeds = Float64Array.from(feed);
  return {
    xyz: Float64Array.from(xyz),
    feed: feeds,
    rapid: Uint8Array.from(feeds, (f) => (f === 0 ? 1 : 0)),
    power: Float32Array.from(feeds, (f) => (f === 0 ? 0 : 1)),
  };
}
