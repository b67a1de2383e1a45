/** Presses that are remembered as having been heard of. */
const MOST = 500;
/** After so long without a word, ms, a press has ended: a little less than the machine goes on by itself (140 ms). */
const ENDS_AFTER = 120;

/**
 * Held presses of a hand that moves the machine. Each goes by a name of its own, begins once, and is dead when it has
 * ended, by whatever it was ended: words that lay waiting while this process or the network stood move nothing any more.
 */
export class Presses {
  private readonly heard = new Set<string>();
  private press?: string;
  /** When a word of the press came last. */
  private last = 0;

  /** @param clock in ms, running on while this process stands. */
  constructor(private readonly clock: () => number = () => performance.now()) {}

  /** A word of this press has come, whatever becomes of it. @returns whether it is the first. */
  first(press: string): boolean {
    if (this.heard.has(press)) return false;
    this.heard.add(press);
    if (this.heard.size > MOST) this.heard.delete(this.heard.values().next().value!);
    return true;
  }

  begin(press: string): void {
    this.press = press;
    this.last = this.clock();
  }

  is(press: string): boolean {
    return this.press === press;
  }

  /** Whether a press still goes on, as it is asked to. It has ended where another has begun, or where no word came for long. */
  goesOn(press: string): boolean {
    const now = this.clock();
    if (this.press !== press) return false;
    if (now - this.last > ENDS_AFTER) {
      this.end();
      return false;
    }
    this.last = now;
    return true;
  }

  end(): void {
    this.press = undefined;
  }
}
