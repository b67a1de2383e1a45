import { formatLength, formatMinutes } from '../quantity/format.ts';
import { thickest } from '../stock/stock.ts';
import { presetFor, usualStep } from '../bits/bit.ts';
import type { VCarveCut } from '../document/cut.ts';
import { newCut } from '../cuts/new-cut.ts';
import { resized } from './artwork-scale.ts';
import { cutsOf, type Judged, type JudgedCut, type Remark, type Remedy, setCut } from './remark.ts';

/** Less axis than this, mm, that the tip cannot enter is not worth a word: it is a hairline's end. */
const NARROW_WORTH_SAYING = 0.5;

/** Rules about width: shapes too wide for the depth limit, and shapes the bit cannot enter. */
export async function judgeWidth(judged: Judged): Promise<Remark[]> {
  const { job } = judged;
  const { unit } = job;
  const remarks: Remark[] = [];
  for (const entry of cutsOf(judged)) {
    const { cut, index, result } = entry;
    if (result.problem) continue;
    const about = { stop: 'cuts', cut: cut.id } as const;
    const bit = job.bits.find((b) => b.id === cut.bit)!;
    if (cut.kind === 'profile') {
      if (result.lost > 0) {
        const smaller = job.bits
          .filter((b) => b.kind === 'end' && b.diameter < bit.diameter)
          .sort((a, b) => b.diameter - a.diameter)[0];
        remarks.push({
          ...about,
          id: `narrow-${cut.id}`,
          weight: 'wrong',
          text: `${bit.name} does not fit into ${result.lost === 1 ? 'one of the outlines' : `${result.lost} of the outlines`}, which would be left out.`,
          remedies: smaller
            ? [{ label: `Use ${smaller.name}`, patch: setCut(index, { bit: smaller.id }) }]
            : [{ label: 'Cut on the line', patch: setCut(index, { side: 'on' }) }],
        });
      }
      continue;
    }
    if (cut.kind === 'drill') remarks.push(...drawnLarger(judged, entry));
    remarks.push(...leftBehind(judged, entry));
    if (cut.kind !== 'v-carve') continue;
    const carving = result.carving!;
    if (carving.tooNarrow > NARROW_WORTH_SAYING) {
      const finer = job.bits.filter((b) => b.kind === 'v' && b.tip < bit.tip).sort((a, b) => a.tip - b.tip)[0];
      remarks.push({
        ...about,
        id: `narrow-${cut.id}`,
        weight: 'wrong',
        text: `${formatLength(carving.tooNarrow, unit)} of thin line is narrower than the ${formatLength(bit.tip, unit, 2)} tip of ${bit.name} and would stay blank.`,
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
    if (carving.floorArea > 1) {
      const remedies = [...(await widerBit(judged, entry, cut)), ...deeper(judged, entry, cut)];
      remarks.push({
        ...about,
        id: `wide-${cut.id}`,
        weight: 'advice',
        text: `The widest strokes would come to a point at ${formatLength(carving.fullDepth, unit)}; the limit leaves a flat floor there.${remedies.length ? '' : ' A floor is one of the usual ways.'}`,
        remedies,
      });
    }
  }
  return remarks;
}

function larger({ job }: Judged, id: string): Remedy['patch'] {
  const index = job.artwork.findIndex((item) => item.id === id);
  return index < 0 ? [] : resized(job.artwork[index], index, 1.25);
}

/** What no bit of a pocket or inlay reaches: corners at least as round as the smallest bit, and narrow places. */
const LEFT_WORTH_SAYING = 1;

/** A drill makes holes of its own size; circles drawn larger may have been meant as they are drawn. */
const LARGER_WORTH_SAYING = 0.1;

function drawnLarger({ job }: Judged, { cut, index, result }: JudgedCut): Remark[] {
  const bit = job.bits.find((b) => b.id === cut.bit)!;
  const drawn = (result.holes ?? []).map(({ diameter = 0 }) => diameter);
  const larger = drawn.filter((diameter) => diameter > bit.diameter + LARGER_WORTH_SAYING).sort((a, b) => a - b);
  if (larger.length === 0 || cut.kind !== 'drill') return [];
  const { unit } = job;
  const sizes = [...new Set([larger[0], larger[larger.length - 1]].map((d) => formatLength(d, unit, 2)))].join(' to ');
  const mill = job.bits
    .filter((b) => b.kind === 'end' && b.diameter < larger[0])
    .sort((a, b) => b.diameter - a.diameter)[0];
  const remedies: Remedy[] = [];
  const instead = (kind: 'pocket' | 'profile', label: string, fields: object) => {
    const made = newCut({ ...job, bits: [mill] }, kind, cut.id);
    if (made && mill.flute >= cut.depth)
      remedies.push({
        label,
        patch: [
          {
            op: 'replace',
            path: `/cuts/${index}`,
            value: { ...made, targets: cut.targets, depth: cut.depth, ...fields },
          },
        ],
      });
  };
  if (mill && larger.length === drawn.length) {
    const through = cut.depth >= Math.min(...job.stock.corners);
    if (through)
      instead('profile', `Cut them out as drawn with ${mill.name}`, {
        side: 'inside',
        ramp: 5,
        tabs: { count: 0, length: 6, height: 1.5, shape: 'square', at: [] },
      });
    else instead('pocket', `Clear them as drawn with ${mill.name}`, {});
  }
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `drawn-larger-${cut.id}`,
      weight: 'advice',
      text: `${larger.length === 1 ? 'One circle is' : `${larger.length} circles are`} drawn ${sizes} wide, and ${bit.name} makes holes of ${formatLength(bit.diameter, unit, 2)}.`,
      remedies,
    },
  ];
}

function leftBehind({ job }: Judged, { cut, index, result }: JudgedCut): Remark[] {
  const { unit } = job;
  const about = { stop: 'cuts', cut: cut.id } as const;
  if (cut.kind === 'drill' && result.lost > 0)
    return [
      {
        ...about,
        id: `not-round-${cut.id}`,
        weight: 'advice',
        text: `${result.lost === 1 ? 'One chosen outline is' : `${result.lost} chosen outlines are`} neither a circle nor a point, and no hole is drilled there.`,
        remedies: [],
      },
    ];
  if (cut.kind !== 'pocket' || result.left < LEFT_WORTH_SAYING) return [];
  const bit = job.bits.find((b) => b.id === cut.bit)!;
  const smaller = job.bits
    .filter((b) => b.kind === 'end' && b.diameter < bit.diameter)
    .sort((a, b) => b.diameter - a.diameter)[0];
  if (!smaller) return [];
  const preset = presetFor(smaller, job.stock.material);
  return [
    {
      ...about,
      id: `corners-${cut.id}`,
      weight: 'advice',
      text: `${bit.name} leaves ${(result.left / 100).toFixed(2)} cm² in corners and narrow places; inner corners come out with a radius of ${formatLength(bit.diameter / 2, unit, 2)}.`,
      remedies: [
        {
          label: `Clear with ${bit.name}, finish with ${smaller.name}`,
          patch: setCut(index, {
            bit: smaller.id,
            clearBits: [...cut.clearBits, bit.id],
            step: usualStep(smaller),
            ...(preset && {
              feed: preset.feed,
              plunge: preset.plunge,
              speed: preset.speed,
              depthPerPass: preset.depthPerPass,
            }),
          }),
        },
      ],
    },
  ];
}

/** A bit with a wider angle, with depth and time measured by computing the cut with it. */
async function widerBit(
  { job, cuts, tryCut }: Judged,
  { index, result }: JudgedCut,
  cut: VCarveCut,
): Promise<Remedy[]> {
  const now = job.bits.find((b) => b.id === cut.bit)!;
  const wider = job.bits
    .filter((b) => b.kind === 'v' && (b.angle ?? 0) > (now.angle ?? 0))
    .sort((a, b) => (a.angle ?? 0) - (b.angle ?? 0))[0];
  if (!wider) return [];
  const preset = presetFor(wider, job.stock.material);
  const settings = preset ? { feed: preset.feed, plunge: preset.plunge, speed: preset.speed } : {};
  const tried = await tryCut({ ...cut, ...settings, bit: wider.id });
  if (tried.some((part) => part.problem)) return [];
  const depth = Math.max(...tried.map((part) => part.depth)) - result.depth;
  const before = cuts.filter((part) => part.cut === cut.id).reduce((sum, part) => sum + part.minutes, 0);
  const minutes = tried.reduce((sum, part) => sum + part.minutes, 0) - before;
  const { unit } = job;
  const depthText =
    Math.abs(depth) < 0.05 ? 'as deep' : `${formatLength(Math.abs(depth), unit)} ${depth < 0 ? 'less deep' : 'deeper'}`;
  const timeText = `${formatMinutes(Math.abs(minutes))} ${minutes <= 0 ? 'sooner' : 'later'}`;
  return [
    { label: `Use ${wider.name}: ${depthText}, ${timeText}`, patch: setCut(index, { ...settings, bit: wider.id }) },
  ];
}

function deeper({ job }: Judged, { index, result }: JudgedCut, cut: VCarveCut): Remedy[] {
  const needed = Math.ceil(result.carving!.fullDepth * 10) / 10;
  const bit = job.bits.find((b) => b.id === cut.bit)!;
  const reach = result.profile.slope > 0 ? (result.profile.radius - result.profile.flat) / result.profile.slope : 0;
  if (needed > thickest(job.stock) - 2 || needed > reach || needed > bit.flute || needed <= cut.depthLimit) return [];
  return [
    { label: `Carve ${formatLength(needed, job.unit)} deep, to a point`, patch: setCut(index, { depthLimit: needed }) },
  ];
}
