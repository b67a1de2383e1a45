import { DITHERS } from '../../artwork/greys/dither.ts';
import { choice, flag } from '../../fields/choice-field.ts';
import { count, factor, percent } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { AIR_IF_ASKED, BURNING } from '../fields/burning.ts';
import { SCANNING } from '../fields/scanning.ts';
import type { About, CutOf } from '../kind.ts';

const side = (name: string) => percent(`cut off ${name}`, { min: 0, max: 99, initial: 0, option: `crop-${name}` });

export const FIELDS = {
  ...BURNING,
  ...AIR_IF_ASKED,
  ...SCANNING,
  dither: choice(
    'dither',
    {
      'floyd-steinberg': 'in dots (Floyd–Steinberg)',
      jarvis: 'in dots (Jarvis–Judice–Ninke)',
      atkinson: 'in dots (Atkinson)',
      ordered: 'in a pattern of dots',
      threshold: 'in black and white',
      none: 'in greys by power',
    } satisfies Record<(typeof DITHERS)[number] | 'none', string>,
    { initial: 'floyd-steinberg' },
  ),
  /** Of the power of black, what the lightest grey that is burnt has. */
  least: percent('power of the lightest grey', { min: 0, max: 100, initial: 5, option: 'least' }),
  brightness: percent('brightness', { min: -100, max: 100, initial: 0 }),
  contrast: percent('contrast', { min: -100, max: 100, initial: 0 }),
  gamma: factor('gamma', { min: 0.1, max: 10, initial: 1 }),
  inverted: flag('tones', { no: 'dark is burnt', yes: 'light is burnt' }, { initial: false, option: { name: 'negative', means: true } }), // prettier-ignore
  /** Greys from this on are blank, of 255. */
  white: count('near-white from', '', { min: 1, max: 256, initial: 250, option: 'white' }),
  left: side('left'),
  right: side('right'),
  top: side('top'),
  bottom: side('bottom'),
};

export type LaserPicture = CutOf<'laser-picture', typeof FIELDS>;

export function sentence(cut: LaserPicture, { outlines, bit }: About): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${outlines} ${s.dither}, ${s.lines}, with the ${bit} at ${s.power}, feeding ${s.feed}, ${s.air}. Brightness
    ${s.brightness}, contrast ${s.contrast}, gamma ${s.gamma}; ${s.inverted}, and greys from ${s.white} of 255 are blank.`;
}

export function more(cut: LaserPicture): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`The lines lie at ${s.angle} and are burnt ${s.ways}, told ${s.earlier} earlier than the bench says. Cut off ${s.left} at the left, ${s.right} at the right, ${
    s.top
  } at the top, ${s.bottom} at the bottom.${cut.dither === 'none' && say` The lightest grey has ${s.least} of the power of black.`}`;
}

export function heading(cut: LaserPicture): Sentence {
  const s = slotsOf(FIELDS, cut);
  return say`${s.dither}, lines ${s.lines} at ${s.angle}, ${s.ways}, brightness ${s.brightness}, contrast ${s.contrast}, gamma ${s.gamma}, near-white from ${s.white}, ${s.air}`;
}
