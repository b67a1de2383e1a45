import { thickest } from '../stock/stock.ts';
import { formatLength } from '../quantity/format.ts';
import { type Beam, settingsFor } from '../tools/beam/fields.ts';
import type { BaseCut } from '../document/cut.ts';
import type { JudgedCut, Remark } from './remark.ts';

/** Whether a beam has settings for stock as thick as this was measured. */
export function judgeSettings({
  job,
  cut,
  own,
}: Pick<JudgedCut<BaseCut, unknown, Beam>, 'job' | 'cut' | 'own'>): Remark[] {
  const { stock, unit } = job;
  const thick = thickest(stock);
  const found = settingsFor(own, stock.material, thick);
  // Where there are none for the material, that is asked for of any tool.
  if (!found || found.fits) return [];
  const text = `${own.name} has settings for ${formatLength(found.row.thickness, unit, 2)} of ${stock.material}, and this was measured ${formatLength(thick, unit, 2)} thick; try it on a scrap, or burn a test grid.`;
  return [{ stop: 'cuts', cut: cut.id, id: `settings-${cut.id}`, weight: 'advice', text, remedies: [] }];
}
