import { z } from 'zod';
import { PRESET_BASE, TOOL_BASE, type BaseTool } from '../document/tool.ts';
import { shapeOf } from '../fields/group-field.ts';
import { list } from '../schema/list.ts';
import { nameField } from '../schema/sentence-for.ts';
import { TOOL_KINDS } from './kinds.ts';
import type { ToolKind } from './tool-kind.ts';

const kinds = Object.entries(TOOL_KINDS) as [string, ToolKind][];

const schemas = kinds.map(([kind, { fields, preset }]) =>
  z.object({
    ...TOOL_BASE,
    kind: z.literal(kind),
    ...shapeOf(fields),
    presets: list(z.object({ ...PRESET_BASE, ...shapeOf(preset) }), 50),
  }),
);

/** A tool of any kind: what the document knows of it, and the fields of its kind. */
export const ToolSchema = z.discriminatedUnion('kind', schemas as never) as unknown as z.ZodType<BaseTool>;

for (const [, { fields, preset }] of kinds)
  for (const [key, { name, measure }] of [...Object.entries(fields), ...Object.entries(preset)])
    nameField(key, name, measure);
