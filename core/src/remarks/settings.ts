import type { BaseCut } from '../document/cut.ts';
import { setCut, type Remark } from '../cuts/remark.ts';
import { presetFor } from '../tools/preset-for.ts';
import { kindOf } from '../cuts/kinds.ts';
import { slotOf, slotText } from '../fields/slot.ts';
import { saidSettings, unknownSettings } from '../cuts/settings-origin.ts';
import { suitToPreset } from '../cuts/suit.ts';
import type { Judged } from './judged.ts';

/** Materials whose settings are offered to be copied at most. */
const MOST_OFFERED = 4;

const AND = new Intl.ListFormat('en', { type: 'conjunction' });

/** The values of some fields of a cut, in words: “feed 2000 mm/min and plunge 600 mm/min”. */
function numbers({ unit }: Judged['job'], cut: BaseCut, keys: readonly string[]): string {
  const { fields } = kindOf(cut);
  return AND.format(
    keys.map((key) => {
      const slot = slotOf(fields[key], (cut as unknown as Record<string, unknown>)[key], () => ({}));
      return `${slot.name} ${slotText(slot, unit)}`;
    }),
  );
}

/** Bits that clear for a cut and have no row for the material: their settings are in no field of the cut. */
function judgeClearing({ job }: Judged): Remark[] {
  const { material } = job.stock;
  return (job.cuts as BaseCut[]).flatMap((cut) =>
    (kindOf(cut).clearBits?.(cut) ?? []).flatMap((id): Remark[] => {
      const bit = job.bits.find((one) => one.id === id);
      if (!bit || presetFor(bit, job.stock)) return [];
      return [
        {
          id: `settings-${cut.id}-${id}`,
          stop: 'cuts',
          cut: cut.id,
          weight: 'wrong',
          withholds: true,
          text: `Nobody has said how ${bit.name}, which clears for this cut, is driven in ${material}: add a row for it at Bits.`,
          remedies: [],
        },
      ];
    }),
  );
}

/** Cuts whose settings nobody knows for their material: they are asked for, and none is borrowed. */
export function judgeSettings(judged: Judged): Remark[] {
  return [...judgeOwn(judged), ...judgeClearing(judged)];
}

function judgeOwn({ job }: Judged): Remark[] {
  return (job.cuts as BaseCut[]).flatMap((cut, index): Remark[] => {
    const unknown = unknownSettings(job, cut);
    const tool = job.bits.find(({ id }) => id === cut.bit);
    if (!tool || unknown.length === 0) return [];
    const { material } = job.stock;
    const has = tool.presets.some((row) => row.material === material);
    const copies = [...new Map(tool.presets.map((row) => [row.material, row])).values()]
      .slice(0, MOST_OFFERED)
      .map((row) => {
        const suited = { ...cut };
        suitToPreset(suited, row);
        const own = row.material === material;
        const changed = Object.entries(suited).filter(([key, value]) => value !== (cut as never)[key]);
        const settings = own ? undefined : saidSettings(job, suited, 'copied', row.material);
        return {
          label: own ? `Take its settings for ${material}` : `Copy its settings for ${row.material}`,
          patch: setCut(index, { ...Object.fromEntries(changed), ...(settings && { settings }) }),
        };
      });
    return [
      {
        id: `settings-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'wrong',
        withholds: true,
        text: has
          ? `Nobody has said that this cut is to be set otherwise than ${tool.name} is for ${material}. Take its numbers as they are, or those at Bits.`
          : `Nobody has said how ${tool.name} is driven in ${material}: it has no settings for it at Bits. Type them here, or copy another material’s and try them on scrap.`,
        remedies: [
          {
            label: `Take ${numbers(job, cut, unknown)}`,
            patch: setCut(index, { settings: saidSettings(job, cut, 'typed') }),
          },
          ...copies,
        ],
      },
    ];
  });
}
