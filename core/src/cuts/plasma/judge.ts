import { formatLength } from '../../quantity/format.ts';
import type { Stock } from '../../document/stock.ts';
import { thickest } from '../../stock/stock.ts';
import { fromChart } from '../../tools/nozzle/chart.ts';
import type { Nozzle } from '../../tools/nozzle/fields.ts';
import { ofKinds } from '../../tools/kinds.ts';
import { togetherTexts } from '../grown-together.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { CHARTED, charted } from './charted.ts';
import type { PlasmaFacts } from './facts.ts';
import type { PlasmaCut } from './fields.ts';

type Judged = JudgedCut<PlasmaCut, PlasmaFacts, Nozzle>;

/** A usual bar in thin plate, mm: about 1/8 in (common practice). */
export const USUAL_BRIDGE = 3.2;

/** Whether the nozzle suits the sheet and the drawing, and what would come out otherwise than drawn. */
export function judgeBurnt(judged: Judged): Remark[] {
  return [...judgeChart(judged), ...judgeDetail(judged), ...judgeHoles(judged), ...judgeSheet(judged), ...judgeWays(judged)]; // prettier-ignore
}

const remark = (cut: PlasmaCut, id: string, weight: Remark['weight'], text: string, remedies: Remark['remedies'] = []) => ({ stop: 'cuts', cut: cut.id, id: `${id}-${cut.id}`, weight, text, remedies }) as const satisfies Remark; // prettier-ignore

function judgeChart({ job, cut, index, own }: Judged): Remark[] {
  const { stock, unit } = job;
  const thick = thickest(stock);
  const mm = (length: number) => formatLength(length, unit, 2);
  const found = fromChart(own, stock.material, thick);
  if (!found)
    return [
      remark(cut, 'chart', 'advice', `The chart of ${own.name} is empty; take what is set here from the torch’s manual, and try it on a scrap.`), // prettier-ignore
    ];
  const better = ofKinds<Nozzle>(job.bits, ['nozzle']).find((nozzle) => {
    const by = fromChart(nozzle, stock.material, thick)?.by;
    return nozzle.id !== own.id && (by === 'row' || by === 'between');
  });
  if (found.by === 'beyond' || found.by === 'other') {
    return [
      remark(
        cut,
        'chart',
        'wrong',
        found.by === 'other'
          ? `The chart of ${own.name} has no row for ${stock.material}; add one from the torch’s manual at Bits.`
          : `The chart of ${own.name} ends at ${mm(found.row.thickness)}, and the sheet is ${mm(thick)} thick; this nozzle does not suit it.`,
        better ? [{ label: `Use ${better.name}`, patch: setCut(index, withNozzle(better, stock)) }] : [],
      ),
    ];
  }
  const off = CHARTED.filter((name) => Math.abs(cut[name] - found.row[name]) > 1e-6);
  const take = { label: 'Use what the chart says', patch: setCut(index, Object.fromEntries(off.map((name) => [name, found.row[name]]))) }; // prettier-ignore
  if (off.length > 0)
    return [
      remark(cut, 'chart', 'advice', `The chart of ${own.name} says otherwise for ${mm(thick)} of ${stock.material}: ${off.map((name) => WORDS[name](found.row[name], mm)).join(', ')}.`, [take]), // prettier-ignore
    ];
  if (found.by === 'between')
    return [
      remark(cut, 'chart', 'advice', `The chart of ${own.name} has no row for ${mm(thick)}: what is set here lies between its rows for ${found.of.map(mm).join(' and ')}. Try it on a scrap.`), // prettier-ignore
    ];
  return [];
}

/** What another nozzle sets. */
function withNozzle(nozzle: Nozzle, stock: Stock): object {
  const found = fromChart(nozzle, stock.material, thickest(stock));
  return { bit: nozzle.id, ...(found && charted(found.row)) };
}

const WORDS: Record<(typeof CHARTED)[number], (value: number, mm: (length: number) => string) => string> = {
  kerf: (value, mm) => `a kerf of ${mm(value)}`,
  feed: (value, mm) => `a feed of ${mm(value)} a minute`,
  pierceHeight: (value, mm) => `piercing ${mm(value)} high`,
  pierceDelay: (value) => `for ${value} s`,
  cutHeight: (value, mm) => `cutting ${mm(value)} high`,
};

