import { feed, speed } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import type { Slot } from '../../fields/slot.ts';

/** How fast a turning bit goes, and turns. */
export const DRIVE = {
  feed: feed('feed', {
    above: 0,
    max: 50_000,
    none: 'so the bit would never arrive; give mm a minute, for example 1500',
  }),
  plunge: feed('plunge', {
    above: 0,
    max: 50_000,
    none: 'so the bit would never go down; give mm a minute, for example 600',
  }),
  speed: speed('spindle speed', { min: 0, max: 100_000, option: 'speed' }),
};

/** “feeding 1500 mm/min and plunging 600 mm/min at 18000 rpm”. */
export const driving = (s: Record<keyof typeof DRIVE, Slot>): Sentence =>
  say`feeding ${s.feed} and plunging ${s.plunge} at ${s.speed}`;
