import type { Picture } from '../picture.ts';
import type { Beam } from './fields.ts';

/** Highest that the head is drawn, mm; see `turnedPicture`. */
const TALL = 1000;

/** A beam seen from the side, to scale: it narrows from its lens to where it burns, and opens again below. */
export function beamPicture({ diameter, shank, focus }: Beam): Picture {
  const [r, s] = [diameter / 2, shank / 2];
  const lens = Math.max(r, s / 3);
  const mouth = Math.min(focus, 6);
  const wide = r + ((lens - r) * mouth) / focus;
  return {
    parts: [
      { look: 'shank', points: [[-2 * wide, mouth], [-s, 4 * mouth], [-s, TALL], [s, TALL], [s, 4 * mouth], [2 * wide, mouth]] }, // prettier-ignore
      { look: 'cutter', points: [[-r, 0], [r, 0], [wide, mouth], [-wide, mouth]] }, // prettier-ignore
    ],
  };
}
