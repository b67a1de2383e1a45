import { choice } from '../../fields/choice-field.ts';
import { length } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { AIR, BURNING, PASSES } from '../fields/burning.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  ...BURNING,
  ...AIR,
  ...PASSES,
  side: choice(
    'side',
    {
      nested: 'cut out, holes and all',
      outside: 'cut out, all of it',
      inside: 'cut away, all of it',
      on: 'cut along its lines',
    },
    { initial: 'nested' },
  ),
  /** How wide a kerf the beam leaves; half of it is kept aside of the lines. */
  kerf: length('kerf', { min: 0, max: 5 }),
  /** How far a closed line is cut past its start. */
  overburn: length('overburn', { min: 0, max: 20, initial: 0.3 }),
};

export type LaserCut = CutOf<'laser-cut', typeof FIELDS>;

export function sentence(cut: LaserCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} ${s.side}, with the ${bit} at ${s.power}, feeding ${s.feed} in ${s.passes}, ${s.air}; half its kerf of ${s.kerf} beside the lines.`;
}

export function more(cut: LaserCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`Closed lines are cut ${s.overburn} past their start.`;
}

export function heading(cut: LaserCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${s.side}${cut.passes > 1 && say`, ${s.passes}`}, kerf ${s.kerf} taken off here, ${s.air}`;
}
