import type { Hole } from '../../ways/drill.ts';

/** What is known of drilled holes. */
export interface DrillFacts {
  /** In the order they are drilled. */
  holes: Hole[];
  /** Outlines that are neither circles nor points. */
  lost: number;
}
