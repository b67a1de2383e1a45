import { reverseTrack, type Track } from '../motion/track.ts';

/**
 * Offsets run with the wood on the right, which is climb milling under a spindle that turns clockwise; for
 * conventional milling a ring is turned.
 */
export function directed(ring: Track, climb: boolean): Track {
  return climb ? ring : reverseTrack(ring);
}
