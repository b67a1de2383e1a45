/** What is known of cuts through by a beam besides their path. */
export interface LaserCutFacts {
  /** Lines that are cut, closed and open. */
  lines: number;
  kerf: number;
  /** Holes that lie nearer to an edge than they are wide: the web between burns through. mm. */
  nearEdge: { x: number; y: number; wide: number; web: number }[];
  /** The kerf is wider than a slot, a hole or what lies between parts. */
  closes: boolean;
  /** Places where shapes overlap. */
  overlaps: number;
  /** How much of their lines chosen shapes share, and are one there, mm. */
  touching: number;
  /** Lines whose points lie in one place. */
  empty: number;
}
