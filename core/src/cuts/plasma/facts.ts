/** What is known of a plasma cut besides its path; places on the sheet, mm. */
export interface PlasmaFacts {
  /** Where it is pierced, in the order of cutting. */
  pierces: { x: number; y: number }[];
  /** Where each loop is come to. */
  starts: { x: number; y: number }[];
  /** Leads that are shorter than asked for, and loops that are pierced on their own line. */
  shorter: number;
  noLead: number;
  /** Places where the kerf is wider than what it cuts or what lies between parts: loops. */
  narrow: readonly Float64Array[];
  /** Among them a slot or a hole that closes, or parts that grow together. */
  closes: boolean;
  /** Some of what stays is no wider than two kerfs. */
  fine: boolean;
  /** Holes that are smaller than the sheet lets come out. */
  tooSmall: { x: number; y: number; diameter: number }[];
  /** Islands that would drop out of what is cut. */
  islands: Float64Array[];
  /** Chosen shapes that overlap, and are cut as one. */
  overlaps: number;
  /** How much of their lines chosen shapes share, and are one there, mm. */
  touching: number;
  /** Points in one place, or lines without a length. */
  empty: number;
  /** Links over pieces that were cut free, high above them. */
  lifted: number;
  /** It is so wide, mm, and taken off by whom. */
  kerf: number;
  by: 'here' | 'controller';
}
