import { radians } from '../../quantity/units.ts';
import type { Picture } from '../picture.ts';
import type { DragPoint } from './fields.ts';

/** Turns of the spring, as it is drawn. */
const TURNS = 5;
/** How much of the body's bore the spring fills. */
const BORE = 0.7;
/** Highest that the body is drawn, mm; see `turnedPicture`. */
const TALL = 1000;
/** The point is held by a stem so much of the body across. */
const STEM = 0.5;

/** How much of its length the spring keeps when it is pressed flat. */
const FLAT = 0.3;

/**
 * A drag point seen from the side, to scale: the diamond, its stem in the body's bore, and the spring over it, as long as it
 * is when it is at rest, and shorter by as much as it is pressed. With a nose the body reaches down to where the point
 * stands out of it when it is pressed.
 */
export function dragPicture({ angle, diameter, shank, travel, standOut }: DragPoint, pressed = 0): Picture {
  const r = diameter / 2;
  const stem = STEM * r;
  const cone = stem / Math.tan(radians(angle) / 2);
  // Without a nose the body begins where the spring, pressed flat, would bring the point to it.
  const body = (standOut ?? cone + travel) + (standOut === null ? -pressed : 0);
  const seat = (standOut ?? cone + travel) + cone + travel;
  const long = travel / (1 - FLAT) - pressed;
  const s = shank / 2;
  const zigzag = Array.from({ length: 2 * TURNS + 1 }, (_, k): [number, number] => [
    (k % 2 ? 1 : -1) * BORE * r,
    seat + (long * k) / (2 * TURNS),
  ]);
  return {
    parts: [
      { look: 'shank', points: [[-s, seat + long], [-s, TALL], [s, TALL], [s, seat + long]] }, // prettier-ignore
      { look: 'shank', points: [[-r, body], [-r, seat + long], [r, seat + long], [r, body]] }, // prettier-ignore
      {
        look: 'cutter',
        points: [
          [0, 0],
          [stem, cone],
          [stem, seat],
          [-stem, seat],
          [-stem, cone],
        ],
      },
      { look: 'line', points: zigzag },
    ],
  };
}
