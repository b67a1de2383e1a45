import type { z } from 'zod';
import type { Remark } from '../cuts/remark.ts';
import type { BaseBench } from '../document/bench.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Dialect } from '../program/dialect.ts';
import type { CutResult } from '../sequence/cut-result.ts';
import type { ToolKindName } from '../tools/kinds.ts';

/** A cut that could be made, with its number in the document. */
export interface MadeCut {
  cut: BaseCut;
  index: number;
  result: CutResult;
}

/** All that the house asks of a kind of machine. A kind is a folder with one of these, and a line in `kinds.ts`. */
export interface MachineKind<B extends BaseBench = BaseBench> {
  /** “a router”. */
  one: string;
  /** What its things are called: what goes over the work, what lies under it, and a move down. */
  words: { tool: string; bed: string; down: string };
  /** The fields of its bench. */
  schema: z.ZodType<B>;
  /** Kinds of tool that it holds. */
  tools: readonly ToolKindName[];
  /** How its controller wants its text, with what it writes besides moves and how long that takes. */
  dialect(bench: B): Dialect;
  /** Where its pointer’s spot lies from the tool’s middle, mm; nothing where it has none. */
  pointer?(bench: B): { x: number; y: number } | undefined;
  /** What of a cut it cannot do, besides speeds and reach, which every machine is judged by. */
  judge(bench: B, cut: MadeCut): Remark[];
}
