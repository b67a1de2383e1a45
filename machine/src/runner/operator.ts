import type { From } from './commands.ts';
import type { Reason } from './reasons.ts';
import type { RunnerState } from './runner-state.ts';

/** A page that shows nothing of itself for this long, ms, does not command the bench any more. */
const ABSENT_AFTER = 3000;
/** Who asks to take over and gets no answer has the bench after this, ms: nobody may be locked out by an empty chair. */
const ANSWER_WITHIN = 10_000;

/** Who commands a bench: one page at a time. Others watch, and may ask for it. */
export class Operator {
  private readonly pages = new Map<string, number>();
  private lastWord = 0;
  private timer?: NodeJS.Timeout;
  private leaving?: NodeJS.Timeout;

  constructor(
    private readonly state: RunnerState,
    private readonly changed: () => void,
  ) {}

  /** A page has begun or ended to watch the bench. */
  seen(page: string, there: boolean): void {
    const count = (this.pages.get(page) ?? 0) + (there ? 1 : -1);
    if (count > 0) this.pages.set(page, count);
    else this.pages.delete(page);
    if (page !== this.state.operator?.page) return;
    this.lastWord = performance.now();
    clearTimeout(this.leaving);
    if (count <= 0) this.leaving = setTimeout(() => this.left(), ABSENT_AFTER + 50);
  }

  /** Its operator has left: nobody commands the bench, and the next who says something does. */
  private left(): void {
    if (!this.absent) return;
    this.state.operator = undefined;
    this.changed();
  }

  private get absent(): boolean {
    const { operator } = this.state;
    return !operator || (!this.pages.has(operator.page) && performance.now() - this.lastWord > ABSENT_AFTER);
  }

  /** Why a page may not command; a bench that nobody commands is its own from here on. */
  mayCommand(from: From): Reason | undefined {
    if (this.state.operator?.page !== from.page) {
      if (!this.absent) return 'other-operator';
      this.given(from);
    }
    this.lastWord = performance.now();
    return undefined;
  }

  /** Asks for the bench: given at once where nobody commands it, else when its operator gives it or does not answer. */
  take(from: From): void {
    if (this.state.operator?.page === from.page) return;
    if (this.absent) return this.given(from);
    this.state.asks = { ...from, until: new Date(Date.now() + ANSWER_WITHIN).toISOString() };
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.given(from), ANSWER_WITHIN);
    this.changed();
  }

  give(): Reason | undefined {
    const { asks } = this.state;
    if (!asks) return 'not-asked';
    this.given({ page: asks.page, name: asks.name });
    return undefined;
  }

  keep(): Reason | undefined {
    if (!this.state.asks) return 'not-asked';
    clearTimeout(this.timer);
    this.state.asks = undefined;
    this.changed();
    return undefined;
  }

  private given({ page, name }: From): void {
    clearTimeout(this.timer);
    this.state.operator = { page, name };
    this.state.asks = undefined;
    this.lastWord = performance.now();
    this.changed();
  }
}
