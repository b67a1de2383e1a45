import { formatLength } from '../quantity/format.ts';
import { kindOf } from '../cuts/kinds.ts';
import type { CutResult } from '../sequence/cut-result.ts';
import type { Stock } from '../document/stock.ts';
import { spread, thicknessAt, thickest } from '../stock/stock.ts';
import { cutsOf, type Judged, type Remark, setCut } from './remark.ts';

/**
 * How far a through cut goes past the stock, mm: a hair with zero on the spoilboard, so that the board is not scored;
 * half a millimetre with zero on top, where the stock's thickness decides (common practice: 0.05 to 1 mm).
 */
export const PAST_THE_STOCK = { spoilboard: 0.05, stock: 0.5 } as const;

/** Deeper than this into the spoilboard, mm, no through cut needs to go (common practice). */
const DEEPEST_PAST = 1;

/** Wood kept under a carving, mm, when its depth is reduced for the stock. */
const FLOOR_KEPT = 2;

/** Strokes of a V-carving that come out narrower by more than this, mm, or by more than this share, look uneven. */
const NARROWER = 0.2;
const NARROWER_SHARE = 0.1;

/** How far below the thickest corner the stock lies at most under a cut, mm. */
function lowestUnder({ path: { xyz } }: CutResult, stock: Stock): number {
  let drop = 0;
  const thick = thickest(stock);
  for (let i = 0; i < xyz.length; i += 3)
    if (xyz[i + 2] < 0) drop = Math.max(drop, thick - thicknessAt(stock, xyz[i], xyz[i + 1]));
  return drop;
}

/** What uneven stock does to the cuts, where that is seen: to the width of strokes, or to the depth of floors. */
function whatUnevennessDoes(judged: Judged): string | undefined {
  const { unit, stock } = judged.job;
  let narrower = 0;
  let shallowest = Infinity;
  for (const { cut, result } of cutsOf(judged)) {
    // What goes right through is as deep as the stock everywhere.
    if (result.problem || (cut.kind === 'profile' && result.depth >= thickest(stock))) continue;
    const drop = lowestUnder(result, stock);
    if (cut.kind === 'v-carve') {
      // A groove's half width is its depth times the slope of the bit, and as much is lost of it as of the depth.
      const by = 2 * drop * result.profile.slope;
      const widest = 2 * (result.profile.flat + result.depth * result.profile.slope);
      if (by > NARROWER || by > NARROWER_SHARE * widest) narrower = Math.max(narrower, by);
    } else if (drop >= result.depth / 4) shallowest = Math.min(shallowest, result.depth);
  }
  if (narrower > 0) return `strokes come out up to ${formatLength(narrower, unit, 2)} narrower where the stock is low.`;
  return shallowest < Infinity
    ? `the shallowest cut is ${formatLength(shallowest, unit, 2)} deep; the low corner will come out faint.`
    : undefined;
}

