import { reverseTrack, type Track, trackAt } from '../motion/track.ts';

/**
 * A line at one depth after the other, without a lift between: there and back, and a loop round and round.
 * @param depths of its passes, mm below the top.
 */
export function inPasses(track: Track, depths: readonly number[]): Track {
  const passes = depths.map((depth, k) => trackAt(!track.closed && k % 2 ? reverseTrack(track) : track, -depth).xyz);
  const xyz = new Float64Array(passes.reduce((sum, pass) => sum + pass.length, 0));
  let at = 0;
  for (const pass of passes) {
    xyz.set(pass, at);
    at += pass.length;
  }
  return { xyz, closed: track.closed, ring: 0, oneWay: true };
}
