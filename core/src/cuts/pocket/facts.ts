import type { Loops } from '../../geometry/clipper.ts';

/** What a pocket leaves. */
export interface PocketFacts {
  /** What no bit reaches, mm², and its outlines on the sheet. */
  left: number;
  leftLoops: Loops;
}