function judgeDetail({ job, cut, index, result }: Judged): Remark[] {
  const { unit, stock } = job;
  const { facts } = result;
  const mm = (length: number) => formatLength(length, unit, 2);
  if (!facts || cut.kerf === 0) return [];
  const finer = ofKinds<Nozzle>(job.bits, ['nozzle']).find((nozzle) => {
    const found = fromChart(nozzle, stock.material, thickest(stock));
    return (found?.by === 'row' || found?.by === 'between') && found.row.kerf < cut.kerf - 1e-6;
  });
  const remedies = finer ? [{ label: `Use ${finer.name}`, patch: setCut(index, withNozzle(finer, stock)) }] : [];
  const { narrow, closes, fine } = facts;
  if (closes)
    return [
      remark(
        cut,
        'narrow',
        'wrong',
        `The kerf of ${mm(cut.kerf)} is wider than a slot, a hole or what lies between parts, which closes up or is left out${narrow.length > 0 ? '; it is marked on the sheet' : ''}. Draw it wider, or take a finer nozzle.`,
        remedies,
      ),
    ];
  if (narrow.length > 0)
    return [
      remark(cut, 'narrow', 'advice', `${narrow.length === 1 ? 'One sharp inner corner comes' : `${narrow.length} sharp inner corners come`} out blunter than drawn, as far as the kerf of ${mm(cut.kerf)} reaches into ${narrow.length === 1 ? 'it; it is' : 'them; they are'} marked on the sheet.`, remedies), // prettier-ignore
    ];
  if (fine)
    return [
      remark(cut, 'fine', 'advice', `Some of what stays is no wider than two kerfs of ${mm(cut.kerf)}; ${finer ? 'a finer nozzle would keep it cleaner' : 'try it on a scrap'}.`, remedies), // prettier-ignore
    ];
  return [];
}

function judgeHoles({ job, cut, index, result }: Judged): Remark[] {
  const { facts } = result;
  const { unit } = job;
  const mm = (length: number) => formatLength(length, unit, 2);
  if (!facts) return [];
  const out: Remark[] = [];
  const { tooSmall, islands } = facts;
  if (tooSmall.length > 0 && cut.tooSmall === 'cut')
    out.push(
      remark(
        cut,
        'small',
        'advice',
        `${tooSmall.length === 1 ? 'A hole' : `${tooSmall.length} holes`} of ${formatLength(Math.min(...tooSmall.map(({ diameter }) => diameter)), unit, 1)} ${tooSmall.length === 1 ? 'is' : 'and more are'} small for ${mm(thickest(job.stock))} of sheet, and may not come out.`,
        [
          { label: 'Only pierce them, and drill later', patch: setCut(index, { tooSmall: 'mark' }) },
          { label: 'Leave them', patch: setCut(index, { tooSmall: 'leave' }) },
        ],
      ),
    );
  if (islands.length > 0)
    out.push(
      remark(
        cut,
        'islands',
        'wrong',
        `${islands.length === 1 ? 'One island' : `${islands.length} islands`} would drop out, as the middle of an O does; tie them by bars, or draw letters that have none.`,
        [{ label: `Tie them by bars of ${mm(USUAL_BRIDGE)}`, patch: setCut(index, { bridge: USUAL_BRIDGE }) }],
      ),
    );
  return out;
}

function judgeSheet({ job, cut, result }: Judged): Remark[] {
  const { stock, unit } = job;
  const { xyz, power } = result.path as { xyz: Float64Array; power: Float32Array };
  let off = 0;
  let [left, lower, right, upper] = [0, 0, 0, 0];
  for (let i = 0; i < power.length; i++) {
    if (power[i] === 0) continue;
    const [x, y] = [xyz[3 * i], xyz[3 * i + 1]];
    off = Math.max(off, -x, -y, x - stock.length, y - stock.width);
    [left, lower, right, upper] = [Math.min(left, x), Math.min(lower, y), Math.max(right, x), Math.max(upper, y)];
  }
  if (off <= 1e-6) return [];
  const room = Math.ceil(cut.kerf + 5);
  const larger = (reached: number, size: number) => (reached > size ? Math.ceil(reached) + room : size);
  const [length, width] = [larger(right, stock.length), larger(upper, stock.width)];
  return [
    {
      ...remark(cut, 'sheet', 'wrong', `It would cut up to ${formatLength(off, unit, 1)} beside the sheet, where there is nothing under the arc; move the artwork, or lay a larger sheet.`), // prettier-ignore
      // Where it hangs over on the left or below, no larger sheet mends it.
      remedies:
        left >= 0 && lower >= 0
          ? [
              {
                label: `Lay a sheet of ${formatLength(length, unit, 0)} × ${formatLength(width, unit, 0)}`,
                patch: [
                  { op: 'replace', path: '/stock/length', value: length },
                  { op: 'replace', path: '/stock/width', value: width },
                ],
              },
            ]
          : [],
    },
  ];
}

function judgeWays({ job, cut, result }: Judged): Remark[] {
  const { facts } = result;
  if (!facts) return [];
  const { noLead, shorter, empty } = facts;
  const out: Remark[] = [];
  const some = (n: number, one: string, many: string) => (n === 1 ? `One ${one}` : `${n} ${many}`);
  if (noLead > 0)
    out.push(remark(cut, 'lead', 'advice', `${some(noLead, 'line has', 'lines have')} no room for a lead, and would be pierced on the line itself, which leaves a mark in the part; choose another start, move parts apart, or make the lead shorter.`)); // prettier-ignore
  if (shorter > 0)
    out.push(remark(cut, 'shorter', 'advice', `${some(shorter, 'lead is', 'leads are')} shorter than asked for, for want of room.`)); // prettier-ignore
  for (const { id, text } of togetherTexts(facts, job.unit, true)) out.push(remark(cut, id, 'advice', text));
  if (empty > 0)
    out.push(remark(cut, 'empty', 'advice', `${some(empty, 'line has', 'lines have')} all points in one place and ${empty === 1 ? 'is' : 'are'} left out; drill there, or draw a line.`)); // prettier-ignore
  return out;
}
