import { halved, type Raster, rasterOfDots } from '../../artwork/greys/raster.ts';
import type { Job } from '../../document/job.ts';
import { PathBuilder } from '../../motion/path.ts';
import { formatLength } from '../../quantity/format.ts';
import type { Beam } from '../../tools/beam/fields.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { dotRows } from '../../ways/dot-rows.ts';
import { neverBurnt } from '../../ways/never-burnt.ts';
import { layRows, type Scanned, type ScanRow } from '../../ways/scan-rows.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import type { CutPart } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';
import { engravedPart, engravingFigure, judgeEngraving, LASER_ENGRAVING, scanningOf } from '../laser-engraving.ts';
import type { Proposal } from '../propose.ts';
import { type BurntDots, dotsOf, stepShares } from './dots.ts';
import { FIELDS, heading, type LaserPicture, more, sentence } from './fields.ts';

const RANK = 1;

/** Pictures that no cut takes in so far. */
const freePictures: Proposal = {
  takes: ({ picture, free }) => picture && free,
  why: 'the pictures that no cut has yet',
};

/** What is known of a burnt picture besides its path. */
export interface LaserPictureFacts extends Scanned {
  /** As it will burn: 255 where it is burnt as black is. */
  pictures: Raster[];
  /** How much of it is burnt, black counting whole, 0 to 1. */
  dark: number;
}

/** Pictures burnt on the surface by lines of dots, or by lines of changing power. */
export const laserPictureKind: CutKind<LaserPicture, LaserPictureFacts, Beam> = {
  ...LASER_ENGRAVING,
  fields: FIELDS,
  verb: 'Burn picture of',
  one: 'a burnt picture',
  sentence,
  more,
  heading,
  figure: engravingFigure('A picture burnt by lines of 0.6 mm'),
  mark: { look: { tone: 'carved', line: 1, dash: [6, 4] }, word: 'picture, as it will burn' },
  marks: ({ facts }) =>
    (facts?.pictures ?? []).map((raster) => ({
      look: { tone: 'carved', fill: 'raster' },
      word: 'picture, as it will burn',
      always: true,
      outlines: [],
      circles: [],
      raster,
    })),
  facts: ({ facts }, length) =>
    facts
      ? [
          [String(facts.lines), 'lines'],
          [`${Math.round(100 * facts.dark)} %`, 'burnt'],
          [length(facts.runOut, 1), 'run-out on both sides'],
        ]
      : [],
  notes: (_, { facts }, __, unit) =>
    facts ? [`The head runs on ${formatLength(facts.runOut, unit, 1)} beside each line.`] : [],
  rank: () => RANK,
  closedOnly: false,
  pictures: true,
  proposes: () => [freePictures],
  make: burnt,
  judge: judgeEngraving,
};

async function burnt(job: Job, cut: LaserPicture, _: Beam, artwork: CutArtwork): Promise<CutPart<LaserPictureFacts>[]> {
  neverBurnt(job.stock.material);
  const placed = artwork.greys();
  if (placed.length === 0)
    throw new CutProblem('No picture is chosen for this cut; bring in a PNG, JPEG or BMP at Artwork and choose it.');
  const pictures: BurntDots[] = [];
  for (const picture of placed) {
    pictures.push(dotsOf(picture, cut));
    if (pictures.length < placed.length) await artwork.step((0.5 * pictures.length) / placed.length);
  }
  const rasters = pictures.map((dots) => rasterOfDots(dots, dots.powers));
  artwork.show({ pictures: rasters.map(coarse) });
  await artwork.step(0.5);
  const builder = new PathBuilder();
  const shares = stepShares(cut);
  function* rows(): Generator<ScanRow> {
    for (const dots of pictures) yield* dotRows(dots, dots.powers, shares);
  }
  const all = pictures.reduce((sum, dots) => sum + dots.rows, 0);
  const scanned = await layRows(builder, rows(), scanningOf(job, cut), (lines) =>
    artwork.step(0.5 + (0.5 * lines) / all),
  );
  if (builder.length === 0)
    throw new CutProblem('All of the picture is as light as what is left blank; make it darker, or raise near-white.');
  return engravedPart(cut, RANK, builder.done(), {
    ...scanned,
    pictures: rasters,
    dark: darkness(pictures),
  });
}

/** So many places are seen while the rest is worked out. */
const SEEN_FIRST = 1_200_000;

function coarse(raster: Raster): Raster {
  return raster.dark.length > SEEN_FIRST ? coarse(halved(raster)) : raster;
}

function darkness(pictures: readonly BurntDots[]): number {
  let [on, all] = [0, 0];
  for (const { powers } of pictures) {
    for (let k = 0; k < powers.length; k++) on += powers[k];
    all += 255 * powers.length;
  }
  return on / all;
}
