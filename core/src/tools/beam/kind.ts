import { TOOL_SIZES } from '../../document/tool.ts';
import { say } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { formatLength } from '../../quantity/format.ts';
import type { ToolKind } from '../tool-kind.ts';
import { type Beam, FIELDS, PRESET, settingsFor } from './fields.ts';
import { beamPicture } from './picture.ts';

/** A usual head, across, mm; it is of no account for what is burnt. */
const HEAD = 30;

/** A laser's beam: what it goes over is burnt as wide as its spot, or cut through. */
export const beamKind: ToolKind<Beam> = {
  one: 'a beam',
  fields: FIELDS,
  preset: PRESET,
  written: 'beam:0.2',
  given: (kind, [spot]) => (kind === 'beam' ? { kind: 'beam', diameter: spot, shank: HEAD } : undefined),
  sentence: (tool) => {
    const s = slotsOf({ ...TOOL_SIZES, ...FIELDS }, tool);
    return say`A beam ${s.diameter} wide where it is thinnest, ${s.focus} under its lens, out of a head ${s.shank} across. What it does in a material, a grid of test squares says.`;
  },
  note: ({ presets, diameter }, unit) =>
    presets.length === 0
      ? 'It has no settings yet: burn a test grid, or take them from the laser’s manual.'
      : `Its lines are ${formatLength(diameter, unit, 2)} wide: ${Math.round(1 / diameter)} of them a millimetre lie side by side.`,
  caution: 'The values that ship are made up; the laser’s manual rules, and a test on a scrap.',
  leaves: ({ diameter }) => ({ kind: 'burn', spot: diameter }),
  settingsIn: (tool, material, thick) => settingsFor(tool, material, thick)?.row,
  picture: beamPicture,
  turns: true,
  conducts: false,
};
