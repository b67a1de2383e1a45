import type { BaseTool } from '../document/tool.ts';
import type { FieldSet } from '../fields/field.ts';
import type { Sentence } from '../fields/sentence.ts';
import type { LengthUnit } from '../quantity/units.ts';
import type { Leaves } from './leaves.ts';
import type { Picture } from './picture.ts';

/** All that the house asks of a kind of tool. A kind is a folder with one of these, and a line in `kinds.ts`. */
export interface ToolKind<T extends BaseTool = BaseTool> {
  /** “a V-bit”. */
  one: string;
  /** Its fields besides those that every tool has; schema and card come from them. */
  fields: FieldSet;
  /** What it is set to in a material. */
  preset: FieldSet;
  /** How the command line says one: “v60:12.7[:tip]”; see `given`. */
  written: string;
  /** The tool that such a text says, without id and name; nothing where it is not of this kind. */
  given(kind: string, sizes: readonly number[]): object | undefined;
  /** The card’s sentence; it ends with a full stop. */
  sentence(tool: T): Sentence;
  /** What else is worth a line: how wide its groove is. */
  note?(tool: T, unit: LengthUnit): string | undefined;
  /** What it leaves where it goes. @throws {ToolProblem} where it is not described well enough. */
  leaves(tool: T): Leaves;
  /** Seen from the side. */
  picture(tool: T): Picture;
  /** Whether it cuts turning, so that the spindle has to be on. */
  turns: boolean;
  /** How far up its edges cut, mm; nothing where it has none. */
  edges?(tool: T): number;
  /** Most that it takes at once in a material, mm; nothing where that is not known of it. */
  takes?(tool: T, material: string): number | undefined;
}
