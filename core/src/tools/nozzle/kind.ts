import { TOOL_SIZES } from '../../document/tool.ts';
import { say } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { formatLength } from '../../quantity/format.ts';
import type { ToolKind } from '../tool-kind.ts';
import { fromChart } from './chart.ts';
import { readChart } from './chart-csv.ts';
import { FIELDS, type Nozzle, PRESET } from './fields.ts';
import { nozzlePicture } from './picture.ts';

/** A usual nozzle, across, mm; it is of no account for what is cut. */
const BODY = 12;
/** What is said of a nozzle where nobody gives its current, A. */
const USUAL_AMPS = 45;

/** A plasma torch's nozzle: an arc through it leaves a kerf right through the sheet, and its chart says how wide. */
export const nozzleKind: ToolKind<Nozzle> = {
  one: 'a nozzle',
  fields: FIELDS,
  preset: PRESET,
  written: 'nozzle:45',
  given: (kind, [amps = USUAL_AMPS]) =>
    kind === 'nozzle' ? { kind: 'nozzle', diameter: BODY, shank: BODY, amps } : undefined,
  sentence: (tool) => {
    const s = slotsOf({ ...TOOL_SIZES, ...FIELDS }, tool);
    return say`A nozzle for ${s.amps}, ${s.diameter} across, in a torch ${s.shank} across. What it does in a sheet, its chart says; the torch’s manual rules.`;
  },
  note: ({ presets }, unit) =>
    presets.length === 0
      ? 'Its chart is empty: add the rows of the torch’s manual below, or bring them in as CSV.'
      : `Kerfs of ${formatLength(Math.min(...presets.map(({ kerf }) => kerf)), unit, 2)} to ${formatLength(Math.max(...presets.map(({ kerf }) => kerf)), unit, 2)}, for sheet of ${formatLength(Math.min(...presets.map(({ thickness }) => thickness)), unit, 2)} to ${formatLength(Math.max(...presets.map(({ thickness }) => thickness)), unit, 2)}.`,
  leaves: ({ presets }) => {
    const [first] = presets;
    return first ? { kind: 'kerf', width: first.kerf, depth: first.thickness } : { kind: 'nothing' };
  },
  settingsIn(tool, material, thick) {
    const found = fromChart(tool, material, thick);
    return found?.by === 'other' ? undefined : found?.row;
  },
  caution: 'The values that ship are made up; the torch’s manual rules.',
  readChart,
  picture: nozzlePicture,
  turns: true,
  conducts: true,
};
