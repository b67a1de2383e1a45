import { type Raster, rasterOfDots } from '../../artwork/greys/raster.ts';
import type { Job } from '../../document/job.ts';
import { PathBuilder } from '../../motion/path.ts';
import { formatLength } from '../../quantity/format.ts';
import { radians } from '../../quantity/units.ts';
import type { Beam, BeamSettings } from '../../tools/beam/fields.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { dotRows } from '../../ways/dot-rows.ts';
import { neverBurnt } from '../../ways/never-burnt.ts';
import { layRows, type Scanned } from '../../ways/scan-rows.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { type CutPart, cutPart } from '../cut-part.ts';
import { WITHOUT_A_SPINDLE } from '../fields/burning.ts';
import type { CutKind, Figure } from '../kind.ts';
import { judgeSettings } from '../laser-settings.ts';
import { judgeLines, sensibleLines } from '../line-density.ts';
import type { Proposal } from '../propose.ts';
import type { JudgedCut, Remark } from '../remark.ts';
import { dotsOf, stepShares } from './dots.ts';
import { FIELDS, heading, type LaserPicture, more, sentence } from './fields.ts';

const RANK = 1;

/** What a new one is set to where its beam has no settings. */
const USUAL = { fillPower: 40, fillFeed: 6000 };

const figure: Figure = {
  art: '<path d="M8 5H52V25H8Z"/>',
  bits: [{ id: 'beam', kind: 'beam', diameter: 0.6, shank: 30, focus: 40 }],
  fields: { power: 40, feed: 6000, lines: 1.5 },
  caption: 'A picture burnt by lines of 0.6 mm',
};

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

const set = ({ fillPower, fillFeed }: Pick<BeamSettings, keyof typeof USUAL>) => ({ power: fillPower, feed: fillFeed });

/** Pictures burnt on the surface by lines of dots, or by lines of changing power. */
export const laserPictureKind: CutKind<LaserPicture, LaserPictureFacts, Beam> = {
  fields: FIELDS,
  verb: 'Burn picture of',
  one: 'a burnt picture',
  sentence,
  more,
  heading,
  without: WITHOUT_A_SPINDLE,
  tool: 'beam:0.1',
  figure,
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
  bits: ['beam'],
  rank: () => RANK,
  closedOnly: false,
  carves: true,
  fresh: ({ bit, preset }) => ({ ...set(preset ?? (USUAL as BeamSettings)), lines: sensibleLines(bit.diameter) }),
  fromPreset: (_, preset: BeamSettings) => set(preset),
  toPreset: ({ power, feed }) => ({ fillPower: power, fillFeed: feed }),
  fromBit: ({ diameter }) => ({ lines: sensibleLines(diameter) }),
  proposes: () => [freePictures],
  goDeep: () => ({}),
  make: burnt,
  judge: judgePicture,
  takenAtOnce: () => 0,
};

function burnt(job: Job, cut: LaserPicture, _: Beam, artwork: CutArtwork): CutPart<LaserPictureFacts>[] {
  neverBurnt(job.stock.material);
  const placed = artwork.greys();
  if (placed.length === 0)
    throw new CutProblem('No picture is chosen for this cut; bring in a PNG, JPEG or BMP at Artwork and choose it.');
  const pictures = placed.map((picture) => dotsOf(picture, cut));
  const shares = stepShares(cut);
  const builder = new PathBuilder();
  const { limits, lag = 0 } = job.bench;
  const scanning = { angle: radians(cut.angle), feed: cut.feed, bothWays: cut.ways === 'both', limits, lag };
  const scanned = pictures.map((dots) => layRows(builder, dotRows(dots, dots.powers, shares), scanning));
  if (builder.length === 0)
    throw new CutProblem('All of the picture is as light as what is left blank; make it darker, or raise near-white.');
  const sum = (of: (each: Scanned) => number) => scanned.reduce((total, each) => total + of(each), 0);
  let [on, all] = [0, 0];
  for (const { powers } of pictures) {
    for (let k = 0; k < powers.length; k++) on += powers[k];
    all += 255 * powers.length;
  }
  const facts: LaserPictureFacts = {
    pictures: pictures.map((dots) => rasterOfDots(dots, dots.powers)),
    lines: sum(({ lines }) => lines),
    runOut: scanned[0].runOut,
    jumps: sum(({ jumps }) => jumps),
    dark: on / all,
  };
  return [
    cutPart({ ...cut, plunge: 0, speed: 0 }, RANK, {
      path: builder.done(),
      facts,
      flat: true,
      power: cut.power / 100,
      air: cut.air,
    }),
  ];
}

function judgePicture(judged: JudgedCut<LaserPicture, LaserPictureFacts, Beam>): Remark[] {
  return [...judgeSettings(judged), ...judgeLines(judged)];
}
