import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { PathBuilder } from '../../motion/path.ts';
import { formatLength } from '../../quantity/format.ts';
import type { Beam } from '../../tools/beam/fields.ts';
import { areaRows } from '../../ways/area-rows.ts';
import { checkRows } from '../../ways/checked-rows.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { neverBurnt } from '../../ways/never-burnt.ts';
import { layRows, type Scanned } from '../../ways/scan-rows.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { areaToCut, type CutPart } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';
import { engravedPart, engravingFigure, judgeEngraving, LASER_ENGRAVING, scanningOf } from '../laser-engraving.ts';
import { freeInsides } from '../propose.ts';
import type { JudgedCut, Remark } from '../remark.ts';
import { FIELDS, heading, type LaserFill, more, sentence } from './fields.ts';

const RANK = 1.25;

/** What is known of an area engraved by lines besides its path. */
export interface LaserFillFacts extends Scanned {
  /** The spot is wider than some of what is to be filled, which is left out. */
  thin: boolean;
}

/** Areas burnt on the surface by lines side by side. */
export const laserFillKind: CutKind<LaserFill, LaserFillFacts, Beam> = {
  ...LASER_ENGRAVING,
  fields: FIELDS,
  verb: 'Engrave by laser',
  one: 'a laser engraving',
  sentence,
  more,
  heading,
  figure: engravingFigure('An area engraved by lines of 0.6 mm'),
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
  rank: () => RANK,
  closedOnly: true,
  proposes: () => [freeInsides],
  make: filled,
  judge: judgeFilled,
};

async function filled(
  job: Job,
  cut: LaserFill,
  beam: Beam,
  artwork: CutArtwork,
  clipper: Clipper,
): Promise<CutPart<LaserFillFacts>[]> {
  neverBurnt(job.stock.material);
  const area = areaToCut(artwork);
  // A line is as wide as the spot, and ends in half a round of it.
  const inner = clipper.offset(area, -beam.diameter / 2);
  if (inner.length === 0)
    throw new CutProblem(
      `All that is chosen is narrower than the spot of ${formatLength(beam.diameter, job.unit, 2)}; score it along its lines instead, or take a beam with a smaller spot.`,
    );
  await artwork.step(0.2);
  const builder = new PathBuilder();
  const scanning = scanningOf(job, cut);
  const rows = areaRows(inner, scanning.angle, 1 / cut.lines, cut.power / 100);
  checkRows(rows, scanning.angle, area, beam.diameter / 2);
  const scanned = await layRows(builder, rows, scanning);
  const opened = clipper.offset(inner, beam.diameter / 2);
  const lost = clipper.difference(area, opened).some((loop) => clipper.offset([loop], -THIN).length > 0);
  return engravedPart(cut, RANK, builder.done(), { ...scanned, thin: lost });
}

/** What no line reaches counts from twice this across, mm: corners that come out round do not. */
const THIN = 0.05;

function judgeFilled(judged: JudgedCut<LaserFill, LaserFillFacts, Beam>): Remark[] {
  const { job, cut, own, result } = judged;
  const out: Remark[] = judgeEngraving(judged);
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
