import { ofKinds } from '../../tools/kinds.ts';
import { presetFor } from '../../tools/preset-for.ts';
import { profileOf } from '../../tools/profile-of.ts';
import type { VBit } from '../../tools/v/fields.ts';
import { formatLength, formatMinutes } from '../../quantity/format.ts';
import { thickest } from '../../stock/stock.ts';
import { resized } from '../../artwork/artwork-scale.ts';
import { deepestFloor } from '../past-the-stock.ts';
import { type JudgedCut, type Remark, type Remedy, setCut } from '../remark.ts';
import type { VCarveCut } from './fields.ts';
import { FLOOR_WORTH_SAYING, NARROW_WORTH_SAYING, type VCarveFacts } from './facts.ts';

type Judged = JudgedCut<VCarveCut, VCarveFacts, VBit>;

/** Carvings that go through the stock, shapes too thin for the tip, and strokes too wide for the depth limit. */
export async function judgeCarving(judged: Judged): Promise<Remark[]> {
  const { job, cut, index, result } = judged;
  const { stock, unit } = job;
  const { facts } = result;
  const remarks: Remark[] = [];
  const about = { stop: 'cuts', cut: cut.id } as const;
  const bit = judged.own;
  const thin = Math.min(...stock.corners);
  if (result.depth > thin)
    remarks.push({
      ...about,
      id: `deeper-${cut.id}`,
      weight: 'wrong',
      text: `The carving goes ${formatLength(result.depth, unit)} deep, and the stock is ${formatLength(thin, unit)} at its thinnest corner.`,
      remedies: [
        {
          label: `Carve no deeper than ${formatLength(deepestFloor(stock), unit)}`,
          patch: setCut(index, { depthLimit: deepestFloor(stock) }),
        },
      ],
    });
  if (facts && facts.tooNarrow > NARROW_WORTH_SAYING) {
    const finer = ofKinds<VBit>(job.bits, ['v'])
      .filter((b) => b.tip < bit.tip)
      .sort((a, b) => a.tip - b.tip)[0];
    remarks.push({
      ...about,
      id: `narrow-${cut.id}`,
      weight: 'wrong',
      text: `${formatLength(facts.tooNarrow, unit)} of thin line is narrower than the ${formatLength(bit.tip, unit, 2)} tip of ${bit.name} and would stay blank.`,
      remedies: finer
        ? [{ label: `Use ${finer.name}`, patch: setCut(index, { bit: finer.id }) }]
        : [
            {
              label: 'Make the artwork a quarter larger',
              patch: cut.targets.flatMap(({ item }) => larger(judged, item)),
            },
          ],
    });
  }
  if (facts && facts.floorArea > FLOOR_WORTH_SAYING) {
    const remedies = [...(await widerBit(judged)), ...deeper(judged, facts)];
    remarks.push({
      ...about,
      id: `wide-${cut.id}`,
      weight: 'advice',
      text: `The widest strokes would come to a point at ${formatLength(facts.fullDepth, unit)}; the limit leaves a flat floor there.${remedies.length ? '' : ' A floor is one of the usual ways.'}`,
      remedies,
    });
  }
  return remarks;
}

function larger({ job }: Judged, id: string): Remedy['patch'] {
  const index = job.artwork.findIndex((item) => item.id === id);
  return index < 0 ? [] : resized(job.artwork[index], index, 1.25);
}

/** A bit with a wider angle, with depth and time measured by computing the cut with it. */
async function widerBit({ job, cut, index, own: now, result, parts, tryCut }: Judged): Promise<Remedy[]> {
  const wider = ofKinds<VBit>(job.bits, ['v'])
    .filter((b) => (b.angle ?? 0) > (now.angle ?? 0))
    .sort((a, b) => (a.angle ?? 0) - (b.angle ?? 0))[0];
  if (!wider) return [];
  const preset = presetFor(wider, job.stock);
  const settings = preset ? { feed: preset.feed, plunge: preset.plunge, speed: preset.speed } : {};
  const tried = await tryCut({ ...cut, ...settings, bit: wider.id });
  if (tried.some((part) => part.problem)) return [];
  const depth = Math.max(...tried.map((part) => part.depth)) - result.depth;
  const before = parts.reduce((sum, part) => sum + part.minutes, 0);
  const minutes = tried.reduce((sum, part) => sum + part.minutes, 0) - before;
  const { unit } = job;
  const depthText =
    Math.abs(depth) < 0.05 ? 'as deep' : `${formatLength(Math.abs(depth), unit)} ${depth < 0 ? 'less deep' : 'deeper'}`;
  const timeText = `${formatMinutes(Math.abs(minutes))} ${minutes <= 0 ? 'sooner' : 'later'}`;
  return [
    { label: `Use ${wider.name}: ${depthText}, ${timeText}`, patch: setCut(index, { ...settings, bit: wider.id }) },
  ];
}

function deeper({ job, cut, index, own: bit }: Judged, { fullDepth }: VCarveFacts): Remedy[] {
  const needed = Math.ceil(fullDepth * 10) / 10;
  const profile = profileOf(bit);
  const reach = profile.slope > 0 ? (profile.radius - profile.flat) / profile.slope : 0;
  if (needed > thickest(job.stock) - 2 || needed > reach || needed > bit.flute || needed <= cut.depthLimit) return [];
  return [
    { label: `Carve ${formatLength(needed, job.unit)} deep, to a point`, patch: setCut(index, { depthLimit: needed }) },
  ];
}
