import { say } from '../../fields/sentence.ts';
import { atMost, slotsOf } from '../../fields/slot.ts';
import { TOOL_SIZES } from '../../document/tool.ts';
import { radians } from '../../quantity/units.ts';
import { formatLength } from '../../quantity/format.ts';
import { type Leaves, vProfile, widthLeft } from '../leaves.ts';
import { turnedPicture } from '../picture.ts';
import { takesAPass } from '../takes-a-pass.ts';
import type { ToolKind } from '../tool-kind.ts';
import { ToolProblem } from '../tool-problem.ts';
import { TURNED_PRESET } from '../turned-fields.ts';
import { FIELDS, type VBit } from './fields.ts';

/** Depth at which the width of a groove is told, mm. */
const TOLD_AT = 5;
/** What the card offers where nobody has given an angle, degrees. */
const USUAL_ANGLE = 60;

/** Edges that are so much longer or shorter than angle and diameter have them contradict those, as a share. */
const AMISS = 0.2;

const profile = ({ name, angle, tip, diameter }: VBit) => {
  if (angle == null) throw new ToolProblem(`The V-bit “${name}” has no angle; give it one at Bits.`);
  return vProfile(angle, tip, diameter);
};
const leaves = (tool: VBit): Leaves => ({ kind: 'groove', profile: profile(tool) });

/** A bit with straight slanted edges, pointed or with a small flat at its tip. */
export const vKind: ToolKind<VBit> = {
  one: 'a V-bit',
  fields: FIELDS,
  preset: TURNED_PRESET,
  written: 'v60:12.7, v30:6:0.2',
  given: (kind, [diameter, tip = 0]) => {
    const angle = /^v([\d.]+)$/.exec(kind);
    return angle && tip < diameter ? { kind: 'v', diameter, tip, angle: Number(angle[1]) } : undefined;
  },
  sentence: (tool) => {
    const s = slotsOf({ ...TOOL_SIZES, ...FIELDS }, { ...tool, angle: tool.angle ?? USUAL_ANGLE });
    return say`A V-bit, ${s.diameter} across, ${s.angle} in all with a tip of ${atMost(s.tip, 0.9 * tool.diameter)};
      cutting edges ${s.flute} long, shank ${s.shank}.`;
  },
  note: (tool, unit) =>
    tool.angle == null
      ? 'Nobody has said its angle: what stands here is only offered. Set it to what the bit has.'
      : `At ${formatLength(TOLD_AT, unit)} deep its groove is ${formatLength(widthLeft(leaves(tool), TOLD_AT), unit, 2)} wide.`,
  amiss: ({ angle, tip, diameter, flute }, unit) => {
    if (angle == null) return undefined;
    const high = (diameter - tip) / 2 / Math.tan(radians(angle) / 2);
    if (Math.abs(flute - high) <= AMISS * high) return undefined;
    const mm = (length: number) => formatLength(length, unit, 2);
    return `edges of ${Math.round(10 * angle) / 10}° from a tip of ${mm(tip)} to ${mm(diameter)} across are ${mm(high)} long, and ${mm(flute)} is said; measure which of them is wrong, and set it at Bits.`;
  },
  leaves,
  picture: (tool) => turnedPicture(tool, profile({ ...tool, angle: tool.angle ?? USUAL_ANGLE }), 'middle'),
  turns: true,
  conducts: true,
  edges: ({ flute }) => flute,
  takes: takesAPass,
};
