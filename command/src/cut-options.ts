import { parseArgs } from 'node:util';
import { CutSchema } from '@kerbe/core/cuts/cut-schema';
import { freshCut } from '@kerbe/core/cuts/fresh-cut';
import type { FreshFrom } from '@kerbe/core/cuts/kind';
import { CUT_KINDS, type Cut, type CutKindName, kindOf } from '@kerbe/core/cuts/kinds';
import { wrongTool } from '@kerbe/core/cuts/parts-of';
import type { BaseTool } from '@kerbe/core/document/tool';
import { sentenceFor } from '@kerbe/core/schema/sentence-for';
import { ofKinds, TOOL_KINDS } from '@kerbe/core/tools/kinds';
import type { ToolKind } from '@kerbe/core/tools/tool-kind';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import { type AnyField, type FieldOption, FieldProblem } from '@kerbe/core/fields/field';
import { parseQuantity } from '@kerbe/core/quantity/expression';
import { Misuse } from './misuse.ts';

const KINDS = Object.keys(CUT_KINDS) as CutKindName[];

export const CUT_USE = `Use: ./kerbe cut ${KINDS.join('|')} ART.svg --bit v60:12.7|end:3.175|drill:3|drag:0.3 [options] --out FILE`;

/** Kinds of tool that may be said by an option of their own: `--beam 0.2` is `--bit beam:0.2`. */
const TOOLS = Object.entries<ToolKind>(TOOL_KINDS).flatMap(([name, { written }]) => written.startsWith(`${name}:`) ? [name] : []); // prettier-ignore

/** Why the arguments could not be taken apart, in a sentence of our own where Node.js has more to say. */
function unread({ message }: Error): string {
  const strange = /^Unknown option '(-[^']*)'/.exec(message)?.[1];
  if (strange) return `There is no option ${strange}.`;
  const lacking = /^Option '(?:-\w, )?(--[^' ]+)[^']*' argument missing/.exec(message)?.[1];
  if (lacking) return `${lacking} needs a value behind it.`;
  const bare = /^Option '(?:-\w, )?(--[^' ]+)[^']*' does not take an argument/.exec(message)?.[1];
  return bare ? `${bare} takes no value.` : message;
}

/** Options that are not a field of the cut. */
const OF_ALL = [...TOOLS, 'bit', 'lift', 'thickness', 'zero', 'units', 'no-arcs', 'refit', 'out'];

interface OfField {
  key: string;
  field: AnyField;
  option: FieldOption<unknown>;
}

/** The options of a kind's fields, by their names. */
function optionsOf(kind: CutKindName): Map<string, OfField> {
  const fields = Object.entries<AnyField>(CUT_KINDS[kind].fields);
  return new Map(
    fields.flatMap(([key, field]) =>
      field.options.map((option: FieldOption<unknown>) => [option.name, { key, field, option }] as const),
    ),
  );
}

/** What `./kerbe cut` was asked for; lengths in mm. */
export interface CutOrder {
  kind: CutKindName;
  art: string;
  out: string;
  bits: BaseTool[];
  cut: Cut;
  zero: 'lower-left' | 'centre';
  unit: 'mm' | 'in';
  arcs: boolean;
  lift: number;
  thickness: number;
  /** Outlines are drawn anew with few curves within this, mm; 0 leaves them as drawn. */
  refit: number;
}

/** Thickness of the stock where nobody says, mm: what no cut goes through. */
const THICK = 200;

