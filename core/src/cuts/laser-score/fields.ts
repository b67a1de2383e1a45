import { length } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { AIR, BURNING, PASSES } from '../fields/burning.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  ...BURNING,
  ...AIR,
  ...PASSES,
  /** Lines whose ends lie within this are gone along in one go. */
  join: length('join', { min: 0, max: 5, initial: 0.1 }),
};

export type LaserScore = CutOf<'laser-score', typeof FIELDS>;

export function sentence(cut: LaserScore, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} along their lines with the ${bit} at ${s.power}, feeding ${s.feed} in ${s.passes}, ${s.air}.`;
}

export function more(cut: LaserScore): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`Lines whose ends lie within ${s.join} of each other are gone along in one go.`;
}

export function heading(cut: LaserScore): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`along the lines${cut.passes > 1 && say`, ${s.passes}`}, ${s.air}`;
}
