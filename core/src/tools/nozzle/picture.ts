import type { Picture } from '../picture.ts';
import type { Nozzle } from './fields.ts';

/** Highest that a torch is drawn, mm; see `turnedPicture`. */
const TALL = 1000;

/** A nozzle seen from the side, to scale: its mouth, its cone and the torch that holds it. */
export function nozzlePicture({ diameter, shank, amps }: Nozzle): Picture {
  const r = diameter / 2;
  const s = shank / 2;
  // A mouth about as wide as a kerf of its current.
  const mouth = Math.min(r / 2, 0.4 + amps / 150);
  const cone = 1.2 * r;
  return {
    parts: [
      { look: 'shank', points: [[-s, 2.4 * r], [-s, TALL], [s, TALL], [s, 2.4 * r]] }, // prettier-ignore
      { look: 'cutter', points: [[-mouth, 0], [mouth, 0], [r, cone], [r, 2.4 * r], [-r, 2.4 * r], [-r, cone]] }, // prettier-ignore
    ],
  };
}
