import type { BaseTool } from '@kerbe/core/document/tool';
import { toolKindOf } from '@kerbe/core/tools/kinds';
import { presses } from '@kerbe/core/tools/presses';

/** A tool in a section: outlines in pixels, and how far it reaches to the side. */
export interface ToolShape {
  parts: { look: string; d: string }[];
  half: number;
}

/** Nothing is drawn higher than this, pixels from the top. */
const CEILING = 16;

/**
 * A tool with its tip at a place of a section: what cuts, and of one that is pressed what holds it, too.
 *
 * @param x of its middle, pixels. @param z of its tip, mm. @param kx pixels a mm across. @param py height in pixels.
 */
export function toolShape(
  tool: BaseTool,
  x: number,
  z: number,
  pressed: number,
  kx: number,
  py: (z: number) => number,
): ToolShape {
  const { parts } = toolKindOf(tool).picture(tool, pressed);
  const shown = presses(tool) ? parts : parts.filter(({ look }) => look === 'cutter');
  const corner = ([dx, dz]: readonly [number, number], k: number) =>
    `${k ? 'L' : 'M'}${x + dx * kx} ${Math.max(CEILING, py(z + dz))}`;
  return {
    parts: shown.map(({ look, points }) => ({ look, d: points.map(corner).join('') + (look === 'line' ? '' : 'Z') })),
    half: Math.max(...shown.flatMap(({ points }) => points.map(([dx]) => dx))) * kx,
  };
}
