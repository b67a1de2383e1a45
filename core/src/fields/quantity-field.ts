import { z } from 'zod';
import { parseQuantity, type QuantityKind } from '../quantity/expression.ts';
import type { Field, FieldOption, Limits, Measure } from './field.ts';
import { FieldProblem } from './field.ts';

/** What a number may say of itself besides its limits. */
export interface QuantityWords extends Limits {
  /** Value in documents that have none. */
  initial?: number;
  /** Name of its option where it is not its own; false where there is none. */
  option?: string | false;
  /** What to say where the option is missing. */
  needed?: string;
  /** Why it must not be 0, and what to do: “so nothing would be cut; give a depth”. */
  none?: string;
  /** Also taken as a share of the bit: “40%”. */
  share?: boolean;
}

type Builder = (name: string, words: QuantityWords) => Field<number>;

/** A length in mm. @example length('depth', { above: 0, max: 200 }).name // 'depth' */
export const length: Builder = (name, words) => quantityField(name, 'length', 'length', words);

/** A feed in mm a minute. @example feed('feed', { above: 0, max: 50_000 }).measure // 'feed' */
export const feed: Builder = (name, words) => quantityField(name, 'feed', 'feed', words);

/** An angle in degrees. @example angle('ramp', { min: 0, max: 30 }).measure // 'angle' */
export const angle: Builder = (name, words) => quantityField(name, 'angle', 'angle', words);

/** A whole number. @example count('passes', 'passes', { min: 1, max: 9 }).schema.safeParse(1.5).success // false */
export const count = (name: string, suffix: string, words: QuantityWords): Field<number> =>
  quantityField(name, 'count', 'count', words, suffix);

/** Turns of a spindle a minute. @example speed('spindle speed', { min: 0, max: 100_000 }).measure // 'speed' */
export const speed: Builder = (name, words) => quantityField(name, 'number', 'speed', words, 'rpm', 500);

/** A time in seconds. @example seconds('dwell', { min: 0, max: 60 }).measure // 'seconds' */
export const seconds: Builder = (name, words) => quantityField(name, 'number', 'seconds', words, 's', 0.1);

/** A force in newtons. @example force('spring force', { min: 0, max: 200 }).measure // 'number' */
export const force: Builder = (name, words) => quantityField(name, 'number', 'number', words, 'N', 0.5);

/** A voltage. @example volts('arc voltage', { min: 0, max: 400 }).measure // 'number' */
export const volts: Builder = (name, words) => quantityField(name, 'number', 'number', words, 'V', 1);

/** A bare number. @example factor('gamma', { min: 0.1, max: 10 }).measure // 'number' */
export const factor: Builder = (name, words) => quantityField(name, 'number', 'number', words, undefined, 0.1);

/** How many stand in a millimetre. @example density('lines', { above: 0, max: 50 }).measure // 'number' */
export const density: Builder = (name, words) => quantityField(name, 'number', 'number', words, '/mm', 1);

/** A time in milliseconds. @example milliseconds('told earlier', { min: -20, max: 20 }).measure // 'number' */
export const milliseconds: Builder = (name, words) => quantityField(name, 'number', 'number', words, 'ms', 0.1);

/** A share in per cent. @example percent('enlarged', { min: 0, max: 50 }).measure // 'number' */
export const percent: Builder = (name, words) => quantityField(name, 'number', 'number', words, '%', 1);

function quantityField(
  name: string,
  quantity: QuantityKind,
  measure: Measure,
  words: QuantityWords,
  suffix?: string,
  arrow?: number,
): Field<number> {
  const { above, min, max, initial, option, needed, share, none } = words;
  let schema = quantity === 'count' ? z.number().int() : z.number();
  schema = above === undefined ? schema.min(min ?? -Infinity) : schema.gt(above);
  schema = schema.max(max);
  return {
    name,
    measure,
    schema: initial === undefined ? schema : schema.default(initial),
    control: { is: 'quantity', quantity, above, min, max, suffix, arrow },
    options:
      option === false
        ? []
        : [quantityOption(option ?? name.replaceAll(' ', '-'), quantity, words, { needed, share, none, suffix })],
  };
}

/** An option that takes a number. */
function quantityOption(
  name: string,
  quantity: QuantityKind,
  limits: Limits,
  { needed, share, none, suffix }: { needed?: string; share?: boolean; none?: string; suffix?: string } = {},
): FieldOption<number> {
  return {
    name,
    needed,
    read(text, { bit, label }) {
      const typed = text.trim();
      const bare = suffix && typed.endsWith(suffix) ? typed.slice(0, -suffix.length) : typed;
      const part = share ? /^([\d.]+)\s*%$/.exec(typed) : null;
      const said = part ? `${(Number(part[1]) / 100) * bit.diameter}` : bare;
      if (none && parseQuantity(said, quantity, 'mm', { min: 0, max: 0 }).ok)
        throw new FieldProblem(`${label} is 0, ${none}.`);
      return readQuantity(said, quantity, limits, label);
    },
  };
}

/** @throws {FieldProblem} with one sentence. */
export function readQuantity(text: string, quantity: QuantityKind, limits: Limits, label: string): number {
  const read = parseQuantity(text, quantity, 'mm', { ...limits, name: label });
  if (!read.ok) throw new FieldProblem(`${label}: ${read.problem}`);
  return read.value;
}
