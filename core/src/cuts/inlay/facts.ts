import type { ProfileFacts } from '../profile/facts.ts';

/** How the halves of an inlay fit. */
export interface InlayFacts {
  /** What holds the part where its tabs are not needed. */
  heldBy?: ProfileFacts['heldBy'];
  /** Smallest and largest gap between the halves, mm a side. */
  gap: { least: number; most: number };
  /** Places where the two halves do not fit, as edges lie nearer to each other than the bit is wide. */
  pinched: number;
}
