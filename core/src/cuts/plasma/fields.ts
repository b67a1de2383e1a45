import { choice } from '../../fields/choice-field.ts';
import { listOf } from '../../fields/list-field.ts';
import { count, feed, length, percent, seconds } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { coming, LEAD } from '../fields/lead.ts';
import { PLACE } from '../fields/places.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  feed: feed('feed', {
    above: 0,
    max: 50_000,
    none: 'so the torch would stand; give mm a minute, for example 2000',
  }),
  side: choice(
    'side',
    {
      nested: 'as parts with holes',
      outside: 'as parts',
      inside: 'as holes',
      on: 'on the lines',
    },
    { initial: 'nested' },
  ),
  /** How wide the arc cuts. */
  kerf: length('kerf', {
    min: 0,
    max: 20,
    needed: 'Say how wide the arc cuts with --kerf, for example --kerf 1.5.',
  }),
  /** Who takes the kerf off: once, and never twice. */
  by: choice(
    'kerf taken',
    { here: 'taken off here', controller: 'left to the controller' },
    { initial: 'here', option: 'kerf-by' },
  ),
  /** On which side of its way the arc cuts square. */
  swirl: choice('square edge', { right: 'on the right', left: 'on the left' }, { initial: 'right', option: 'square-edge' }), // prettier-ignore
  pierceHeight: length('pierce height', {
    above: 0,
    max: 50,
    needed: 'Say how high it pierces with --pierce-height, for example --pierce-height 3.8.',
  }),
  pierceDelay: seconds('pierce delay', {
    min: 0,
    max: 30,
    needed: 'Say how long it pierces with --pierce-delay, in seconds, for example --pierce-delay 0.8.',
  }),
  cutHeight: length('cut height', {
    above: 0,
    max: 50,
    needed: 'Say how high it cuts with --cut-height, for example --cut-height 1.5.',
  }),
  lead: LEAD,
  /** How far it goes on beside the outside of a part. */
  out: length('lead out', { min: 0, max: 100, initial: 2 }),
  /** How far a hole is cut past its start. */
  overburn: length('overburn', { min: 0, max: 20, initial: 2 }),
  /** Holes up to this across, and arcs of half of it, are cut slower; common practice: up to about 1 1/4 in. */
  small: length('small up to', { min: 0, max: 500, initial: 32 }),
  slower: percent('slower to', { min: 10, max: 100, initial: 60 }),
  /** What becomes of holes that are too small for the sheet. */
  tooSmall: choice(
    'holes too small',
    { cut: 'are cut all the same', mark: 'are only pierced, to be drilled', leave: 'are left' },
    { initial: 'cut', option: 'too-small' },
  ),
  tabs: count('tabs', 'tabs', { min: 0, max: 20, initial: 0 }),
  tab: length('tab length', { above: 0, max: 20, initial: 0.6, option: 'tab-length' }),
  /** Bars that tie what would drop out of a hole; 0 for none. */
  bridge: length('bridges', { min: 0, max: 50, initial: 0 }),
  /** Heights of links, and over what was cut free. */
  rise: length('rise', { above: 0, max: 200, initial: 10 }),
  over: length('rise over freed pieces', { above: 0, max: 300, initial: 40, option: 'rise-over' }),
  /** Where loops are come to, on the sheet; none lets Kerbe choose. */
  start: listOf('starts', PLACE, 1000),
};

export type PlasmaCut = CutOf<'plasma', typeof FIELDS>;

export function sentence(cut: PlasmaCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} ${s.side}, with the ${bit}: a kerf of ${s.kerf}, ${s.by}. Pierced ${s.pierceHeight} high for
    ${s.pierceDelay}, cut ${s.cutHeight} high, feeding ${s.feed}; come to ${coming(s.lead, cut.lead)} through the scrap.`;
}

export function more(cut: PlasmaCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`The square edge is ${s.swirl} of the way. A part is left ${s.out} past its start, a hole cut ${s.overburn} past it;
    holes up to ${s.small} across and arcs as tight are cut at ${s.slower} of the feed, and holes too small for the sheet ${
      s.tooSmall
    }. Held by ${s.tabs}${cut.tabs > 0 && say` of ${s.tab}`}; islands tied by bars of ${s.bridge}${
      cut.bridge === 0 && ' (none)'
    }. Between cuts ${s.rise} over the sheet, and ${s.over} over what was cut free where it cannot be gone round.`;
}

export function heading(cut: PlasmaCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${s.side}, kerf ${s.kerf} ${s.by}, pierce ${s.pierceHeight} for ${s.pierceDelay}, cut height ${s.cutHeight}${
    cut.tabs > 0 && say`, ${s.tabs} of ${s.tab}`
  }${cut.bridge > 0 && say`, bars of ${s.bridge}`}`;
}
