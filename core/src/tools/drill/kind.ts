import { angle } from '../../fields/quantity-field.ts';
import { say } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { TOOL_SIZES } from '../../document/tool.ts';
import { vProfile } from '../leaves.ts';
import { turnedPicture } from '../picture.ts';
import { takesAPass } from '../takes-a-pass.ts';
import type { ToolKind } from '../tool-kind.ts';
import type { Bit } from '../turned.ts';
import { TURNED, TURNED_PRESET } from '../turned-fields.ts';

/** Point angle of a twist drill where none is given, degrees (common practice). */
const USUAL_POINT = 118;

const FIELDS = { ...TURNED, angle: angle('point angle', { min: 5, max: 170, initial: USUAL_POINT }) };

interface DrillBit extends Bit {
  angle?: number;
}

const profile = ({ angle, diameter }: DrillBit) => vProfile(angle ?? USUAL_POINT, 0, diameter);

/** A bit that goes straight down only. */
export const drillKind: ToolKind<DrillBit> = {
  one: 'a drill',
  fields: FIELDS,
  preset: TURNED_PRESET,
  written: 'drill:3',
  given: (kind, [diameter, ...more]) =>
    kind === 'drill' && more.length === 0 ? { kind: 'drill', diameter } : undefined,
  sentence: (tool) => {
    const s = slotsOf({ ...TOOL_SIZES, ...FIELDS }, { ...tool, angle: tool.angle ?? USUAL_POINT });
    return say`A drill, ${s.diameter} across with a point of ${s.angle}; cutting edges ${s.flute} long, shank ${s.shank}.`;
  },
  leaves: (tool) => ({ kind: 'groove', profile: profile(tool) }),
  picture: (tool) => turnedPicture(tool, profile(tool), 'middle'),
  turns: true,
  conducts: true,
  edges: ({ flute }) => flute,
  takes: takesAPass,
};
