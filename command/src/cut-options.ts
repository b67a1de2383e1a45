import { parseArgs } from 'node:util';
import { type Bit, BitSchema } from '@kerbe/core/document/bit';
import { type Cut, CutSchema } from '@kerbe/core/document/cut';
import { parseQuantity, type QuantityKind } from '@kerbe/core/quantity/expression';
import { Misuse } from './misuse.ts';

export const CUT_USE =
  'Use: ./kerbe cut v-carve|pocket|profile|drill|inlay ART.svg --bit v60:12.7|end:3.175|drill:3 [options] --out FILE';

const KINDS = ['v-carve', 'pocket', 'profile', 'drill', 'inlay'] as const;

/** Options of every kind of cut, and those of each. */
const OF_ALL = ['bit', 'feed', 'plunge', 'speed', 'lift', 'thickness', 'zero', 'units', 'no-arcs', 'refit', 'out'];
const OF_KIND: Record<(typeof KINDS)[number], readonly string[]> = {
  'v-carve': ['clear-bit', 'max-depth', 'start-depth', 'depth-per-pass', 'step'],
  pocket: ['clear-bit', 'start-depth', 'depth', 'depth-per-pass', 'last-pass', 'step', 'pattern', 'angle', 'ramp', 'finish', 'conventional', 'slots'],
  profile: ['depth', 'depth-per-pass', 'last-pass', 'side', 'conventional', 'tabs', 'tab', 'skin', 'finish', 'lead', 'ramp', 'overlap'],
  drill: ['depth', 'peck', 'dwell'],
  inlay: ['depth', 'depth-per-pass', 'last-pass', 'step', 'allowance', 'conventional', 'ramp', 'tabs', 'tab'],
}; // prettier-ignore

/** What `./kerbe cut` was asked for; lengths in mm. */
export interface CutOrder {
  kind: Cut['kind'];
  art: string;
  out: string;
  bits: Bit[];
  cut: Cut;
  zero: 'lower-left' | 'centre';
  unit: 'mm' | 'in';
  arcs: boolean;
  lift: number;
  thickness: number;
  /** Outlines are drawn anew with few curves within this, mm; 0 leaves them as drawn. */
  refit: number;
}

