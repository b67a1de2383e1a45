import { formatLength } from '../quantity/format.ts';
import type { BaseTool } from '../document/tool.ts';
import { toolKindOf } from '../tools/kinds.ts';
import { kindOf } from '../cuts/kinds.ts';
import { type Remark, setCut } from '../cuts/remark.ts';
import { cutsOf, type Judged } from './judged.ts';

/** How far up a tool's edges cut, mm; as far as anyone likes where it has none. */
const edgesOf = (tool: BaseTool | undefined): number => (tool && toolKindOf(tool).edges?.(tool)) ?? Infinity;

/** Rules about depth: against the bit's flutes and what it is set to take. */
export function judgeDepth(judged: Judged): Remark[] {
  const { job } = judged;
  const { stock, unit } = job;
  const remarks: Remark[] = [];
  for (const { cut, index, result } of cutsOf(judged)) {
    if (result.problem) continue;
    const about = { stop: 'cuts', cut: cut.id } as const;
    const bit = job.bits.find((b) => b.id === cut.bit);
    const most = bit && toolKindOf(bit).takes?.(bit, stock.material);
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
    const flute = edgesOf(bit);
    if (bit && result.depth > flute) {
      const longer = job.bits.find((b) => b.kind === bit.kind && edgesOf(b) >= result.depth && b.id !== bit.id);
      remarks.push({
        ...about,
        id: `flute-${cut.id}`,
        weight: 'wrong',
        text: `The cutting edges of ${bit.name} are ${formatLength(flute, unit)} long, and this cut is ${formatLength(result.depth, unit)} deep; the shank would rub.`,
        remedies: [
          longer
            ? { label: `Use ${longer.name}`, patch: setCut(index, { bit: longer.id }) }
            : {
                label: `Go ${formatLength(flute, unit)} deep`,
                patch: setCut(index, kindOf(cut).goDeep(flute)),
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
    const flute = edgesOf(bit);
    if (result.id === result.cut || result.problem || !bit || !cut || result.depth <= flute) continue;
    const others = (kindOf(cut).clearBits?.(cut) ?? []).filter((id) => id !== bit.id);
    remarks.push({
      stop: 'cuts',
      cut: cut.id,
      id: `flute-${result.id}`,
      weight: 'wrong',
      text: `The cutting edges of ${bit.name}, which clears first, are ${formatLength(flute, unit)} long, and it goes ${formatLength(result.depth, unit)} deep; the shank would rub.`,
      remedies: [
        {
          label: `Clear without ${bit.name}`,
          patch: setCut(index, { clearBits: others }),
        },
      ],
    });
  }
  return remarks;
}
