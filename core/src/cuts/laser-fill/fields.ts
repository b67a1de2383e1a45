import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { AIR_IF_ASKED, BURNING } from '../fields/burning.ts';
import { SCANNING } from '../fields/scanning.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = { ...BURNING, ...AIR_IF_ASKED, ...SCANNING };

export type LaserFill = CutOf<'laser-fill', typeof FIELDS>;

export function sentence(cut: LaserFill, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} by lines, ${s.lines}, with the ${bit} at ${s.power}, feeding ${s.feed}, ${s.air}.`;
}

export function more(cut: LaserFill): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`The lines lie at ${s.angle} and are burnt ${s.ways}, told ${s.earlier} earlier than the bench says.`;
}

export function heading(cut: LaserFill): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`lines ${s.lines} at ${s.angle}, ${s.ways}, ${s.air}`;
}
