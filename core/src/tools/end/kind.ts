import { say } from '../../fields/sentence.ts';
import { slotsOf } from '../../fields/slot.ts';
import { TOOL_SIZES } from '../../document/tool.ts';
import { turnedPicture } from '../picture.ts';
import { takesAPass } from '../takes-a-pass.ts';
import type { ToolKind } from '../tool-kind.ts';
import type { Bit, Profile } from '../turned.ts';
import { TURNED, TURNED_PRESET } from '../turned-fields.ts';

const profile = ({ diameter }: Bit): Profile => ({ flat: diameter / 2, slope: 0, radius: diameter / 2 });

/** A bit with upright edges and a flat end. */
export const endKind: ToolKind<Bit> = {
  one: 'an end mill',
  fields: TURNED,
  preset: TURNED_PRESET,
  written: 'end:6.35',
  given: (kind, [diameter, ...more]) => (kind === 'end' && more.length === 0 ? { kind: 'end', diameter } : undefined),
  sentence: (tool) => {
    const s = slotsOf({ ...TOOL_SIZES, ...TURNED }, tool);
    return say`An end mill, ${s.diameter} across; cutting edges ${s.flute} long, shank ${s.shank}.`;
  },
  leaves: (tool) => ({ kind: 'groove', profile: profile(tool) }),
  picture: (tool) => turnedPicture(tool, profile(tool), 'spiral'),
  turns: true,
  conducts: true,
  edges: ({ flute }) => flute,
  takes: takesAPass,
};
