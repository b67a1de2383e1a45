import { GAUGES, gaugeThickness } from './gauge.ts';
import { type LengthUnit, MM_PER_INCH, mmPer } from './units.ts';

/** What a number field holds. Lengths come out in mm, feeds in mm/min, angles in degrees, the rest as written. */
export type QuantityKind = 'length' | 'feed' | 'angle' | 'number' | 'count';

export type Parsed = { ok: true; value: number } | { ok: false; problem: string };

export interface QuantityLimits {
  min?: number;
  /** As `min`, but the number itself is too little. */
  above?: number;
  max?: number;
  /** How the field is called in a sentence, for example "The depth". */
  name?: string;
}

const LENGTH_UNITS: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  '"': MM_PER_INCH,
  '″': MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
  "'": 12 * MM_PER_INCH,
};
/** Sheet steel by number: “10 ga”. */
const GAUGE = ['ga', 'gauge'];
const TIME_UNITS: Record<string, number> = { min: 1, s: 1 / 60 };
const ANGLE_UNITS: Record<string, number> = { '°': 1, deg: 1, rad: 180 / Math.PI };

type Token = { type: 'number'; value: number } | { type: 'unit'; name: string } | { type: 'mark'; mark: string };

interface Amount {
  value: number;
  /** Power of length: 0 for a bare number, 1 for a length. */
  power: number;
}

class Misread extends Error {}

/**
 * Reads a number field: sums, brackets, fractions and units of either system.
 * Sheet steel may be given by its gauge (`10 ga`). A bare number takes the field's own unit; a unit after a product belongs to the product (`3/8 in` is 9.525 mm).
 *
 * @returns the value in mm, mm/min or degrees, or one sentence saying what is wrong.
 * @example
 * parseQuantity('3/8 in + 2 mm', 'length', 'mm') // { ok: true, value: 11.525 }
 * parseQuantity('12..5', 'length', 'mm') // { ok: false, problem: '“12..5” has two decimal points in one number; …' }
 */
export function parseQuantity(
  text: string,
  kind: QuantityKind,
  unit: LengthUnit,
  { min = -Infinity, above, max = Infinity, name = 'The value' }: QuantityLimits = {},
): Parsed {
  try {
    const reader = new Reader(tokenise(text), kind, unit, text);
    const value = reader.whole();
    if (!Number.isFinite(value)) throw new Misread(`“${text}” has no finite result; check for a division by zero.`);
    if (kind === 'count' && !Number.isInteger(value))
      throw new Misread(`${name} must be a whole number; “${text}” is ${round(value)}.`);
    if (above !== undefined && value <= above)
      throw new Misread(
        `${name} must be more than ${shown(above, kind, unit)}${max === Infinity ? '' : ` and at most ${shown(max, kind, unit)}`}; “${text.trim()}” is too small.`,
      );
    if (value < min)
      throw new Misread(`${name} must be ${within(min, max, kind, unit)}; “${text.trim()}” is too small.`);
    if (value > max)
      throw new Misread(`${name} must be ${within(min, max, kind, unit)}; “${text.trim()}” is too large.`);
    return { ok: true, value };
  } catch (error) {
    if (error instanceof Misread) return { ok: false, problem: error.message };
    throw error;
  }
}

function round(value: number): string {
  return String(Math.round(value * 1e4) / 1e4);
}

function shown(value: number, kind: QuantityKind, unit: LengthUnit): string {
  if (kind === 'angle') return `${round(value)}°`;
  if (kind === 'number' || kind === 'count') return round(value);
  const suffix = kind === 'feed' ? `${unit}/min` : unit;
  return `${round(value / mmPer(unit))} ${suffix}`;
}

function within(min: number, max: number, kind: QuantityKind, unit: LengthUnit): string {
  if (min === -Infinity) return `at most ${shown(max, kind, unit)}`;
  if (max === Infinity) return `at least ${shown(min, kind, unit)}`;
  return `between ${shown(min, kind, unit)} and ${shown(max, kind, unit)}`;
}

