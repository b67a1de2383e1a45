import type { Bit } from '../../document/bit.ts';
import type { ProfileCut } from '../../document/cut.ts';
import type { Job } from '../../document/job.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { radians } from '../../quantity/units.ts';
import { thickest } from '../../stock/stock.ts';
import { profile, type ProfileSettings } from '../../ways/profile.ts';
import { areaToCut, type CutArtwork, type CutPart, cutPart, endMill } from '../cut-part.ts';
import type { CutKind } from '../kind.ts';
import { withoutFinish } from '../usual-tries.ts';

/** Along outlines, beside or on them, usually right through. */
export const profileKind: CutKind<ProfileCut> = {
  verb: 'Cut out',
  mark: { look: 'way', word: 'cut through' },
  bits: ['end'],
  rank: (cut) => (cut.side === 'outside' ? 4 : 3),
  tabs: (cut) => cut.tabs,
  fresh: ({ through, tabs }) => ({ side: 'outside', depth: through, climb: true, tabs }),
  fromPreset: (_, { depthPerPass }) => ({ depthPerPass }),
  tries: withoutFinish,
  make: profiled,
  details: (cut, length, tabs) =>
    `${cut.side} the line, ${length(cut.depthPerPass)} a pass, ${cut.climb ? 'climb' : 'conventional'}, ${tabs}`,
  takenAtOnce: (cut, depth) => Math.min(cut.depthPerPass, depth),
};

function profiled(job: Job, cut: ProfileCut, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart[] {
  const area = areaToCut(artwork);
  const settings: ProfileSettings = {
    feed: cut.feed,
    plunge: cut.plunge,
    lift: job.stock.lift,
    diameter: endMill(bit, 'Cutting out'),
    side: cut.side,
    depth: cut.depth,
    depthPerPass: cut.depthPerPass,
    lastPass: cut.lastPass,
    skin: cut.skin,
    finish: cut.finish,
    climb: cut.climb,
    tabs: cut.tabs,
    lead: cut.lead,
    ramp: radians(cut.ramp),
    overlap: cut.overlap,
    start: cut.start,
    thickness: thickest(job.stock),
  };
  return [cutPart(cut, profileKind.rank(cut), profile(area, settings, clipper))];
}
