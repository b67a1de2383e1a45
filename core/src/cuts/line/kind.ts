import { depthForRadius, radiusAtDepth } from '../../tools/turned.ts';
import { profileOf } from '../../tools/profile-of.ts';
import type { Bit } from '../../tools/turned.ts';
import type { Job } from '../../document/job.ts';
import { PathBuilder } from '../../motion/path.ts';
import { checkMoves } from '../../motion/too-many-moves.ts';
import { flatTrack, reverseTrack } from '../../motion/track.ts';
import { formatLength } from '../../quantity/format.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { checkOnLines } from '../../ways/checked-lines.ts';
import { inPasses } from '../../ways/in-passes.ts';
import { joinedLines } from '../../ways/joined-lines.ts';
import { layTrack } from '../../ways/lay-tracks.ts';
import { orderTracks } from '../../ways/order-tracks.ts';
import { passDepths } from '../../ways/pass-depths.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { freeInsides, openLines } from '../propose.ts';
import { type CutPart, cutPart } from '../cut-part.ts';
import { judgeFloor, shallowOnUneven } from '../floor-remarks.ts';
import type { CutKind } from '../kind.ts';
import type { LineFacts } from './facts.ts';
import { FIELDS, heading, type LineCut, more, sentence } from './fields.ts';
import { figure } from './figure.ts';

const RANK = 2;

/** A usual depth of an engraved line, mm. */
const USUAL_DEPTH = 0.5;

/** Drawn lines, open or closed, followed with the bit's middle on them. */
export const lineKind: CutKind<LineCut, LineFacts, Bit & { tip?: number }> = {
  fields: FIELDS,
  verb: 'Engrave',
  one: 'an engraved line',
  sentence,
  more,
  heading,
  figure,
  mark: { look: { tone: 'carved', line: 2 }, word: 'engraved', lines: true },
  facts: ({ facts }, length) =>
    facts
      ? [
          [String(facts.runs), facts.runs === 1 ? 'line' : 'lines'],
          [length(facts.width, 2), 'wide'],
        ]
      : [],
  notes: (_, { facts }, __, unit) => (facts ? [`The lines come out ${formatLength(facts.width, unit, 2)} wide.`] : []),
  bits: ['v', 'end'],
  finest: (a, b) => (a.tip ?? a.diameter) - (b.tip ?? b.diameter),
  rank: () => RANK,
  closedOnly: false,
  carves: true,
  fresh: ({ depthPerPass, thick }) => {
    const depth = Math.min(USUAL_DEPTH, thick / 3);
    return { depth, depthPerPass: Math.max(depth, depthPerPass), join: 0.1 };
  },
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  proposes: () => [openLines, freeInsides],
  goDeep: (depth) => ({ depth }),
  deeper: ({ depth }, by) => ({ depth: depth + by }),
  make: followed,
  judge: judgeFloor,
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
  onUneven: (_, { depth }, drop) => shallowOnUneven(depth, drop),
};

function followed(job: Job, cut: LineCut, bit: Bit, artwork: CutArtwork): CutPart<LineFacts>[] {
  const profile = profileOf(bit);
  const reach = profile.slope > 0 ? depthForRadius(profile, profile.radius) : Infinity;
  if (cut.depth > reach + 1e-9)
    throw new CutProblem(
      `This bit’s cone is ${formatLength(reach, job.unit, 2)} high, and the lines are deeper; make them shallower, or choose a larger bit.`,
    );
  const lines = artwork.lines();
  const drive = { feed: cut.feed, plunge: cut.plunge, lift: job.stock.lift };
  const depths = passDepths(cut.depth, 0, cut.depthPerPass, cut.lastPass);
  checkMoves(depths.length * lines.reduce((sum, { points }) => sum + points.length / 2, 0), 'depth per pass');
  // What a lift costs, in mm at the feed: up and down again.
  const lift = cut.feed * ((2 * drive.lift) / job.bench.limits.speed.z + cut.depth / cut.plunge);
  const runs = joinedLines(lines, cut.join, lift);
  if (runs.length === 0)
    throw new CutProblem(
      lines.length === 0
        ? 'No lines are chosen for this cut; choose some on the sheet.'
        : 'All that is chosen are points; choose lines, or drill holes there.',
    );
  checkOnLines(runs, lines, cut.join);
  const flat = runs.map(({ points, closed }) => flatTrack(closed ? points.subarray(0, -2) : points, 0, closed));
  const builder = new PathBuilder();
  for (const { track, reversed } of orderTracks(flat, { x: 0, y: 0 }))
    layTrack(builder, inPasses(reversed ? reverseTrack(flat[track]) : flat[track], depths), drive);
  builder.rapid(builder.x, builder.y, drive.lift);
  const facts = { runs: runs.length, width: 2 * radiusAtDepth(profile, cut.depth) };
  return [cutPart(cut, RANK, { path: builder.done(), passes: depths.length, slope: profile.slope, facts })];
}
