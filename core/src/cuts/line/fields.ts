import { length } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { DEPTHS } from '../fields/depths.ts';
import { DRIVE, driving } from '../fields/drive.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  ...DRIVE,
  ...DEPTHS,
  /** Lines whose ends lie within this are gone along in one go. */
  join: length('join', { min: 0, max: 5 }),
};

export type LineCut = CutOf<'line', typeof FIELDS>;

export function sentence(cut: LineCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} as drawn with the ${bit}, ${s.depth} deep, ${s.depthPerPass} a pass, lines whose ends lie within
    ${s.join} of each other in one go, ${driving(s)}.`;
}

export function more(cut: LineCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`The last pass is ${s.lastPass}${cut.lastPass === 0 ? ' (all even)' : ' thin'}.`;
}

export function heading(cut: LineCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`as drawn, ${s.depthPerPass} a pass, joined within ${s.join}`;
}