/** Reads the options of `./kerbe cut`. @throws {Misuse} with one sentence. */
export function readCutOptions(args: string[]): CutOrder {
  let parsed;
  try {
    parsed = parseArgs({
      args: withValues(args),
      allowPositionals: true,
      options: {
        bit: { type: 'string' },
        'clear-bit': { type: 'string', multiple: true },
        'max-depth': { type: 'string' },
        'start-depth': { type: 'string' },
        depth: { type: 'string' },
        'depth-per-pass': { type: 'string' },
        'last-pass': { type: 'string' },
        step: { type: 'string' },
        side: { type: 'string' },
        tabs: { type: 'string' },
        tab: { type: 'string' },
        ramp: { type: 'string' },
        skin: { type: 'string' },
        finish: { type: 'string' },
        allowance: { type: 'string' },
        pattern: { type: 'string' },
        angle: { type: 'string' },
        peck: { type: 'string' },
        dwell: { type: 'string' },
        lead: { type: 'string' },
        overlap: { type: 'string' },
        conventional: { type: 'boolean' },
        slots: { type: 'boolean' },
        refit: { type: 'string' },
        feed: { type: 'string' },
        plunge: { type: 'string' },
        speed: { type: 'string' },
        lift: { type: 'string' },
        thickness: { type: 'string' },
        zero: { type: 'string' },
        units: { type: 'string' },
        'no-arcs': { type: 'boolean' },
        out: { type: 'string' },
      },
    });
  } catch (error) {
    throw new Misuse(`${(error as Error).message} ${CUT_USE}`);
  }
  const { values, positionals } = parsed;
  const [kind, art] = positionals;
  const known = KINDS.find((k) => k === kind);
  if (!known) throw new Misuse(kind ? `There is no cut “${kind}”; there are ${KINDS.join(', ')}.` : CUT_USE);
  const strange = Object.keys(values).find((name) => !OF_ALL.includes(name) && !OF_KIND[known].includes(name));
  if (strange) {
    const others = KINDS.filter((k) => OF_KIND[k].includes(strange));
    throw new Misuse(
      `--${strange} is no option of ${known}, only of ${others.join(', ')}; ${known} takes --${OF_KIND[known].join(', --')}.`,
    );
  }
  if (!art || positionals.length > 2) throw new Misuse(`One drawing is needed. ${CUT_USE}`);
  if (!values.out) throw new Misuse(`Say where the program goes with --out FILE. ${CUT_USE}`);
  if (!values.bit) throw new Misuse('Say which bit with --bit, for example v60:12.7, end:3.175 or drill:3.');

  const number = (
    name: keyof typeof values,
    fallback: number,
    kindOf: QuantityKind = 'length',
    least = 0,
    most = 10_000,
  ) => {
    const text = values[name];
    if (text === undefined) return fallback;
    const read = parseQuantity(String(text), kindOf, 'mm', { min: least, max: most, name: `--${name}` });
    if (!read.ok) throw new Misuse(`--${name}: ${read.problem}`);
    return read.value;
  };
  const oneOf = <T extends string>(name: keyof typeof values, options: readonly T[]): T => {
    const text = values[name] ?? options[0];
    const found = options.find((option) => option === text);
    if (!found) throw new Misuse(`--${name} is one of ${options.join(', ')}, not “${String(text)}”.`);
    return found;
  };

  const bit = readBit(values.bit, 'bit');
  const clear = (values['clear-bit'] ?? []).map((text, i) => readBit(text, `clear${i + 1}`));
  if (clear.some((b) => b.kind !== 'end')) throw new Misuse('--clear-bit takes end mills only, for example end:6.35.');
  if (clear.some((b, i) => i > 0 && b.diameter > clear[i - 1].diameter))
    throw new Misuse('Give the largest --clear-bit first.');
  const share = /^([\d.]+)\s*%$/.exec(values.step ?? '');
  const step = share
    ? (Number(share[1]) / 100) * bit.diameter
    : number('step', known === 'v-carve' ? 0.5 : bit.diameter * 0.4, 'length', 0, 100);
  if (!(step > 0))
    throw new Misuse('--step is 0, so the floor would never be finished; give for example 0.5mm or 40%.');
  const feed = number('feed', 1500, 'feed', 0, 50_000);
  const plunge = number('plunge', Math.min(feed, 600), 'feed', 0, 50_000);
  if (!(feed > 0)) throw new Misuse('--feed is 0, so the bit would never arrive; give mm a minute, for example 1500.');
  if (!(plunge > 0))
    throw new Misuse('--plunge is 0, so the bit would never go down; give mm a minute, for example 600.');
  const base = {
    id: 'cut',
    kind: known,
    targets: [{ item: 'art', shapes: 'all' as const }],
    bit: bit.id,
    feed,
    plunge,
    speed: number('speed', 18_000, 'number', 0, 100_000),
  };
  const depth = known === 'v-carve' ? 1 : number('depth', NaN, 'length', 0, 200);
  if (Number.isNaN(depth)) throw new Misuse('Say how deep with --depth, for example --depth 6.');
  if (!(depth > 0)) throw new Misuse('--depth is 0, so nothing would be cut; give a depth.');
  const depthPerPass = number(
    'depth-per-pass',
    known === 'v-carve' ? NaN : Math.min(depth, bit.diameter),
    'length',
    0,
    100,
  );
  if (depthPerPass <= 0) throw new Misuse('--depth-per-pass is 0; give a depth above 0.');
  const ramp = number('ramp', known === 'profile' ? 0 : 5, 'angle', 0, 90);
  if (ramp > 30) throw new Misuse('--ramp is steeper than an end mill can cut, 30deg at most; 5deg is usual.');
  const entry = { kind: values.ramp !== undefined && ramp === 0 ? 'plunge' : 'ramp', angle: ramp || 5 };
  const [tabLength, tabHeight] = readTab(values.tab ?? '6x1.5');
  const tabs = { count: number('tabs', 0, 'count', 0, 100), length: tabLength, height: tabHeight };
  const climb = !values.conventional;
  const lastPass = number('last-pass', 0, 'length', 0, 20);
  const own: Record<Cut['kind'], object> = {
    'v-carve': {
      depthLimit: number('max-depth', 200, 'length', 0.001, 200),
      startDepth: number('start-depth', 0, 'length', 0, 200),
      depthPerPass: Number.isNaN(depthPerPass) ? null : depthPerPass,
      floorStep: step,
      clearBits: clear.map((b) => b.id),
    },
    pocket: {
      depth,
      startDepth: number('start-depth', 0, 'length', 0, 200),
      depthPerPass,
      lastPass,
      step,
      pattern: oneOf('pattern', ['rings', 'lines']),
      angle: number('angle', 0, 'angle', -360, 360),
      climb,
      finish: number('finish', 0, 'length', 0, 10),
      entry,
      slots: values.slots ?? false,
      clearBits: clear.map((b) => b.id),
    },
    profile: {
      depth,
      depthPerPass,
      lastPass,
      side: oneOf('side', ['outside', 'inside', 'on']),
      climb,
      tabs,
      skin: number('skin', 0, 'length', 0, 50),
      finish: number('finish', 0, 'length', 0, 10),
      lead: readLead(values.lead),
      ramp,
      overlap: number('overlap', 0, 'length', 0, 100),
    },
    drill: {
      depth,
      peck: number('peck', 0, 'length', 0, 100),
      retract: 'full',
      dwell: number('dwell', 0, 'number', 0, 60),
    },
    inlay: {
      role: 'recess',
      otherDiameter: bit.diameter,
      allowance: number('allowance', 0.06, 'length', -1, 2),
      depth,
      depthPerPass,
      lastPass,
      step,
      climb,
      entry,
      tabs,
      shift: { x: 0, y: 0 },
    },
  };
  const made = CutSchema.safeParse({ ...base, ...own[known] });
  if (!made.success) {
    const [issue] = made.error.issues;
    throw new Misuse(`The setting ${issue.path.join(' ')} cannot be used: ${issue.message}.`);
  }
  return {
    kind: known,
    art,
    out: values.out,
    bits: [bit, ...clear],
    cut: made.data,
    zero: oneOf('zero', ['lower-left', 'centre']),
    unit: oneOf('units', ['mm', 'in']),
    arcs: !values['no-arcs'],
    lift: number('lift', 5, 'length', 0.5, 200),
    refit: number('refit', 0, 'length', 0, 2),
    thickness: number('thickness', known === 'profile' ? depth : 200, 'length', 0.1, 1000),
  };
}

