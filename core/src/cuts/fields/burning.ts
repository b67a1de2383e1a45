import { count, feed, percent } from '../../fields/quantity-field.ts';
import { flag } from '../../fields/choice-field.ts';
import type { Values } from '../../fields/field.ts';

/** How a beam is driven. */
export const BURNING = {
  /** Of the full power of its source. */
  power: percent('power', {
    above: 0,
    max: 100,
    needed: 'Say how much of its power the beam has with --power, for example --power 80%.',
    none: 'so nothing would be burnt; give a share of the full power, for example 80%',
  }),
  feed: feed('feed', {
    above: 0,
    max: 200_000,
    needed: 'Say how fast the beam goes with --feed, in mm a minute, for example --feed 600.',
    none: 'so the beam would burn a hole where it stands; give mm a minute, for example 600',
  }),
};

const WORDS = { yes: 'with air', no: 'without air' };
/** Air through the nozzle, for a beam that follows lines: it blows the melt out, and flames. */
export const AIR = { air: flag('air', WORDS, { initial: true, option: { name: 'no-air', means: false } }) };
/** For a beam that burns a surface: without air the smoke is not blown into it (common practice); some want it all the same. */
export const AIR_IF_ASKED = { air: flag('air', WORDS, { initial: false, option: { name: 'air', means: true } }) };

/** How a beam is driven, as a cut has it. */
export type Burning = Values<typeof BURNING & typeof AIR>;

/** How often lines are gone over. */
export const PASSES = { passes: count('passes', 'passes', { min: 1, max: 20, initial: 1 }) };

/** Options of cuts by a turning tool that mean nothing to a beam, and what to do instead. */
export const WITHOUT_A_SPINDLE: Readonly<Record<string, string>> = {
  speed: 'A beam does not turn, so there is no --speed; how fast it goes is --feed, and how strong it is --power.',
  plunge: 'A beam stays at its height, so there is no --plunge; leave it out.',
  depth: 'How deep a beam burns goes by its power and speed, so there is no --depth; leave it out.',
  'depth-per-pass': 'How deep a beam burns goes by its power and speed; say how often it goes over with --passes.',
  ramp: 'A beam stays at its height, so it has no --ramp; leave it out.',
};
