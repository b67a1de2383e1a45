import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { PathBuilder } from '../../motion/path.ts';
import { formatLength } from '../../quantity/format.ts';
import { radians } from '../../quantity/units.ts';
import type { Beam, BeamSettings } from '../../tools/beam/fields.ts';
import { areaRows } from '../../ways/area-rows.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { neverBurnt } from '../../ways/never-burnt.ts';
import { layRows, type Scanned } from '../../ways/scan-rows.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { areaToCut, type CutPart, cutPart } from '../cut-part.ts';
import { WITHOUT_A_SPINDLE } from '../fields/burning.ts';
import type { CutKind, Figure } from '../kind.ts';
import { judgeSettings } from '../laser-settings.ts';
import { judgeLines, sensibleLines } from '../line-density.ts';
import { freeInsides } from '../propose.ts';
import type { JudgedCut, Remark } from '../remark.ts';
import { FIELDS, heading, type LaserFill, more, sentence } from './fields.ts';

const RANK = 1.25;

/** What a new one is set to where its beam has no settings. */
const USUAL = { fillPower: 40, fillFeed: 6000 };

const figure: Figure = {
  art: '<path d="M8 5H52V25H8Z"/>',
  bits: [{ id: 'beam', kind: 'beam', diameter: 0.6, shank: 30, focus: 40 }],
  fields: { power: 40, feed: 6000, lines: 1.5 },
  caption: 'An area engraved by lines of 0.6 mm',
};

/** What is known of an area engraved by lines besides its path. */
export interface LaserFillFacts extends Scanned {
  /** The spot is wider than some of what is to be filled, which is left out. */
  thin: boolean;
}

const set = ({ fillPower, fillFeed }: Pick<BeamSettings, keyof typeof USUAL>) => ({ power: fillPower, feed: fillFeed });

/** Areas burnt on the surface by lines side by side. */
export const laserFillKind: CutKind<LaserFill, LaserFillFacts, Beam> = {
  fields: FIELDS,
  verb: 'Engrave by laser',
  one: 'a laser engraving',
  sentence,
  more,
  heading,
  without: WITHOUT_A_SPINDLE,
  tool: 'beam:0.1',
  figure,
  mark: { look: { tone: 'carved', fill: 'solid', strength: 0.55 }, word: 'engraved by lines' },
  facts: ({ facts }, length) =>
    facts
      ? [
          [String(facts.lines), 'lines'],
          [length(facts.runOut, 1), 'run-out on both sides'],
        ]
      : [],
  notes: (_, { facts }, own, unit) =>
    facts?.thin
      ? [`Some of it is narrower than the spot of ${formatLength(own.diameter, unit, 2)}, and is left out; score it along its line.`] // prettier-ignore
      : [],
  bits: ['beam'],
  rank: () => RANK,
  closedOnly: true,
  carves: true,
  fresh: ({ bit, preset }) => ({ ...set(preset ?? (USUAL as BeamSettings)), lines: sensibleLines(bit.diameter) }),
  fromPreset: (_, preset: BeamSettings) => set(preset),
  toPreset: ({ power, feed }) => ({ fillPower: power, fillFeed: feed }),
  fromBit: ({ diameter }) => ({ lines: sensibleLines(diameter) }),
  proposes: () => [freeInsides],
  goDeep: () => ({}),
  make: filled,
  judge: judgeFilled,
  takenAtOnce: () => 0,
};

function filled(
  job: Job,
  cut: LaserFill,
  beam: Beam,
  artwork: CutArtwork,
  clipper: Clipper,
): CutPart<LaserFillFacts>[] {
  neverBurnt(job.stock.material);
  const area = areaToCut(artwork);
  // A line is as wide as the spot, and ends in half a round of it.
  const inner = clipper.offset(area, -beam.diameter / 2);
  if (inner.length === 0)
    throw new CutProblem(
      `All that is chosen is narrower than the spot of ${formatLength(beam.diameter, job.unit, 2)}; score it along its lines instead, or take a beam with a smaller spot.`,
    );
  const angle = radians(cut.angle);
  const power = cut.power / 100;
  const builder = new PathBuilder();
  const { limits, lag = 0 } = job.bench;
  const scanned = layRows(builder, areaRows(inner, angle, 1 / cut.lines, power), { angle, feed: cut.feed, bothWays: cut.ways === 'both', limits, lag }); // prettier-ignore
  const opened = clipper.offset(inner, beam.diameter / 2);
  const lost = clipper.difference(area, opened).some((loop) => clipper.offset([loop], -THIN).length > 0);
  const facts = { ...scanned, thin: lost };
  return [
    cutPart({ ...cut, plunge: 0, speed: 0 }, RANK, { path: builder.done(), facts, flat: true, power, air: cut.air }),
  ];
}

/** What no line reaches counts from twice this across, mm: corners that come out round do not. */
const THIN = 0.05;

function judgeFilled(judged: JudgedCut<LaserFill, LaserFillFacts, Beam>): Remark[] {
  const { job, cut, own, result } = judged;
  const out = [...judgeSettings(judged), ...judgeLines(judged)];
  if (result.facts?.thin)
    out.push({
      stop: 'cuts',
      cut: cut.id,
      id: `thin-${cut.id}`,
      weight: 'advice',
      text: `Some of it is narrower than the spot of ${formatLength(own.diameter, job.unit, 2)}, and is left out; score it along its line, or take a beam with a smaller spot.`,
      remedies: [],
    });
  return out;
}
