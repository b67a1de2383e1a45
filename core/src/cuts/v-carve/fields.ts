import { profileOf } from '../../tools/profile-of.ts';
import { ridgeHeight } from '../../tools/turned.ts';
import { optional } from '../../fields/optional-field.ts';
import { length } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { choiceSlot, type Slot, slotsOf } from '../../fields/slot.ts';
import { clearBits } from '../fields/clear-bits.ts';
import { DEPTH_LIMIT, DEPTH_PER_PASS, START_DEPTH } from '../fields/depths.ts';
import { DRIVE, driving } from '../fields/drive.ts';
import { across, shareOfBit } from '../fields/share-of-bit.ts';
import type { About, CutOf } from '../kind.ts';

/** Finest floor step that a ridge or a share may ask for, mm. */
const FINEST_STEP = 0.02;

export const FIELDS = {
  ...DRIVE,
  depthLimit: DEPTH_LIMIT,
  floorStep: length('floor step', {
    above: 0,
    max: 50,
    option: 'step',
    share: true,
    none: 'so the floor would never be finished; give for example 0.5mm',
  }),
  startDepth: START_DEPTH,
  /** Most that is taken at once; null carves in one go. */
  depthPerPass: optional(DEPTH_PER_PASS),
  clearBits: clearBits(false),
};

export type VCarveCut = CutOf<'v-carve', typeof FIELDS>;

export function sentence(cut: VCarveCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} with the ${bit}, no deeper than ${s.depthLimit}, floors at steps of ${s.floorStep} after ${s.clearBits},
    ${driving(s)}.`;
}

export function more(cut: VCarveCut, { own, unit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  const passes = choiceSlot(
    'passes of the carving',
    { one: 'in one go', many: 'in passes' },
    cut.depthPerPass === null ? 'one' : 'many',
    (chosen) => ({ depthPerPass: chosen === 'one' ? null : Math.max(1, cut.depthLimit / 2) }),
  );
  const step = (floorStep: number) => ({ floorStep });
  const shape = own && profileOf(own);
  const ridge: Slot = {
    name: 'ridge height',
    control: { is: 'quantity', quantity: 'length', min: 0, max: 10 },
    value: shape ? ridgeHeight(shape, cut.floorStep) : 0,
    set: (height) => (shape ? step(Math.max(FINEST_STEP, 2 * (height as number) * shape.slope + 2 * shape.flat)) : {}),
  };
  return say`Carving begins ${s.startDepth} below the top, ${passes}${cut.depthPerPass !== null && say` of ${s.depthPerPass}`}.
    The floor step leaves ridges of ${ridge}${
      shape !== undefined &&
      own !== undefined &&
      say`, and is ${shareOfBit('floor step', cut.floorStep, own, step)} of the bit, ${across(own, unit)}`
    }.`;
}

export function heading(cut: VCarveCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`depth limit ${s.depthLimit}, floor step ${s.floorStep}`;
}