/** Arguments with a value below 0 joined to its option, or it would be taken for an option itself. */
function withValues(args: readonly string[]): string[] {
  const out: string[] = [];
  for (const arg of args)
    if (/^-[\d.]/.test(arg) && /^--[a-z-]+$/.test(out.at(-1) ?? '')) out[out.length - 1] += `=${arg}`;
    else out.push(arg);
  return out;
}

/** `v60:12.7[:tip]`, `end:6.35`, `drill:3`: kind, angle and diameters. */
function readBit(text: string, id: string): Bit {
  const found = /^(?:v([\d.]+)|(end|drill)):([^:]+)(?::([^:]+))?$/.exec(text.trim());
  const bad = new Misuse(`“${text}” is no bit; write for example v60:12.7, v30:6:0.2, end:3.175 or drill:3.`);
  if (!found) throw bad;
  const length = (part: string) => {
    const read = parseQuantity(part, 'length', 'mm', { min: 0 });
    if (!read.ok) throw bad;
    return read.value;
  };
  const diameter = length(found[3]);
  const bit = BitSchema.safeParse({
    id,
    name: text.trim(),
    kind: found[1] ? 'v' : found[2],
    diameter,
    angle: found[1] ? Number(found[1]) : undefined,
    tip: found[4] ? length(found[4]) : 0,
    flute: 200,
    shank: Math.max(1, Math.min(60, diameter)),
    presets: [],
  });
  if (!bit.success || (bit.data.kind === 'v' && bit.data.tip >= bit.data.diameter)) throw bad;
  return bit.data;
}

function readTab(text: string): [number, number] {
  const parts = text.split(/x/i).map((part) => parseQuantity(part, 'length', 'mm', { min: 0.1, max: 100 }));
  if (parts.length !== 2 || !parts[0].ok || !parts[1].ok)
    throw new Misuse(`“${text}” is no tab; write its length and height, for example 6x1.5.`);
  return [parts[0].value, parts[1].value];
}

function readLead(text: string | undefined): { kind: 'none' | 'line' | 'arc'; length: number } {
  if (text === undefined) return { kind: 'none', length: 3 };
  const found = /^(line|arc)(?::(.+))?$/.exec(text);
  const length = found?.[2] === undefined ? undefined : parseQuantity(found[2], 'length', 'mm', { min: 0.1, max: 100 });
  if (!found || (length && !length.ok)) throw new Misuse(`“${text}” is no lead; write for example arc:3 or line:3.`);
  return { kind: found[1] as 'line' | 'arc', length: length?.ok ? length.value : 3 };
}
