import type { LinesAcross } from '../../ways/lines-across.ts';

/** What is known of drawn lines besides their path. */
export interface DragFacts {
  /** Runs between which the point lifts. */
  runs: number;
  /** Width of a line, mm. */
  width: number;
  /** How much of a line the next one covers, as a share of its width; below 0 a stripe stays between them. */
  overlap: number | null;
  /** How many lines cross each stroke of a filling. */
  across: LinesAcross | null;
  /** Deepest that a nose lets the point go, mm. */
  nose: number | null;
  /** Places that the line's width closes up, or that it is too wide for: loops on the sheet, mm. */
  closed: readonly Float64Array[];
}