function tokenise(text: string): Token[] {
  const source = text.replace(/[−–]/g, '-').replace(/×/g, '*').replace(/÷/g, '/').replace(/,/g, '.');
  if (source.trim() === '') throw new Misread('Nothing is written here; type a number such as 12.5 or 3/8 in.');
  const tokens: Token[] = [];
  const pattern = /\s*(?:(\d[\d.]*|\.\d[\d.]*)|([a-zA-Z]+|["'″°])|([-+*/()]))/y;
  while (pattern.lastIndex < source.trimEnd().length) {
    const from = pattern.lastIndex;
    const match = pattern.exec(source);
    if (!match) {
      const odd = source.slice(from).trim().charAt(0);
      throw new Misread(`“${odd}” cannot be read in “${text.trim()}”; use digits, + − * / ( ) and units.`);
    }
    if (match[1] !== undefined) {
      if (match[1].split('.').length > 2)
        throw new Misread(`“${text.trim()}” has two decimal points in one number; write it with one, such as 12.5.`);
      tokens.push({ type: 'number', value: Number(match[1]) });
    } else if (match[2] !== undefined) tokens.push({ type: 'unit', name: match[2].toLowerCase() });
    else tokens.push({ type: 'mark', mark: match[3] });
  }
  return tokens;
}

class Reader {
  private at = 0;
  constructor(
    private readonly tokens: Token[],
    private readonly kind: QuantityKind,
    private readonly unit: LengthUnit,
    private readonly text: string,
  ) {}

  whole(): number {
    let timeScale = 1;
    const rest = this.tokens;
    if (this.kind === 'feed' && rest.length >= 2) {
      const last = rest[rest.length - 1];
      const slash = rest[rest.length - 2];
      if (last.type === 'unit' && last.name in TIME_UNITS && slash.type === 'mark' && slash.mark === '/') {
        timeScale = TIME_UNITS[last.name];
        rest.length -= 2;
      }
    }
    const amount = this.sum();
    if (this.at < rest.length) throw new Misread(`“${this.text.trim()}” cannot be read as one number.`);
    const perUnit = mmPer(this.unit);
    if (this.kind === 'length' || this.kind === 'feed') {
      if (amount.power > 1 || amount.power < 0)
        throw new Misread(`“${this.text.trim()}” is not a length; multiply a length by plain numbers only.`);
      return (amount.power === 1 ? amount.value : amount.value * perUnit) / timeScale;
    }
    if (amount.power !== 0)
      throw new Misread(
        `“${this.text.trim()}” is a length, but ${this.kind === 'angle' ? 'an angle' : 'a plain number'} belongs here.`,
      );
    return amount.value;
  }

  private peekMark(marks: string): string | undefined {
    const token = this.tokens[this.at];
    return token?.type === 'mark' && marks.includes(token.mark) ? token.mark : undefined;
  }

  private sum(): Amount {
    let total = this.product();
    for (let mark = this.peekMark('+-'); mark; mark = this.peekMark('+-')) {
      this.at++;
      const next = this.product();
      if (total.power !== next.power && (this.kind === 'length' || this.kind === 'feed')) {
        total = this.asLength(total);
        Object.assign(next, this.asLength(next));
      }
      if (total.power !== next.power) throw new Misread(`“${this.text.trim()}” adds a length to a plain number.`);
      total = { value: total.value + (mark === '+' ? next.value : -next.value), power: total.power };
    }
    return total;
  }

  private asLength(amount: Amount): Amount {
    if (amount.power !== 0) return amount;
    return { value: amount.value * mmPer(this.unit), power: 1 };
  }

  private product(): Amount {
    let last = this.factor();
    let before: Amount = { value: 1, power: 0 };
    let divide = false;
    let whole = last;
    for (;;) {
      const token = this.tokens[this.at];
      if (token?.type === 'unit') {
        this.at++;
        if (whole.power === 0) {
          // A unit after it is one too many, and not another of its last factor.
          last = whole = this.scaled(whole, token.name);
          before = { value: 1, power: 0 };
          divide = false;
        } else {
          last = this.scaled(last, token.name);
          whole = combine(before, last, divide);
        }
        continue;
      }
      if (token?.type === 'number' && whole.power === 0)
        throw new Misread(`“${this.text.trim()}” has two numbers side by side; put + − * or / between them.`);
      const mark = this.peekMark('*/');
      if (!mark) return whole;
      this.at++;
      before = whole;
      divide = mark === '/';
      last = this.factor(!divide);
      whole = combine(before, last, divide);
    }
  }

  private scaled(amount: Amount, name: string): Amount {
    if (this.kind === 'angle' && name in ANGLE_UNITS) return { value: amount.value * ANGLE_UNITS[name], power: 0 };
    if (this.kind === 'number' && name === 'rpm') return amount;
    if (this.kind === 'length' && GAUGE.includes(name) && amount.power === 0) {
      const thick = gaugeThickness(amount.value);
      if (thick === undefined)
        throw new Misread(`“${this.text.trim()}” is no gauge of sheet steel; its numbers go from ${GAUGES}.`);
      return { value: thick, power: 1 };
    }
    if (name in LENGTH_UNITS) return { value: amount.value * LENGTH_UNITS[name], power: amount.power + 1 };
    throw new Misread(`“${name}” is not a unit that fits here; use ${this.kind === 'angle' ? 'deg' : 'mm or in'}.`);
  }

  /** @param mixed whether it may be a whole number and a fraction: “1 3/8”. */
  private factor(mixed = true): Amount {
    const token = this.tokens[this.at++];
    if (token?.type === 'number') return { value: token.value + (mixed ? this.fraction(token.value) : 0), power: 0 };
    if (token?.type === 'mark' && token.mark === '(') {
      const inside = this.sum();
      if (!this.peekMark(')')) throw new Misread(`A bracket is left open in “${this.text.trim()}”.`);
      this.at++;
      return inside;
    }
    if (token?.type === 'mark' && (token.mark === '-' || token.mark === '+')) {
      const value = this.factor(mixed);
      return token.mark === '-' ? { value: -value.value, power: value.power } : value;
    }
    throw new Misread(`“${this.text.trim()}” stops short; a number is missing.`);
  }

  /** The fraction behind a whole number; 0 where there is none. */
  private fraction(whole: number): number {
    const [top, slash, bottom] = this.tokens.slice(this.at, this.at + 3);
    const isOne = top?.type === 'number' && slash?.type === 'mark' && slash.mark === '/' && bottom?.type === 'number';
    if (!isOne || !Number.isInteger(whole)) return 0;
    this.at += 3;
    return top.value / bottom.value;
  }
}

function combine(a: Amount, b: Amount, divide: boolean): Amount {
  return divide
    ? { value: a.value / b.value, power: a.power - b.power }
    : { value: a.value * b.value, power: a.power + b.power };
}
