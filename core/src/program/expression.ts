import { BlockError } from './block-error.ts';
import type { Parameters } from './parameters.ts';

const DEGREES = 180 / Math.PI;

/** Functions of one value, angles in degrees (NISTIR 6556 §3.3.2.4). */
const FUNCTIONS: Record<string, (v: number) => number> = {
  ABS: Math.abs,
  ACOS: (v) => Math.acos(v) * DEGREES,
  ASIN: (v) => Math.asin(v) * DEGREES,
  COS: (v) => Math.cos(v / DEGREES),
  EXP: Math.exp,
  FIX: Math.floor,
  FUP: Math.ceil,
  LN: Math.log,
  ROUND: (v) => Math.sign(v) * Math.round(Math.abs(v)),
  SIN: (v) => Math.sin(v / DEGREES),
  SQRT: Math.sqrt,
  TAN: (v) => Math.tan(v / DEGREES),
};

const bit = (v: boolean) => (v ? 1 : 0);

/**
 * Operations on two values and how closely they bind (NISTIR 6556 §3.3.2.3, table 3); comparisons, which it does not have,
 * bind least, as is common practice.
 */
const OPERATIONS: readonly [sign: string, level: number, of: (a: number, b: number) => number][] = [
  ['**', 4, (a, b) => a ** b],
  ['*', 3, (a, b) => a * b],
  ['/', 3, (a, b) => a / b],
  ['MOD', 3, (a, b) => a - b * Math.floor(a / b)],
  ['+', 2, (a, b) => a + b],
  ['-', 2, (a, b) => a - b],
  ['AND', 2, (a, b) => bit(a !== 0 && b !== 0)],
  ['XOR', 2, (a, b) => bit((a !== 0) !== (b !== 0))],
  ['OR', 2, (a, b) => bit(a !== 0 || b !== 0)],
  ['EQ', 1, (a, b) => bit(Math.abs(a - b) < 1e-6)],
  ['NE', 1, (a, b) => bit(Math.abs(a - b) >= 1e-6)],
  ['GT', 1, (a, b) => bit(a > b)],
  ['GE', 1, (a, b) => bit(a >= b)],
  ['LT', 1, (a, b) => bit(a < b)],
  ['LE', 1, (a, b) => bit(a <= b)],
];

/** Expressions within each other at most. */
const DEEPEST = 50;

/** Reads real values of RS-274 from a line without blanks, in capitals: numbers, parameters, functions, expressions in `[ ]`. */
export class ExpressionReader {
  private depth = 0;

  /** @param at where reading begins; behind what was read afterwards. */
  constructor(
    private readonly text: string,
    public at: number,
    private readonly parameters: Parameters,
  ) {}

  /** Whether a real value can begin here. */
  get ahead(): boolean {
    return /^(?:[-+]?(?:\d|\.\d|#|\[)|[-+]?(?:ABS|ACOS|ASIN|ATAN|COS|EXP|FIX|FUP|LN|ROUND|SIN|SQRT|TAN)\[)/.test(
      this.text.slice(this.at, this.at + 8),
    );
  }

  private take(what: string): boolean {
    if (!this.text.startsWith(what, this.at)) return false;
    this.at += what.length;
    return true;
  }

  /**
   * A real value (NISTIR 6556 §3.3.2).
   * @throws {BlockError} with one sentence.
   * @example with parameter 5 set to 2, the value of `#5`, of `[1+#5*2]` and of `-SIN[30]`: 2, 5, -0.5
   */
  value(): number {
    const number = /^[-+]?(?:\d+\.?\d*|\.\d+)/.exec(this.text.slice(this.at, this.at + 400));
    if (number) {
      this.at += number[0].length;
      return finite(Number(number[0]));
    }
    if (this.take('-')) return -this.value();
    if (this.take('+')) return this.value();
    if (++this.depth > DEEPEST) throw new BlockError('An expression has more than 50 others within each other.');
    try {
      if (this.take('#')) return this.parameters.get(this.name());
      if (this.take('[')) return this.expression();
      return this.call();
    } finally {
      this.depth--;
    }
  }

  /** What stands behind `#`: the number of a parameter, or its name in `< >`. */
  name(): number | string {
    const named = /^<[^<>]{1,60}>/.exec(this.text.slice(this.at, this.at + 64));
    if (!named) return this.value();
    this.at += named[0].length;
    return named[0];
  }

  /** Behind `[`, up to and with its `]`. */
  private expression(): number {
    const values = [this.value()];
    const signs: (typeof OPERATIONS)[number][] = [];
    const fold = (level: number) => {
      while (signs.length > 0 && signs.at(-1)![1] >= level) {
        const b = values.pop()!;
        values.push(finite(signs.pop()![2](values.pop()!, b)));
      }
    };
    while (!this.take(']')) {
      const operation = OPERATIONS.find(([sign]) => this.take(sign));
      if (!operation) throw new BlockError('An expression in [ ] cannot be read.');
      fold(operation[1]);
      signs.push(operation);
      values.push(this.value());
    }
    fold(0);
    return values[0];
  }

  private call(): number {
    if (this.take('ATAN[')) {
      const a = this.expression();
      if (!this.take('/[')) throw new BlockError('ATAN needs two values, as in ATAN[1]/[2].');
      return Math.atan2(a, this.expression()) * DEGREES;
    }
    const name = Object.keys(FUNCTIONS).find((one) => this.text.startsWith(`${one}[`, this.at));
    if (!name) throw new BlockError('A value cannot be read.');
    this.at += name.length + 1;
    return finite(FUNCTIONS[name](this.expression()));
  }
}

function finite(v: number): number {
  if (!Number.isFinite(v)) throw new BlockError('An expression has no value: it divides by 0, or is too large.');
  return v;
}
