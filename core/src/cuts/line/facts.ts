/** What is known of lines besides their path. */
export interface LineFacts {
  /** Runs between which the bit lifts. */
  runs: number;
  /** Width of the groove at the top of the stock, mm. */
  width: number;
}
