import { choice } from '../../fields/choice-field.ts';
import { group } from '../../fields/group-field.ts';
import { length } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import { CLIMB, DEPTHS } from '../fields/depths.ts';
import { DRIVE, driving } from '../fields/drive.ts';
import { ENTRY, goingIn } from '../fields/entry.ts';
import { STEP } from '../fields/step.ts';
import { held, TABS } from '../fields/tabs.ts';
import type { About, CutOf } from '../kind.ts';
import { fitWords } from './fit-words.ts';

const away = (name: string) => length(name, { min: -10_000, max: 10_000, option: false });

export const FIELDS = {
  ...DRIVE,
  ...DEPTHS,
  role: choice('half of the inlay', { recess: 'the recess', part: 'the part' }, { option: false }),
  /** Diameter of the bit that makes the counterpart; corners are rounded for the larger of the two. */
  otherDiameter: length('diameter of the other bit', { above: 0, max: 200, option: false }),
  /** Of the pair, a side: a gap, below 0 a press. */
  allowance: length('fit', { min: -1, max: 2, option: 'allowance' }),
  step: STEP,
  climb: CLIMB,
  entry: ENTRY,
  /** Of the part only. */
  tabs: TABS,
  /** Left under the part, which holds it all round until it is sanded off; of the part only. */
  skin: length('skin', { min: 0, max: 50, initial: 0 }),
  /** Where the part is laid beside its place. */
  shift: group('the shift', { x: away('shift to the right'), y: away('shift upwards') }),
};

export type InlayCut = CutOf<'inlay', typeof FIELDS>;

export function sentence(cut: InlayCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  const fit = cut.allowance === 0 ? 'neither gap nor press' : cut.allowance > 0 ? 'a gap' : 'a press';
  return say`${outlines} with the ${bit}, ${s.depth} deep, ${s.depthPerPass} a pass, ${s.climb}, as ${s.role},
    the two fitting with ${s.allowance} a side (${fit}; below 0 they overlap) and corners round enough for the other half’s bit
    of ${s.otherDiameter}, ${goingIn(s.entry, cut.entry)}, ${
      cut.role === 'recess'
        ? say`step ${s.step}`
        : say`laid ${s.shift.x} to the right and ${s.shift.y} up, ${held(s.tabs, cut.tabs)}, with a skin of ${s.skin} under it`
    }, ${driving(s)}.`;
}

export function heading(cut: InlayCut, tabs: string, unit: LengthUnit): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${cut.role}, ${fitWords(cut.allowance, unit)}, ${s.depthPerPass} a pass${cut.role === 'part' && say`, ${tabs}${cut.skin > 0 && say`, skin ${s.skin}`}`}`;
}
