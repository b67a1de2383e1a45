import { type BaseTool, TOOL_SIZES } from '../document/tool.ts';
import type { AnyField } from '../fields/field.ts';
import { formatLength } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';
import { toolKindOf } from './kinds.ts';

/** What makes a tool what it is: its kind, and its sizes by the names of their fields, mm, degrees and N. */
export type ToolShape = Record<string, string | number | boolean | null>;

const fieldsOfShape = (tool: BaseTool): [string, AnyField][] =>
  Object.entries({ ...TOOL_SIZES, ...toolKindOf(tool).fields });

/**
 * All that a tool's kind calls its shape. What it is called and what it is set to in a material are no part of it.
 *
 * @example toolShape(drill) // { kind: 'drill', diameter: 3, angle: null, shank: 3, flute: 20 }
 */
export function toolShape(tool: BaseTool): ToolShape {
  const values = tool as unknown as Record<string, ToolShape[string] | undefined>;
  return {
    kind: tool.kind,
    ...Object.fromEntries(fieldsOfShape(tool).map(([key]) => [key, values[key] ?? null])),
  };
}

/**
 * The shape of a tool in words.
 *
 * @example shapeInWords(drill, 'mm') // 'a drill, diameter 3 mm, shank 3 mm, cutting length 20 mm'
 */
export function shapeInWords(tool: BaseTool, unit: LengthUnit): string {
  const shape = toolShape(tool);
  const said = fieldsOfShape(tool).map(([key, { name, measure, control }]) => {
    const value = shape[key];
    const suffix = control.is === 'quantity' && control.suffix ? ` ${control.suffix}` : '';
    if (typeof value !== 'number') return value === null ? undefined : `${name} ${String(value)}`;
    return `${name} ${measure === 'length' ? formatLength(value, unit, 3) : measure === 'angle' ? `${value}°` : `${value}${suffix}`}`;
  });
  return [toolKindOf(tool).one, ...said.filter((words) => words !== undefined)].join(', ');
}
