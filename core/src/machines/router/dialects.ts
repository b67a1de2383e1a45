import type { Dialect } from '../../program/dialect.ts';
import { BY_OPERATOR, byProgram } from './post.ts';

/** A router's dialect also says who starts the spindle: the program (M3), or whoever stands there, asked by a pause (M0). */
export interface RouterDialect extends Dialect {
  spindle: 'program' | 'operator';
}

/** Seconds a small spindle takes to its speed, where no bench says. */
const USUAL_START = 3;

const PLAIN: RouterDialect = {
  label: 'one program, arcs, spindle by program',
  decimals: 3,
  spindle: 'program',
  bits: 'one-program',
  arcs: 'centre',
  drilling: 'moves',
  numbers: 0,
  comment: 'brackets',
  park: 'place',
  post: byProgram(USUAL_START),
};

export const DIALECTS = {
  plain: PLAIN,
  'operator-spindle': {
    ...PLAIN,
    label: 'one program a bit, spindle by hand',
    spindle: 'operator',
    bits: 'one-each',
    post: BY_OPERATOR,
  },
  'lines-only': { ...PLAIN, label: 'one program, straight lines only', arcs: 'none', comment: 'semicolon' },
  numbered: {
    ...PLAIN,
    label: 'numbered lines, arcs by radius, drilling cycles',
    arcs: 'radius',
    drilling: 'cycles',
    numbers: 10,
  },
} satisfies Record<string, RouterDialect>;

export type DialectName = keyof typeof DIALECTS;
