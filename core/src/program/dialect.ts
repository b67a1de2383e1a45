import type { DIALECT_NAMES } from '../document/bench.ts';

/** How a controller wants its RS-274 text; differences are data, not code. */
export interface Dialect {
  /** What it is for, in a few words. */
  label: string;
  decimals: number;
  /** Start the spindle by M3, or stop (M0) and ask the operator to. */
  spindle: 'program' | 'operator';
  /** One program with bit changes (M6), or one for each bit. */
  bits: 'one-program' | 'one-each';
  /** Arcs by their centre from the start (I J), by their radius (R), or none. */
  arcs: 'centre' | 'radius' | 'none';
  /** Drilling by the controller's own cycles (G81 to G83) or by plain moves. */
  drilling: 'cycles' | 'moves';
  /** Lines numbered in steps of this; 0 for none. */
  numbers: number;
  comment: 'brackets' | 'semicolon';
  /**
   * Where the bit goes at the end: the bench’s parking place, over the job’s zero as high as the machine goes, or it
   * stays where it is, lifted.
   */
  park: 'place' | 'zero' | 'stay';
}

const PLAIN: Dialect = {
  label: 'one program, arcs, spindle by program',
  decimals: 3,
  spindle: 'program',
  bits: 'one-program',
  arcs: 'centre',
  drilling: 'moves',
  numbers: 0,
  comment: 'brackets',
  park: 'place',
};

export const DIALECTS: Record<(typeof DIALECT_NAMES)[number], Dialect> = {
  plain: PLAIN,
  'operator-spindle': {
    ...PLAIN,
    label: 'one program a bit, spindle by hand',
    spindle: 'operator',
    bits: 'one-each',
  },
  'lines-only': { ...PLAIN, label: 'one program, straight lines only', arcs: 'none', comment: 'semicolon' },
  numbered: {
    ...PLAIN,
    label: 'numbered lines, arcs by radius, drilling cycles',
    arcs: 'radius',
    drilling: 'cycles',
    numbers: 10,
  },
};
