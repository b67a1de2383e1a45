import type { Job } from '../../document/job.ts';
import { PathBuilder } from '../../motion/path.ts';
import { checkMoves } from '../../motion/too-many-moves.ts';
import { flatTrack } from '../../motion/track.ts';
import { formatLength } from '../../quantity/format.ts';
import type { Beam, BeamSettings } from '../../tools/beam/fields.ts';
import { checkOnLines } from '../../ways/checked-lines.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { joinedLines } from '../../ways/joined-lines.ts';
import { neverBurnt } from '../../ways/never-burnt.ts';
import { orderTracks } from '../../ways/order-tracks.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { type CutPart, cutPart } from '../cut-part.ts';
import { WITHOUT_A_SPINDLE } from '../fields/burning.ts';
import type { CutKind, Figure } from '../kind.ts';
import { judgeSettings } from '../laser-settings.ts';
import { freeInsides, openLines } from '../propose.ts';
import { FIELDS, heading, type LaserScore, more, sentence } from './fields.ts';

const RANK = 2;

/** What a new one is set to where its beam has no settings. */
const USUAL = { scorePower: 20, scoreFeed: 1500 };

const figure: Figure = {
  art: '<path d="M12 5V25M30 5V25M48 5V25" fill="none" stroke="black"/>',
  bits: [{ id: 'beam', kind: 'beam', diameter: 0.6, shank: 30, focus: 40 }],
  fields: { power: 20, feed: 1500 },
  caption: 'Scored lines, as wide as the beam',
};

export interface LaserScoreFacts {
  /** Runs between which the beam is off. */
  runs: number;
}

const set = ({ scorePower, scoreFeed }: Pick<BeamSettings, keyof typeof USUAL>) => ({ power: scorePower, feed: scoreFeed }); // prettier-ignore

/** Drawn lines, open or closed, burnt on the surface. */
export const laserScoreKind: CutKind<LaserScore, LaserScoreFacts, Beam> = {
  fields: FIELDS,
  verb: 'Score',
  one: 'a scored line',
  sentence,
  more,
  heading,
  without: { ...WITHOUT_A_SPINDLE, kerf: 'A scored line is burnt on the line, so there is no --kerf; leave it out.' },
  tool: 'beam:0.2',
  figure,
  mark: { look: { tone: 'carved', line: 1.4 }, word: 'scored', lines: true },
  facts: ({ facts, radius }, length) =>
    facts
      ? [
          [String(facts.runs), facts.runs === 1 ? 'line' : 'lines'],
          [length(2 * radius, 2), 'wide'],
        ]
      : [],
  notes: (_, __, own, unit) => [`The lines come out ${formatLength(own.diameter, unit, 2)} wide.`],
  bits: ['beam'],
  rank: () => RANK,
  closedOnly: false,
  carves: true,
  fresh: ({ preset }) => set(preset ?? (USUAL as BeamSettings)),
  fromPreset: (_, preset: BeamSettings) => set(preset),
  toPreset: ({ power, feed }) => ({ scorePower: power, scoreFeed: feed }),
  proposes: () => [openLines, freeInsides],
  goDeep: () => ({}),
  make: scored,
  judge: judgeSettings,
  takenAtOnce: () => 0,
};

function scored(job: Job, cut: LaserScore, _: Beam, artwork: CutArtwork): CutPart<LaserScoreFacts>[] {
  neverBurnt(job.stock.material);
  const lines = artwork.lines();
  checkMoves(cut.passes * lines.reduce((sum, { points }) => sum + points.length / 2, 0), 'number of passes');
  const runs = joinedLines(lines, cut.join, 0);
  if (runs.length === 0)
    throw new CutProblem(
      lines.length === 0
        ? 'No lines are chosen for this cut; choose some on the sheet.'
        : 'All that is chosen are points; choose lines.',
    );
  checkOnLines(runs, lines, cut.join);
  const tracks = runs.map(({ points, closed }) => flatTrack(closed ? points.subarray(0, -2) : points, 0, closed));
  const builder = new PathBuilder();
  const power = cut.power / 100;
  for (const { track, reversed } of orderTracks(tracks, { x: 0, y: 0 })) {
    const { points, closed } = runs[track];
    const n = points.length / 2;
    for (let pass = 0; pass < cut.passes; pass++) {
      const back = closed ? reversed : reversed !== (pass % 2 === 1);
      for (let i = 0; i < n; i++) {
        const k = back ? n - 1 - i : i;
        const [x, y] = [points[2 * k], points[2 * k + 1]];
        if (i === 0 && pass === 0) builder.rapid(x, y, 0);
        else builder.to(x, y, 0, cut.feed, power);
      }
    }
  }
  const facts = { runs: runs.length };
  return [
    cutPart({ ...cut, plunge: 0, speed: 0 }, RANK, {
      path: builder.done(),
      facts,
      passes: cut.passes,
      flat: true,
      power,
      air: cut.air,
    }),
  ];
}
