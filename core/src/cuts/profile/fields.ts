import { choice } from '../../fields/choice-field.ts';
import { listOf } from '../../fields/list-field.ts';
import { angle, length } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { choiceSlot, type Slot, slotOf, slotsOf } from '../../fields/slot.ts';
import { CLIMB, DEPTHS, FINISH, readSlope, STEEPEST_RAMP } from '../fields/depths.ts';
import { DRIVE, driving } from '../fields/drive.ts';
import { coming, LEAD } from '../fields/lead.ts';
import { PLACE } from '../fields/places.ts';
import { held, TABS } from '../fields/tabs.ts';
import type { About, CutOf } from '../kind.ts';
import type { ProfileFacts } from './facts.ts';

export const FIELDS = {
  ...DRIVE,
  ...DEPTHS,
  side: choice('side of cut #', { outside: 'outside the line', inside: 'inside the line', on: 'on the line' }),
  climb: CLIMB,
  tabs: TABS,
  /** Left at the bottom of the stock; 0 cuts as deep as asked. */
  skin: length('skin', { min: 0, max: 50, initial: 0 }),
  finish: FINISH,
  lead: LEAD,
  /** Slope of the way down; 0 plunges. */
  ramp: {
    ...angle('ramp', { min: 0, max: STEEPEST_RAMP, initial: 0 }),
    options: [{ name: 'ramp', read: (text: string, { label }: { label: string }) => readSlope(text, label) }],
  },
  overlap: length('overlap', { min: 0, max: 100, initial: 0 }),
  /** Where its loops start, on the sheet: each at its point nearest to one of these; none lets Kerbe choose. */
  start: listOf('starts', PLACE, 1000),
};

export type ProfileCut = CutOf<'profile', typeof FIELDS>;

export function sentence(cut: ProfileCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} ${s.side} with the ${bit}, ${s.depth} deep, ${s.depthPerPass} a pass, ${s.climb},
    ${held(s.tabs, cut.tabs)}, ${driving(s)}.`;
}

export function more(cut: ProfileCut, { made }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  // Where its loops start now; there they stay when the carver chooses places.
  const now = ((made?.facts as ProfileFacts | null | undefined)?.starts ?? []).map(({ x, y }) => ({
    x: Math.round(x * 100) / 100,
    y: Math.round(y * 100) / 100,
  }));
  const chosen = choiceSlot(
    'start of the cut',
    { free: 'where it shows least', chosen: 'at places of my own' },
    cut.start.length > 0 ? 'chosen' : 'free',
    (where) => ({ start: where === 'free' ? [] : now.length > 0 ? now : [{ x: 0, y: 0 }] }),
  );
  const [first] = cut.start;
  const along = (axis: 'x' | 'y', name: string): Slot => ({
    ...slotOf(PLACE.fields[axis], first[axis], (value) => ({ start: [{ ...first, [axis]: value as number }] })),
    name,
  });
  return say`The bit comes to the wall ${coming(s.lead, cut.lead)}, goes down at ${s.ramp}${cut.ramp === 0 && ' (straight down)'}
    and overlaps its start by ${s.overlap}. The last pass is ${s.lastPass}${cut.lastPass === 0 ? ' (all even)' : ' thin'};
    ${s.finish} stays on the wall for a last round, and a skin of ${s.skin} at the bottom. It starts ${chosen}${
      cut.start.length > 1 && ', each of its loops at its mark on the sheet'
    }${cut.start.length === 1 && say`: ${along('x', 'start from the left')} from the left, ${along('y', 'start from below')} from below`}.`;
}

export function heading(cut: ProfileCut, tabs: string): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${s.side}, ${s.depthPerPass} a pass, ${s.climb}, ${tabs}`;
}
