import type { BaseTool } from '../document/tool.ts';
import { beamKind } from './beam/kind.ts';
import { dragKind } from './drag/kind.ts';
import { drillKind } from './drill/kind.ts';
import { endKind } from './end/kind.ts';
import { nozzleKind } from './nozzle/kind.ts';
import type { ToolKind } from './tool-kind.ts';
import { vKind } from './v/kind.ts';

/** The kinds of tool there are. */
export const TOOL_KINDS = {
  v: vKind,
  end: endKind,
  drill: drillKind,
  drag: dragKind,
  nozzle: nozzleKind,
  beam: beamKind,
};

export type ToolKindName = keyof typeof TOOL_KINDS;

/** The kind of a tool. @example toolKindOf({ kind: 'drill' }).one // 'a drill' */
export function toolKindOf<T extends BaseTool>(tool: Pick<T, 'kind'>): ToolKind<T> {
  return TOOL_KINDS[tool.kind as ToolKindName] as unknown as ToolKind<T>;
}

/** The tools of some kinds, in the order in which they stand. */
export function ofKinds<T extends BaseTool>(tools: readonly BaseTool[], kinds: readonly ToolKindName[]): T[] {
  return tools.filter((tool) => (kinds as readonly string[]).includes(tool.kind)) as T[];
}
