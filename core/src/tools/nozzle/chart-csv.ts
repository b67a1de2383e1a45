import Papa from 'papaparse';
import type { Field } from '../../fields/field.ts';
import { parseQuantity } from '../../quantity/expression.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import { Told } from '../../schema/told.ts';
import { type ChartRow, PRESET } from './fields.ts';

/** A cut chart that cannot be taken in; the message is one sentence. */
export class ChartProblem extends Told {
  override name = 'ChartProblem';
}

/** Rows at most. */
const MOST = 50;

/** What columns are called besides their field’s own name. */
const ALSO: Partial<Record<keyof ChartRow, readonly string[]>> = {
  feed: ['speed', 'cut speed'],
  pierceDelay: ['delay'],
  volts: ['volts', 'voltage'],
  thickness: ['gauge'],
};

const plain = (text: string) => text.toLowerCase().replace(/[_-]+/g, ' ').replace(/\(.*?\)|,.*$/g, '').trim(); // prettier-ignore

/**
 * Reads a cut chart from CSV: a heading that names the columns, and a row for each material and thickness. A unit may stand in
 * a cell (`0.06 in`, `10 ga`) or behind a column’s name (`kerf (in)`); without one it is the given unit.
 *
 * @throws {ChartProblem} for a chart of which anything is not understood; nothing of it is taken then.
 * @example readChart('material,thickness,kerf,feed,pierce height,pierce delay,cut height,volts\nmild steel,10 ga,1.4,2700,3.8,0.4,1.5,117', 'mm')[0].kerf // 1.4
 */
export function readChart(text: string, unit: LengthUnit): ChartRow[] {
  const { data, errors } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' });
  const [head, ...rows] = data;
  if (!head || rows.length === 0)
    throw new ChartProblem('This file holds no chart: a heading and a row for each thickness are needed.');
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken) throw new ChartProblem(`Row ${(broken.row ?? 0) + 1} has a quotation mark that is not closed; mend it.`);
  if (rows.length > MOST)
    throw new ChartProblem(`A nozzle’s chart has at most ${MOST} rows, and this has ${rows.length}.`);
  const names = head.map(plain);
  const fields = Object.entries(PRESET) as [Exclude<keyof ChartRow, 'material'>, Field<number>][];
  const column = (key: keyof ChartRow, name: string) =>
    names.findIndex((own) => own === name || (ALSO[key] ?? []).includes(own));
  const material = column('material', 'material');
  if (material < 0) throw new ChartProblem('No column is called “material”; name it in the heading.');
  const columns = fields.map(([key, field]) => {
    const at = column(key, field.name);
    if (at < 0) throw new ChartProblem(`No column is called “${field.name}”; name it in the heading.`);
    return { key, field, at, unit: /\b(mm|in)\b/.exec(head[at].toLowerCase())?.[1] as LengthUnit | undefined };
  });
  return rows.map((row, k) => {
    const said = row[material]?.trim();
    if (!said || said.length > 60) throw new ChartProblem(`Row ${k + 2} names no material.`);
    const values = columns.map(({ key, field, at, unit: own }) => {
      const { control } = field;
      if (control.is !== 'quantity') return [key, 0] as const;
      const { quantity, above, min, max } = control;
      const read = parseQuantity(row[at] ?? '', quantity, own ?? unit, { above, min, max, name: `The ${field.name}` });
      if (!read.ok) throw new ChartProblem(`Row ${k + 2}: ${read.problem}`);
      return [key, read.value] as const;
    });
    return { material: said, ...(Object.fromEntries(values) as Omit<ChartRow, 'material'>) };
  });
}
