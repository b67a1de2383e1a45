import { dither } from '../../artwork/greys/dither.ts';
import type { PlacedGreys } from '../../artwork/greys/grey-map.ts';
import { type Crop, type DotGrid, type Sampled, sampled } from '../../artwork/greys/sampled.ts';
import { toneTable } from '../../artwork/greys/tone.ts';
import { radians } from '../../quantity/units.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import type { LaserPicture } from './fields.ts';

/** Most dots of a picture: a field of 900 by 900 mm at 10 a millimetre. */
const MOST_DOTS = 81e6;

/** What of a picture is burnt: of every dot its step of power, 0 blank to 255 black; dots alone have 0 and 255. */
export interface BurntDots extends DotGrid {
  powers: Uint8Array;
}

/** Samples of each picture, one for each place where it lies: while tones are changed they stay as they are. */
const kept = new WeakMap<object, Map<string, Sampled>>();
/** More dots than this are not kept of a picture. */
const MOST_KEPT = 24e6;

function keptSample(
  picture: PlacedGreys,
  crop: Crop,
  pitch: number,
  angle: number,
  check: (dots: number) => void,
): Sampled {
  const key = JSON.stringify([crop, pitch, angle, picture.map]);
  const all = kept.get(picture.grey) ?? new Map<string, Sampled>();
  kept.set(picture.grey, all);
  const sample = all.get(key) ?? sampled(picture, crop, pitch, angle, check);
  // The one used last is the last that goes.
  all.delete(key);
  all.set(key, sample);
  let dots = [...all.values()].reduce((sum, { greys }) => sum + greys.length, 0);
  for (const [oldest, { greys }] of all) {
    if (dots <= MOST_KEPT) break;
    all.delete(oldest);
    dots -= greys.length;
  }
  return sample;
}

/** A picture as dots, toned as the cut says. @throws {CutProblem} where there would be too many, or nothing is left of it. */
export function dotsOf(picture: PlacedGreys, cut: LaserPicture): BurntDots {
  const { left, right, top, bottom, lines, angle, white } = cut;
  if (left + right >= 100 || top + bottom >= 100)
    throw new CutProblem('So much is cut off that nothing is left of the picture; cut off less than 100 % of it.');
  const crop = { left: left / 100, right: right / 100, top: top / 100, bottom: bottom / 100 };
  const taken = keptSample(picture, crop, 1 / lines, radians(angle), (dots) => {
    if (dots > MOST_DOTS)
      throw new CutProblem(
        `This picture would have ${Math.round(dots / 1e6)} million dots, and ${MOST_DOTS / 1e6} million are the most; make it smaller, or burn fewer lines a millimetre.`,
      );
  });
  const { greys, inside, ...grid } = { ...taken, greys: taken.greys.slice(), inside: taken.inside.slice() };
  const table = toneTable(cut);
  const dots = greys.length;
  for (let k = 0; k < dots; k++) {
    const grey = table[greys[k]];
    greys[k] = grey;
    if (grey >= white) inside[k] = 0;
  }
  if (cut.dither === 'none') {
    for (let k = 0; k < dots; k++) greys[k] = inside[k] ? (greys[k] === 255 ? 1 : 255 - greys[k]) : 0;
    return { ...grid, powers: greys };
  }
  const powers = dither(greys, inside, grid.columns, cut.dither);
  for (let k = 0; k < dots; k++) powers[k] *= 255;
  return { ...grid, powers };
}

/** How much of a source’s power each step has, 0 to 1. */
export function stepShares({ power, least, dither: by }: LaserPicture): Float32Array {
  const most = power / 100;
  const floor = by === 'none' ? (most * least) / 100 : 0;
  return Float32Array.from({ length: 256 }, (_, k) => (k === 0 ? 0 : floor + ((most - floor) * k) / 255));
}