/** Rules about depth: against the stock, the spoilboard, the bit's flutes and uneven corners. */
export function judgeDepth(judged: Judged): Remark[] {
  const { job } = judged;
  const { stock, unit } = job;
  const thick = thickest(stock);
  const thin = Math.min(...stock.corners);
  const remarks: Remark[] = [];
  for (const { cut, index, result } of cutsOf(judged)) {
    if (result.problem) continue;
    const about = { stop: 'cuts', cut: cut.id } as const;
    const through = thick + PAST_THE_STOCK[stock.zeroZ];
    if (cut.kind === 'v-carve' && result.depth > thin)
      remarks.push({
        ...about,
        id: `deeper-${cut.id}`,
        weight: 'wrong',
        text: `The carving goes ${formatLength(result.depth, unit)} deep, and the stock is ${formatLength(thin, unit)} at its thinnest corner.`,
        remedies: [
          {
            label: `Carve no deeper than ${formatLength(Math.max(1, thin - FLOOR_KEPT), unit)}`,
            patch: setCut(index, { depthLimit: Math.max(1, thin - FLOOR_KEPT) }),
          },
        ],
      });
    if (
      (cut.kind === 'pocket' || cut.kind === 'drill' || (cut.kind === 'inlay' && cut.role === 'recess')) &&
      cut.depth > thick + stock.spoilboard
    )
      remarks.push({
        ...about,
        id: `through-board-${cut.id}`,
        weight: 'wrong',
        text: `This cut is ${formatLength(cut.depth, unit)} deep and would go right through the spoilboard.`,
        remedies: [{ label: `Go ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }],
      });
    else if ((cut.kind === 'pocket' || (cut.kind === 'inlay' && cut.role === 'recess')) && cut.depth >= thin)
      remarks.push({
        ...about,
        id: `deeper-${cut.id}`,
        weight: 'wrong',
        text: `The floor would lie ${formatLength(cut.depth, unit)} deep, and the stock is ${formatLength(thin, unit)} at its thinnest corner.`,
        remedies: [
          {
            label: `Go no deeper than ${formatLength(Math.max(1, thin - FLOOR_KEPT), unit)}`,
            patch: setCut(index, { depth: Math.max(1, thin - FLOOR_KEPT) }),
          },
        ],
      });
    if (cut.kind === 'drill' && cut.depth <= thick + stock.spoilboard && cut.depth - thick > DEEPEST_PAST)
      remarks.push({
        ...about,
        id: `spoilboard-${cut.id}`,
        weight: 'advice',
        text: `These holes go through the stock and ${formatLength(cut.depth - thick, unit)} into the spoilboard.`,
        remedies: [{ label: `Drill ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }],
      });
    if (cut.kind === 'profile') {
      const past = cut.depth - thick;
      const board =
        past > stock.spoilboard
          ? 'and right through the spoilboard'
          : `and ${formatLength(past, unit)} into the spoilboard`;
      if (past > DEEPEST_PAST || (stock.zeroZ === 'spoilboard' && past > 0.3))
        remarks.push({
          ...about,
          id: `spoilboard-${cut.id}`,
          weight: past > stock.spoilboard ? 'wrong' : 'advice',
          text: `This cut goes through the stock ${board}${stock.zeroZ === 'spoilboard' ? ', although zero is on the board and a hair past it is enough' : ''}.`,
          remedies: [{ label: `Cut ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }],
        });
      else if (past < 0 && past > -1.5)
        remarks.push({
          ...about,
          id: `not-through-${cut.id}`,
          weight: 'advice',
          text: `This cut leaves a skin of ${formatLength(-past, unit, 2)} under the thickest corner. That is fine if it is meant; to come free, it has to go past the stock.`,
          remedies: [{ label: `Cut ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }],
        });
    }
    const bit = job.bits.find((b) => b.id === cut.bit);
    const most = bit?.presets.find((preset) => preset.material === stock.material)?.depthPerPass;
    const atOnce = kindOf(cut).takenAtOnce(cut, result.depth);
    if (bit && most !== undefined && atOnce > most + 0.01)
      remarks.push({
        ...about,
        id: `pass-${cut.id}`,
        weight: 'advice',
        text: `This cut takes ${formatLength(atOnce, unit, 2)} at once, and ${bit.name} is set to ${formatLength(most, unit, 2)} a pass in ${stock.material}.`,
        remedies: [
          { label: `Take ${formatLength(most, unit, 2)} a pass`, patch: setCut(index, { depthPerPass: most }) },
        ],
      });
    if (bit && result.depth > bit.flute) {
      const longer = job.bits.find((b) => b.kind === bit.kind && b.flute >= result.depth && b.id !== bit.id);
      remarks.push({
        ...about,
        id: `flute-${cut.id}`,
        weight: 'wrong',
        text: `The cutting edges of ${bit.name} are ${formatLength(bit.flute, unit)} long, and this cut is ${formatLength(result.depth, unit)} deep; the shank would rub.`,
        remedies: [
          longer
            ? { label: `Use ${longer.name}`, patch: setCut(index, { bit: longer.id }) }
            : {
                label: `Go ${formatLength(bit.flute, unit)} deep`,
                patch: setCut(index, cut.kind === 'v-carve' ? { depthLimit: bit.flute } : { depth: bit.flute }),
              },
        ],
      });
    }
  }
  // Bits that clear before a cut's own go as deep as they are asked to, too.
  for (const result of judged.cuts) {
    const index = job.cuts.findIndex((c) => c.id === result.cut);
    const cut = job.cuts[index];
    const bit = job.bits.find((b) => b.id === result.bit);
    if (result.id === result.cut || result.problem || !bit || !cut || !('clearBits' in cut)) continue;
    if (result.depth <= bit.flute) continue;
    remarks.push({
      stop: 'cuts',
      cut: cut.id,
      id: `flute-${result.id}`,
      weight: 'wrong',
      text: `The cutting edges of ${bit.name}, which clears first, are ${formatLength(bit.flute, unit)} long, and it goes ${formatLength(result.depth, unit)} deep; the shank would rub.`,
      remedies: [
        {
          label: `Clear without ${bit.name}`,
          patch: setCut(index, { clearBits: cut.clearBits.filter((id) => id !== bit.id) }),
        },
      ],
    });
  }
  const uneven = spread(stock);
  const does = uneven > 0 ? whatUnevennessDoes(judged) : undefined;
  if (does)
    remarks.push({
      id: 'uneven-stock',
      stop: 'stock',
      weight: 'advice',
      text: `The corners differ by ${formatLength(uneven, unit, 2)}, and ${does}`,
      remedies: [
        {
          label: 'It is planed flat: use the thinnest corner for all',
          patch: [{ op: 'replace', path: '/stock/corners', value: [thin, thin, thin, thin] }],
        },
      ],
    });
  return remarks;
}
