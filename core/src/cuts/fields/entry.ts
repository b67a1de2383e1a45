import { choice } from '../../fields/choice-field.ts';
import { group } from '../../fields/group-field.ts';
import { angle } from '../../fields/quantity-field.ts';
import type { Values } from '../../fields/field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import type { Slots } from '../../fields/slot.ts';
import { readSlope, STEEPEST_RAMP } from './depths.ts';

const FIELDS = {
  kind: choice('way in of cut #', { ramp: 'a ramp', helix: 'a helix', plunge: 'a plunge' }),
  angle: angle('slope of cut #', { above: 0, max: STEEPEST_RAMP }),
};

/** How a bit gets down into the wood; its slope in degrees. `--ramp 0` plunges. */
export const ENTRY = group('the way in', FIELDS, {
  options: [
    {
      name: 'ramp',
      read(text, { now, label }) {
        const slope = readSlope(text, label);
        return slope === 0 ? { ...now, kind: 'plunge' as const } : { kind: 'ramp' as const, angle: slope };
      },
    },
  ],
});

/** “going in by a ramp of 5°”. */
export const goingIn = (s: Slots<typeof FIELDS>, now: Values<typeof FIELDS>): Sentence =>
  say`going in by ${s.kind}${now.kind !== 'plunge' && say` of ${s.angle}`}`;
