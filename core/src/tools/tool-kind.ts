import type { BaseTool } from '../document/tool.ts';
import type { FieldSet } from '../fields/field.ts';
import type { Sentence } from '../fields/sentence.ts';
import type { LengthUnit } from '../quantity/units.ts';
import type { Leaves } from './leaves.ts';
import type { Picture } from './picture.ts';

/** A spring behind a tool: how far it gives, mm, what it presses with when it begins to give, N, and how wide a line it draws then, mm. */
export interface Spring {
  travel: number;
  force: number;
  width: number;
}

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
  /** Why it cannot be as it is described: sizes that contradict each other, in one sentence. */
  amiss?(tool: T, unit: LengthUnit): string | undefined;
  /** What it leaves where it goes. @throws {ToolProblem} where it is not described well enough. */
  leaves(tool: T): Leaves;
  /**
   * Seen from the side.
   * @param pressed how far what gives is pressed, mm; the tip stays where it is.
   */
  picture(tool: T, pressed?: number): Picture;
  /** What the values that it ships with are worth, in a line. */
  caution?: string;
  /** What it is set to in a sheet of a thickness, mm, where that goes by more than the material. */
  settingsIn?(tool: T, material: string, thick: number): T['presets'][number] | undefined;
  /** Reads the rows of such settings from CSV. @throws with one sentence for a text that is none. */
  readChart?(text: string, unit: LengthUnit): T['presets'];
  /** Whether it has to be switched on to cut: a spindle turns it, an arc or a beam burns. */
  turns: boolean;
  /** Whether it carries current, so that a touch plate can feel it. */
  conducts: boolean;
  /** What gives when it is pressed down; nothing where it stands firm. */
  spring?(tool: T): Spring;
  /** How far up its edges cut, mm; nothing where it has none. */
  edges?(tool: T): number;
  /** Most that it takes at once in a material, mm; nothing where that is not known of it. */
  takes?(tool: T, material: string): number | undefined;
}
