import { BlockError } from './block-error.ts';

/** Parameters kept at most. */
const MOST = 10_000;

/** Parameters up to this belong to the subprogram that is called: its arguments, and what it sets (common practice). */
const LOCAL = 30;

/** The parameters of a program, by number or by name in `< >` (NISTIR 6556 §3.2.1; names by common practice). */
export class Parameters {
  private global = new Map<number | string, number>();
  private locals: Map<number | string, number>[] = [new Map()];

  /** @param unset told of each parameter that is used before it was set; it counts as 0. */
  constructor(private readonly unset: (name: string) => void = () => {}) {}

  private scope(key: number | string): Map<number | string, number> {
    const local = typeof key === 'number' ? key <= LOCAL : !key.startsWith('<_');
    return local ? this.locals.at(-1)! : this.global;
  }

  private checked(key: number | string): number | string {
    if (typeof key === 'string') return key;
    const whole = Math.round(key);
    if (Math.abs(whole - key) > 1e-4 || whole < 0 || whole > 99_999)
      throw new BlockError('A parameter’s number is not a whole number from 0 to 99,999.');
    return whole;
  }

  get(key: number | string): number {
    const checked = this.checked(key);
    const value = this.scope(checked).get(checked);
    if (value === undefined && checked !== 0) this.unset(`#${checked}`);
    return value ?? 0;
  }

  set(key: number | string, value: number): void {
    const checked = this.checked(key);
    const scope = this.scope(checked);
    if (scope.size >= MOST && !scope.has(checked))
      throw new BlockError('The program sets more than ten thousand parameters.');
    scope.set(checked, value);
  }

  /** A subprogram begins, with its arguments as #1, #2 and on. */
  enter(given: readonly number[]): void {
    this.locals.push(new Map(given.map((value, k) => [k + 1, value])));
  }

  leave(): void {
    this.locals.pop();
  }
}
