import type { StateRow } from '../runner/table-row.ts';

/** What a kind of machine adds to the rows that every bench has. */
export interface KindAdds {
  /** Taken wherever it stands, also where it has stopped by itself. */
  standing: StateRow['takes'];
  /** Taken where it stands homed. */
  ready: StateRow['takes'];
  /** What may happen while a program runs. */
  running: StateRow['events'];
}
