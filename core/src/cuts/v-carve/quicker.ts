import { ofKinds } from '../../tools/kinds.ts';
import type { VBit } from '../../tools/v/fields.ts';
import { presetFor } from '../../tools/preset-for.ts';
import { profileOf } from '../../tools/profile-of.ts';
import { ridgeHeight } from '../../tools/turned.ts';
import type { Bit } from '../../tools/turned.ts';
import type { Job } from '../../document/job.ts';
import { formatFeed, formatLength } from '../../quantity/format.ts';
import type { QuickerTry } from '../kind.ts';
import type { VCarveCut } from './fields.ts';

/** A floor step up to this share of the bit is usual where the floor is seen (common practice: 10 %). */
const COARSEST_STEP = 0.1;

/** What may make a carving quicker: plunging faster, a coarser floor, clearing it first, another V-bit. */
export function quicker({ unit, bits, bench, stock }: Job, cut: VCarveCut, own: VBit, name: string): QuickerTry[] {
  const out: QuickerTry[] = [];
  const plunge = Math.min(cut.feed, bench.limits.speed.z);
  if (cut.plunge < plunge)
    out.push({
      what: 'plunge',
      text: `Plunge at ${formatFeed(plunge, unit)} in ${name}`,
      effect: 'usual for lettering, in wood and acrylic; try other materials on scrap first',
      fields: { plunge },
    });
  const step = COARSEST_STEP * own.diameter;
  if (cut.floorStep < step * 0.9) {
    const shape = profileOf(own);
    out.push({
      what: 'step',
      text: `Floor step of ${formatLength(step, unit, 2)} in ${name}`,
      effect: `ridges of ${formatLength(ridgeHeight(shape, step), unit, 2)} instead of ${formatLength(ridgeHeight(shape, cut.floorStep), unit, 2)} on the floor`,
      fields: { floorStep: step },
    });
  }
  const mills = ofKinds<Bit>(bits, ['end']).sort((a, b) => b.diameter - a.diameter);
  if (cut.clearBits.length === 0)
    for (const mill of mills)
      out.push({
        what: 'clear',
        which: mill.id,
        text: `Clear the floor of ${name} with ${mill.name} first`,
        effect: 'a smooth floor, and a bit change more',
        fields: { clearBits: [mill.id] },
      });
  for (const other of ofKinds<VBit>(bits, ['v']).filter((b) => b.id !== own.id && b.tip <= own.tip)) {
    const preset = presetFor(other, stock);
    const settings = preset ? { feed: preset.feed, plunge: preset.plunge, speed: preset.speed } : {};
    out.push({
      what: 'bit',
      which: other.id,
      text: `Carve ${name} with ${other.name}`,
      effect: (other.angle ?? 0) > (own.angle ?? 0) ? 'softer shadows' : 'deeper shadows',
      fields: { ...settings, bit: other.id },
    });
  }
  return out;
}
