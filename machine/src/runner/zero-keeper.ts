import type { Driver } from '../kinds/driver.ts';
import type { RouterWire, Telling } from '../kinds/router/procedures.ts';
import { farFromOwn, SAME_LENGTH } from './bit-lengths.ts';
import type { Command, From } from './commands.ts';
import type { LengthBook } from './length-book.ts';
import { CommandRefused } from './reasons.ts';
import type { RunnerState } from './runner-state.ts';
import { clearTicks } from './ticks.ts';
import { afterwards, type Basis, type BitShape, type Change, judgeZero, zeroTrouble } from './zero.ts';

/** The zero of a bench and the bit in its spindle: finding it, keeping it by the truth table, bringing it along. */
export class ZeroKeeper {
  constructor(
    private readonly state: RunnerState,
    private readonly lengths: LengthBook,
    private readonly changed: () => void,
    private readonly driver: () => Driver,
  ) {}

  /** What a happening leaves of the zero. */
  happened(change: Change): void {
    if (this.state.zero) this.state.zero = afterwards(this.state.zero, change);
  }

  /** @throws {CommandRefused} where zero does not hold for a job as it stands. */
  demand(basis: Basis): void {
    const trouble = zeroTrouble(judgeZero(this.state.zero, basis));
    if (trouble) throw new CommandRefused(this.state.zero ? 'zero-void' : 'no-zero', trouble);
  }

  /** Finds zero with the touch plate; while it is being found it is not known. */
  async find(
    wire: RouterWire,
    { method, corner, basis }: Command & { command: 'zero' },
    from: From,
    telling: Telling,
    signal: AbortSignal,
  ): Promise<void> {
    const { state } = this;
    const bit = shapeOf(state.bit!);
    const xy = method === 'corner' ? undefined : state.zero?.xy;
    state.zero = { xy };
    clearTicks(state, 'zero');
    const found = await this.driver().findZero(wire, { method, corner, basis, bit }, telling, signal);
    await this.driver().setOffset(wire, found, signal);
    const part = { at: now(), by: from.name, method, corner, bit, basis };
    state.origin = { x: 0, y: 0, z: 0, ...state.origin, ...found } as { x: number; y: number; z: number };
    state.zero = { xy: method === 'corner' ? part : xy, z: { ...part } };
    // The clip was on: its circuit is tried anew before it is trusted again.
    state.circuit = undefined;
  }

  /** Moves zero up or down by hand. */
  async nudge(wire: RouterWire, by: number, signal: AbortSignal): Promise<void> {
    const { state } = this;
    const z = state.origin!.z + by;
    await this.driver().setOffset(wire, { z }, signal);
    state.origin = { ...state.origin!, z };
    const part = state.zero!.z!;
    state.zero = { ...state.zero, z: { ...part, nudged: (part.nudged ?? 0) + by } };
  }

  /** A bit was put in, as someone says. */
  bitIn(bit: BitShape, from: From): void {
    const { state } = this;
    if (state.bit) this.happened('bit');
    state.bit = { ...shapeOf(bit), at: now(), by: from.name };
    state.checked = undefined;
    this.changed();
  }

  /** Measures the bit that is in, and brings the zero along where its height is known by an earlier reading. */
  async measure(
    wire: RouterWire,
    setter: { x: number; y: number },
    telling: Telling,
    signal: AbortSignal,
  ): Promise<void> {
    const { state } = this;
    const bit = shapeOf(state.bit!);
    const reading = await this.driver().measure(wire, setter, telling, signal);
    const z = state.zero?.z;
    const own = this.lengths.of(bit);
    this.lengths.add(bit, reading);
    if (!z) return;
    if (z.void && z.void !== 'bit' && z.void !== 'emergency-at-rest') return;
    if (z.reading === undefined) {
      if (!z.void) z.reading = reading;
      else state.problem = 'This bit is measured now, but the one that zero was set with was not; set zero in Z again.';
      return;
    }
    const off = reading - z.reading;
    if (!z.void && Math.abs(off) > SAME_LENGTH) {
      this.happened('bit');
      state.problem = `This bit sticks out ${Math.abs(off).toFixed(2)} mm ${off > 0 ? 'further' : 'less'} than when zero was set; see whether it has slipped. Measure again to go by the new length.`;
      return;
    }
    await this.shift(wire, off, bit, reading, signal);
    const far = farFromOwn(reading, own);
    if (far !== undefined)
      state.problem = `${bit.name} was never measured like this; it is ${far.toFixed(1)} mm off its last lengths. See that it is the right one.`;
  }

  /** Brings Z along with another bit's length. */
  async shift(wire: RouterWire, by: number, bit: BitShape, reading: number, signal: AbortSignal): Promise<void> {
    const { state } = this;
    const z = state.origin!.z + by;
    await this.driver().setOffset(wire, { z }, signal);
    state.origin = { ...state.origin!, z };
    state.zero = { ...state.zero, z: { ...state.zero!.z!, void: undefined, bit: shapeOf(bit), reading } };
    this.changed();
  }

  /** Takes a zero over for another job: the same place on the table. */
  useHere(basis: Basis): void {
    const { state } = this;
    const judged = judgeZero(state.zero, basis);
    const carried: readonly (Change | undefined)[] = ['other-job', 'other-stock'];
    const part = <P extends { basis: Basis; void?: Change }>(
      p: P | undefined,
      why: Change | undefined,
    ): P | undefined =>
      p && !p.void && carried.includes(why) ? { ...p, basis: { ...p.basis, job: basis.job, stock: basis.stock } } : p;
    if (!carried.includes(judged.voidXY) && !carried.includes(judged.voidZ)) throw new CommandRefused('zero-not-void');
    state.zero = { xy: part(state.zero?.xy, judged.voidXY), z: part(state.zero?.z, judged.voidZ) };
    state.checked = undefined;
    this.changed();
  }
}

const now = () => new Date().toISOString();

/** A bit without when and by whom it was put in. */
function shapeOf({ id, name, diameter, angle, tip }: BitShape): BitShape {
  return { id, name, diameter, angle, tip };
}