/** Reads the options of `./kerbe cut`. @throws {Misuse} with one sentence. */
export function readCutOptions(args: string[]): CutOrder {
  const all = new Map(KINDS.flatMap((kind) => [...optionsOf(kind)]));
  const options = Object.fromEntries([
    ...OF_ALL.map((name) => [name, { type: name === 'no-arcs' ? 'boolean' : 'string' }] as const),
    ...[...all].map(
      ([name, { option }]) =>
        [name, { type: option.bare ? 'boolean' : 'string', multiple: option.bits ?? false }] as const,
    ),
  ]);
  let parsed;
  try {
    parsed = parseArgs({ args: withValues(args), allowPositionals: true, options });
  } catch (error) {
    throw new Misuse(`${unread(error as Error)} ${CUT_USE}`);
  }
  const { positionals } = parsed;
  const values = parsed.values as Record<string, string | boolean | string[] | undefined>;
  const [kind, art] = positionals;
  const known = KINDS.find((k) => k === kind);
  if (!known) throw new Misuse(kind ? `There is no cut “${kind}”; there are ${KINDS.join(', ')}.` : CUT_USE);
  const own = optionsOf(known);
  const strange = Object.keys(values).find((name) => !OF_ALL.includes(name) && !own.has(name));
  if (strange) {
    const told = kindOf({ kind: known }).without?.[strange];
    if (told) throw new Misuse(told);
    const others = KINDS.filter((k) => optionsOf(k).has(strange));
    throw new Misuse(
      `--${strange} is no option of ${known}, only of ${others.join(', ')}; ${known} takes --${[...own.keys()].join(', --')}.`,
    );
  }
  if (!art || positionals.length > 2) throw new Misuse(`One drawing is needed. ${CUT_USE}`);
  const text = (name: string) => (values[name] === undefined ? undefined : String(values[name]));
  const out = text('out');
  if (out === undefined) throw new Misuse(`Say where the program goes with --out FILE. ${CUT_USE}`);
  const said = ['bit', ...TOOLS].filter((name) => values[name] !== undefined);
  if (said.length > 1) throw new Misuse(`Say one tool: --${said[0]} or --${said[1]}, not both.`);
  const asked = said.length === 0 ? kindOf({ kind: known }).tool : said[0] === 'bit' ? text('bit') : `${said[0]}:${text(said[0])}`; // prettier-ignore
  if (asked === undefined) throw new Misuse('Say which bit with --bit, for example v60:12.7, end:3.175 or drill:3.');

  const number = (name: string, fallback: number, min: number, max: number) => {
    const said = text(name);
    if (said === undefined) return fallback;
    const read = parseQuantity(said, 'length', 'mm', { min, max, name: `--${name}` });
    if (!read.ok) throw new Misuse(`--${name}: ${read.problem}`);
    return read.value;
  };
  const oneOf = <T extends string>(name: string, choices: readonly T[]): T => {
    const said = text(name) ?? choices[0];
    const found = choices.find((choice) => choice === said);
    if (!found) throw new Misuse(`--${name} is one of ${choices.join(', ')}, not “${said}”.`);
    return found;
  };

  const bit = readBit(asked, 'bit');
  const wrong = wrongTool({ kind: known }, bit);
  if (wrong) throw new Misuse(wrong);
  const bits = [bit];
  const cut = freshCut(known, kindOf({ kind: known }), 'cut', usual(bit));
  cut.targets = [{ item: 'art', shapes: 'all' }];
  for (const [name, { key, field, option }] of own) {
    const given = values[name];
    if (given === undefined) {
      if (option.needed) throw new Misuse(option.needed);
      continue;
    }
    // What a fresh cut does not say has the value of documents that have none.
    let now: unknown = cut[key] ?? field.schema.safeParse(undefined).data;
    for (const said of Array.isArray(given) ? given : [String(given)])
      now = readField(option, option.bits ? clearing(bits, said, name) : said, now, bit);
    cut[key] = now;
  }
  const { thicknessNeeded } = kindOf({ kind: known });
  if (thicknessNeeded && values.thickness === undefined) throw new Misuse(thicknessNeeded);
  if (values.plunge === undefined && typeof cut.plunge === 'number' && typeof cut.feed === 'number')
    cut.plunge = Math.min(cut.plunge, cut.feed);
  const made = CutSchema.safeParse(cut);
  if (!made.success) {
    const [issue] = made.error.issues;
    throw new Misuse(`The setting ${issue.path.join(' ')} cannot be used: ${issue.message}.`);
  }
  return {
    kind: known,
    art,
    out,
    bits,
    cut: made.data,
    zero: oneOf('zero', ['lower-left', 'centre']),
    unit: oneOf('units', ['mm', 'in']),
    arcs: !values['no-arcs'],
    lift: number('lift', 5, 0.5, 200),
    refit: number('refit', 0, 0, 2),
    thickness: number('thickness', kindOf(made.data).board?.(made.data) ?? THICK, 0.1, 1000),
  };
}

/** What a cut is made from where nobody says otherwise, on a board that limits nothing. */
function usual(bit: BaseTool): FreshFrom & { feed: number; plunge: number; speed: number } {
  return {
    bit,
    preset: undefined,
    feed: 1500,
    plunge: 600,
    speed: 18_000,
    depthPerPass: bit.diameter,
    thick: Infinity,
    through: Infinity,
    step: 0.4 * bit.diameter,
    peck: 0,
    entry: { kind: 'ramp', angle: 5 },
    tabs: { count: 0, length: 6, height: 1.5 },
  };
}

function readField(option: FieldOption<unknown>, said: string, now: unknown, bit: BaseTool): unknown {
  try {
    return option.read(said, { now, bit, label: `--${option.name}` });
  } catch (error) {
    if (error instanceof FieldProblem) throw new Misuse(error.message);
    throw error;
  }
}

/** Takes a bit that clears first, and gives its name in the job. */
function clearing(bits: BaseTool[], said: string, name: string): string {
  const bit = readBit(said, `clear${bits.length}`);
  if (ofKinds([bit], ['end']).length === 0) throw new Misuse(`--${name} takes end mills only, for example end:6.35.`);
  if (bits.length > 1 && bit.diameter > bits[bits.length - 1].diameter)
    throw new Misuse(`Give the largest --${name} first.`);
  bits.push(bit);
  return bit.id;
}

/** Arguments with a value below 0 joined to its option, or it would be taken for an option itself. */
function withValues(args: readonly string[]): string[] {
  const out: string[] = [];
  for (const arg of args)
    if (/^-[\d.]/.test(arg) && /^--[a-z-]+$/.test(out.at(-1) ?? '')) out[out.length - 1] += `=${arg}`;
    else out.push(arg);
  return out;
}

/** A tool as the kinds of tool write it: `v60:12.7[:tip]`, `end:6.35`, `drill:3`. */
function readBit(text: string, id: string): BaseTool {
  const kinds: ToolKind[] = Object.values(TOOL_KINDS);
  const bad = new Misuse(`“${text}” is no bit; write for example ${listed(kinds.map(({ written }) => written))}.`);
  const [kind, ...parts] = text.trim().split(':');
  if (parts.length < 1 || parts.length > 2) throw bad;
  const sizes = parts.map((part) => {
    const read = parseQuantity(part, 'length', 'mm', { min: 0 });
    if (!read.ok) throw bad;
    return read.value;
  });
  const given = kinds.map((of) => of.given(kind, sizes)).find((found) => found !== undefined);
  const [diameter] = sizes;
  const bit = ToolSchema.safeParse({
    id,
    name: text.trim(),
    flute: 200,
    shank: Math.max(1, Math.min(60, diameter)),
    presets: [],
    ...given,
  });
  if (!given) throw bad;
  if (!bit.success) throw new Misuse(`“${text}” cannot be used: ${sentenceFor(bit.error, 'mm')}`);
  return bit.data;
}

const listed = (all: readonly string[]): string => `${all.slice(0, -1).join(', ')} or ${all.at(-1)}`;
