import { say } from '../../fields/sentence.ts';
import { atMost, choiceSlot, slotsOf } from '../../fields/slot.ts';
import { formatLength } from '../../quantity/format.ts';
import { TOOL_SIZES } from '../../document/tool.ts';
import type { ToolKind } from '../tool-kind.ts';
import { type DragPoint, FIELDS, pointHeight, PRESET } from './fields.ts';
import { dragPicture } from './picture.ts';

/** How far a point usually stands out of its nose, mm: 0.010 in (common practice: 0.005 to 0.020 in). */
const USUAL_STAND_OUT = 0.254;

/** A spring-loaded diamond: it is pressed on the work and drawn over it, and leaves a line of a width. */
export const dragKind: ToolKind<DragPoint> = {
  one: 'a drag point',
  fields: FIELDS,
  preset: PRESET,
  written: 'drag:0.3',
  given: (kind, [width, standOut = null]) =>
    kind === 'drag' ? { kind: 'drag', diameter: BODY, shank: BODY, width, standOut } : undefined,
  sentence: (tool) => {
    const s = slotsOf({ ...TOOL_SIZES, ...FIELDS }, tool);
    const nose = choiceSlot(
      'nose',
      { none: 'without a nose', rides: 'with a nose that rides on the work' },
      tool.standOut === null ? 'none' : 'rides',
      (chosen) => ({ standOut: chosen === 'none' ? null : USUAL_STAND_OUT }),
    );
    return say`A drag point of ${s.angle} that draws a line ${s.width} wide; it does not turn. Its spring gives ${s.travel} and
      presses with ${s.force} when it begins to; body ${s.diameter} across, shank ${s.shank}, ${nose}${
        tool.standOut !== null && say`, out of which it stands ${atMost(s.standOut, pointHeight(tool))}`
      }.`;
  },
  note: ({ standOut }, unit) =>
    standOut === null
      ? 'Its line has a width and no depth to speak of: how far it is pressed keeps it in touch, and no more.'
      : `It goes no deeper than ${formatLength(standOut, unit, 2)}: its nose rides on the work.`,
  leaves: ({ width }) => ({ kind: 'mark', width }),
  picture: dragPicture,
  turns: false,
  conducts: false,
  spring: ({ travel, force, width }) => ({ travel, force, width }),
};

/** A usual body, across, mm; it is of no account for what is drawn. */
const BODY = 6;
