import type { MovedOutlines } from '../../ways/moved-outlines.ts';

/** What is known of a cut-out besides its path. */
export interface ProfileFacts {
  /** Where each loop begins, on the sheet. */
  starts: { x: number; y: number }[];
  /** Loops that the bit does not fit into, or not through, or not between. */
  missed: MovedOutlines;
  /** Loops without the lead asked for. */
  noLead: number;
  /** How much of their lines chosen shapes share, and are one there, mm. */
  touching: number;
  /** What holds the part, so that the tabs asked for are left out. */
  heldBy?: 'skin' | 'stock';
}
