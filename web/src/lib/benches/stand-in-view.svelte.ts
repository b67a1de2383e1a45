import { sentenceOf } from '@kerbe/core/schema/told';
import type { Hand } from '@kerbe/machine/kinds/hands';
import { send } from '$lib/send';

/** So often somebody glances at it, ms. */
const EVERY = 300;

/**
 * The eyes and hands of someone beside a simulated machine, whose kind says what it shows of itself (`Look`). What they see is for people: no rule goes by it. */
export class StandInView<Look> {
  look = $state.raw<Look>();
  problem = $state<string>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private open = false;
  /** What was done last, and how many things: hands do one at a time, in order. */
  private doing: Promise<void> = Promise.resolve();
  private done = 0;

  /** @param bench whose machine it is, as it stands. */
  constructor(private readonly bench: () => string | undefined) {}

  watch(): () => void {
    this.open = true;
    void this.glance();
    return () => {
      this.open = false;
      clearTimeout(this.timer);
    };
  }

  private async glance(): Promise<void> {
    if (!document.hidden && this.bench() !== undefined) {
      const before = this.done;
      let look: Look | undefined;
      try {
        look = await send<Look>('GET', `/api/benches/${this.bench()}/stand-in`);
      } catch {
        // Nothing is seen there.
      }
      // What was seen before a hand did something is not how it looks now.
      if (before === this.done) this.look = look;
    }
    if (this.open) this.timer = setTimeout(() => void this.glance(), EVERY);
  }

  lend(hand: Hand): Promise<void> {
    return (this.doing = this.doing.then(() => this.lendNow(hand)));
  }

  private async lendNow(hand: Hand): Promise<void> {
    this.done++;
    this.problem = undefined;
    try {
      this.look = await send<Look>('POST', `/api/benches/${this.bench()}/stand-in`, hand);
    } catch (error) {
      this.problem = sentenceOf(error);
    }
    this.done++;
  }
}
