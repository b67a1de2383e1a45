import { Told } from '../schema/told.ts';
import type { z } from 'zod';
import type { QuantityKind } from '../quantity/expression.ts';

/** What a number may be: more than `above`, or at least `min`; at most `max`. */
export interface Limits {
  above?: number;
  min?: number;
  max: number;
}

export interface Option {
  value: string;
  label: string;
}

/** How a field is set where it stands in a sentence. */
export type Control =
  | ({ is: 'quantity'; quantity: QuantityKind; suffix?: string; arrow?: number } & Limits)
  | { is: 'choice'; options: readonly Option[] }
  /** Bits of some kinds, in order; `larger` than the cut's own. */
  | { is: 'bits'; kinds: readonly string[]; larger: boolean }
  /** The cut's own bit. */
  | { is: 'bit'; kinds: readonly string[] }
  /** The outlines a cut works on. */
  | { is: 'outlines' }
  /** Fields of its own, or places on the sheet: set by the slots inside it, or by hand on the sheet. */
  | { is: 'inside' };

/** What an option is read with: the field's value so far, the cut's own bit, and what the option is called. */
export interface Given<T> {
  now: T;
  bit: { diameter: number };
  label: string;
}

/** An option of the command line that sets a field, or a part of one. */
export interface FieldOption<T> {
  name: string;
  /** It takes no value. */
  bare?: boolean;
  /** It may be given several times, and its values are bits. */
  bits?: boolean;
  /** What to say where it is missing; without, the field has a usual value. */
  needed?: string;
  /**
   * The field's value once the option was read.
   * @throws {FieldProblem} with one sentence.
   */
  read(text: string, given: Given<T>): T;
}

/** One field of a cut: what it is called, what it may be, how it is set. Schema, card, options and headings come from it. */
export interface Field<T> {
  /** “depth per pass”; a `#` stands for the number of the cut. */
  name: string;
  /** What a number of it measures, for sentences of error. */
  measure: Measure;
  schema: z.ZodType<T>;
  control: Control;
  options: readonly FieldOption<T>[];
  /** What its control shows and gives, where that is not the value itself. */
  shown?(value: T): unknown;
  given?(shown: unknown): T;
}

export type Measure = 'length' | 'feed' | 'angle' | 'speed' | 'seconds' | 'number' | 'count' | 'choice';

// Fields of any value: what one reads is what its own schema let in.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyField = Field<any>;
export type FieldSet = Record<string, AnyField>;

/** The values of a set of fields. */
export type Values<F extends FieldSet> = { -readonly [K in keyof F]: F[K] extends Field<infer T> ? T : never };

/** A text that a field cannot take; the message is one sentence. */
export class FieldProblem extends Told {
  override name = 'FieldProblem';
}
