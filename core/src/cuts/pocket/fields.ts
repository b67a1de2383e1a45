import { choice, flag } from '../../fields/choice-field.ts';
import { angle } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { clearBits } from '../fields/clear-bits.ts';
import { CLIMB, DEPTHS, FINISH, START_DEPTH } from '../fields/depths.ts';
import { DRIVE, driving } from '../fields/drive.ts';
import { ENTRY, goingIn } from '../fields/entry.ts';
import { across, shareOfBit } from '../fields/share-of-bit.ts';
import { STEP } from '../fields/step.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  ...DRIVE,
  ...DEPTHS,
  startDepth: START_DEPTH,
  step: STEP,
  pattern: choice('pattern of cut #', { rings: 'rings', lines: 'lines' }),
  /** Direction of lines, degrees from x. */
  angle: angle('angle of the lines', { min: -360, max: 360, initial: 0, option: 'angle' }),
  climb: CLIMB,
  finish: FINISH,
  entry: ENTRY,
  /** Whether rings may begin with a slot as wide as the bit, instead of loops that open the pocket. */
  slots: flag(
    'how rings begin',
    { no: 'opens the pocket with loops', yes: 'cuts a slot of its own width' },
    { initial: false, option: { name: 'slots', means: true } },
  ),
  clearBits: clearBits(true),
};

export type PocketCut = CutOf<'pocket', typeof FIELDS>;

export function sentence(cut: PocketCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} with the ${bit} after ${s.clearBits}, ${s.depth} deep, ${s.depthPerPass} a pass, ${s.climb},
    in ${s.pattern}${cut.pattern === 'lines' && say` at ${s.angle}`} with a step of ${s.step},
    ${goingIn(s.entry, cut.entry)}, ${driving(s)}.`;
}

export function more(cut: PocketCut, { own, unit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`The pocket begins ${s.startDepth} below the top. The last pass is ${s.lastPass}${cut.lastPass === 0 ? ' (all even)' : ' thin'},
    and ${s.finish} stays on the walls for a last round at full depth. Where rings begin, the bit ${s.slots}.${
      own !== undefined &&
      say` The step is ${shareOfBit('step', cut.step, own, (step) => ({ step }))} of the bit, ${across(own, unit)}.`
    }`;
}

export const heading = (cut: PocketCut): Sentence => {
  const s = slotsOf(FIELDS, cut);
  return say`${s.pattern} at ${s.step}, ${s.depthPerPass} a pass, ${s.climb}, in by ${s.entry.kind}`;
};
