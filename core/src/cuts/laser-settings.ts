import { thickest } from '../stock/stock.ts';
import { formatLength } from '../quantity/format.ts';
import { type Beam, settingsFor } from '../tools/beam/fields.ts';
import type { BaseCut } from '../document/cut.ts';
import type { JudgedCut, Remark } from './remark.ts';

/** Whether a beam has settings for the stock, and for stock as thick as this was measured. */
export function judgeSettings({
  job,
  cut,
  own,
}: Pick<JudgedCut<BaseCut, unknown, Beam>, 'job' | 'cut' | 'own'>): Remark[] {
  const { stock, unit } = job;
  const thick = thickest(stock);
  const found = settingsFor(own, stock.material, thick);
  if (found?.fits) return [];
  const text = found
    ? `${own.name} has settings for ${formatLength(found.row.thickness, unit, 2)} of ${stock.material}, and this was measured ${formatLength(thick, unit, 2)} thick; try it on a scrap, or burn a test grid.`
    : `${own.name} has no settings for ${stock.material}; burn a test grid, or try it on a scrap.`;
  return [{ stop: 'cuts', cut: cut.id, id: `settings-${cut.id}`, weight: 'advice', text, remedies: [] }];
}
