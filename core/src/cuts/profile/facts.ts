/** What is known of a cut-out besides its path. */
export interface ProfileFacts {
  /** Where each loop begins, on the sheet. */
  starts: { x: number; y: number }[];
  /** Loops the bit does not fit into. */
  lost: number;
  /** Loops without the lead asked for. */
  noLead: number;
}
