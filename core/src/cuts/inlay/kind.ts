import type { Bit } from '../../document/bit.ts';
import type { InlayCut } from '../../document/cut.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { radians } from '../../quantity/units.ts';
import { pocket } from '../../ways/pocket.ts';
import { profile } from '../../ways/profile.ts';
import { usualStep } from '../../bits/bit.ts';
import { areaToCut, type CutArtwork, type CutPart, cutPart, endMill } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';
import { byARamp, withUsualStep } from '../usual-tries.ts';
import { fitWords } from './fit-words.ts';
import { inlayFit } from './inlay-fit.ts';

/** One half of an inlay: the recess, which is a pocket, or the part, which is cut out. */
export const inlayKind: CutKind<InlayCut> = {
  verb: 'Inlay',
  title: (cut) => `Inlay ${cut.role} of`,
  mark: { look: 'crossed', word: 'inlay' },
  bits: ['end'],
  rank: (cut) => (cut.role === 'recess' ? 2.5 : 4),
  tabs: (cut) => cut.tabs,
  fresh: ({ bit, thick, step, entry, tabs }) => ({
    role: 'recess',
    otherDiameter: bit.diameter,
    allowance: 0.06,
    depth: Math.min(thick / 3, bit.flute),
    step,
    climb: true,
    entry,
    tabs: { ...tabs, count: 0 },
    shift: { x: 0, y: 0 },
  }),
  // The part is laid beside the recess when its outlines are known.
  beside: (cut) => [{ ...cut, id: `${cut.id}-part`, role: 'part', tabs: { ...cut.tabs, count: 3 } }],
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  fromBit: (bit) => ({ step: usualStep(bit) }),
  tries: (_, own) => [...withUsualStep(own), ...byARamp(own)],
  make: inlaid,
  details: (cut, length, tabs, unit) =>
    `${cut.role}, ${fitWords(cut.allowance, unit)}, ${length(cut.depthPerPass)} a pass${cut.role === 'part' ? `, ${tabs}` : ''}`,
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
};

function inlaid(job: Job, cut: InlayCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart[] {
  const area = areaToCut(artwork);
  const diameter = endMill(bit, 'An inlay');
  const fit = inlayFit(area, Math.max(diameter, cut.otherDiameter) / 2, cut.allowance, clipper);
  const drive = { feed: cut.feed, plunge: cut.plunge, lift: job.stock.lift, diameter };
  if (cut.role === 'recess') {
    const { path, left, passes } = pocket(
      fit.recess,
      {
        ...drive,
        depth: cut.depth,
        depthPerPass: cut.depthPerPass,
        lastPass: cut.lastPass,
        step: cut.step,
        pattern: 'rings',
        angle: 0,
        climb: cut.climb,
        limits: job.bench.limits,
        finish: 0,
        entry: { kind: cut.entry.kind, angle: radians(cut.entry.angle) },
      },
      clipper,
    );
    return [cutPart(cut, inlayKind.rank(cut), { path, left, passes, gap: fit.gap, pinched: fit.pinched })];
  }
  const laid = fit.part.map((loop) => loop.map((v, i) => v + (i % 2 ? cut.shift.y : cut.shift.x)));
  const made = profile(
    laid,
    {
      ...drive,
      side: 'outside',
      depth: cut.depth,
      depthPerPass: cut.depthPerPass,
      lastPass: cut.lastPass,
      climb: cut.climb,
      tabs: cut.tabs,
      ramp: cut.entry.kind === 'plunge' ? 0 : radians(cut.entry.angle),
      thickness: cut.depth,
    },
    clipper,
  );
  return [cutPart(cut, inlayKind.rank(cut), { ...made, gap: fit.gap, pinched: fit.pinched })];
}
