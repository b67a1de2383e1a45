import { choice } from '../../fields/choice-field.ts';
import { angle, count, feed, length, percent } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { FURTHEST } from '../../tools/drag/fields.ts';
import type { About, CutOf } from '../kind.ts';

export const FIELDS = {
  feed: feed('feed', {
    above: 0,
    max: 50_000,
    none: 'so the point would never arrive; give mm a minute, for example 1500',
  }),
  /** How far the spring is pressed: no depth. */
  pressed: length('pressed', {
    above: 0,
    max: FURTHEST,
    needed: 'Say how far the point is pressed with --pressed, for example --pressed 2.5.',
    none: 'so the point would not touch; give how far its spring is pressed, for example 2.5 mm',
  }),
  pattern: choice(
    'pattern',
    {
      outline: 'along the lines as drawn',
      hatch: 'filled with lines',
      cross: 'filled with crossed lines',
      rings: 'filled with rings',
    },
    { initial: 'outline' },
  ),
  /** Distance between the lines of a filling. */
  step: length('step', {
    above: 0,
    max: 50,
    initial: 0.635,
    none: 'so the lines would never end; give the distance between them, for example 0.6mm',
  }),
  angle: angle('angle', { min: -180, max: 180, initial: 45 }),
  /** Whether stripes between the lines are meant. */
  fill: choice('fill', { textured: 'textured', solid: 'solid' }, { initial: 'textured' }),
  passes: count('passes', 'passes', { min: 1, max: 20, initial: 1 }),
  /** Lines whose ends lie within this are gone along in one go. */
  join: length('join', { min: 0, max: 5, initial: 0.1 }),
  /** Height over the stock between lines. */
  rise: length('rise', { above: 0, max: 100, initial: 1 }),
  /** Small letters close up, and are drawn larger, each about its own middle. */
  larger: percent('larger', { min: 0, max: 50, initial: 0 }),
};

export type DragCut = CutOf<'drag', typeof FIELDS>;

/** Whether areas are filled, and not their lines followed. */
export const fills = ({ pattern }: DragCut): boolean => pattern !== 'outline';

export function sentence(cut: DragCut, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  const slanted = cut.pattern === 'hatch' || cut.pattern === 'cross';
  return say`${outlines} with the ${bit} that does not turn, pressed ${s.pressed}, ${s.pattern}${
    fills(cut) && say` ${slanted && say`at ${s.angle} `}${s.step} apart, ${s.fill}`
  }, feeding ${s.feed}.`;
}

export function more(cut: DragCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`Gone over in ${s.passes}, ${s.rise} over the stock between lines${
    !fills(cut) && say`; ends within ${s.join} of each other in one go`
  }. Every shape ${s.larger} larger than drawn.`;
}

export function heading(cut: DragCut): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${s.pattern}${fills(cut) && say`, ${s.step} apart at ${s.angle}, ${s.fill}`}${
    cut.passes > 1 && say`, ${s.passes}`
  }${cut.larger > 0 && say`, ${s.larger} larger`}`;
}
