import { choice } from '../../fields/choice-field.ts';
import { length, seconds } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { DEPTH } from '../fields/depths.ts';
import { DRIVE, driving } from '../fields/drive.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  ...DRIVE,
  depth: DEPTH,
  /** How far down at a time; 0 goes down in one. */
  peck: length('peck', { min: 0, max: 100 }),
  retract: choice('retract', { full: 'right out', short: 'up a little' }),
  /** How long it turns at the bottom. */
  dwell: seconds('dwell', { min: 0, max: 60 }),
};

export type DrillCut = CutOf<'drill', typeof FIELDS>;

export function sentence(cut: DrillCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} with the ${bit}, ${s.depth} deep in pecks of ${s.peck}${cut.peck === 0 && ' (in one go)'},
    backing ${s.retract} after each, staying ${s.dwell} at the bottom, ${driving(s)}.`;
}

export function heading(cut: DrillCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return cut.peck > 0 ? say`pecks of ${s.peck}, ${cut.retract} retract` : say`in one go`;
}
