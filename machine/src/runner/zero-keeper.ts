import { CommandRefused } from './reasons.ts';
import type { RunnerState } from './runner-state.ts';
import { afterwards, type Basis, type Change, judgeZero, zeroTrouble } from './zero.ts';

/** The zero of a bench, kept by the truth table. Finding it is its kind's own. */
export class ZeroKeeper {
  constructor(
    private readonly state: RunnerState,
    private readonly changed: () => void,
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
