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
      try {
        this.look = await send<Look>('GET', `/api/benches/${this.bench()}/stand-in`);
      } catch {
        this.look = undefined;
      }
    }
    if (this.open) this.timer = setTimeout(() => void this.glance(), EVERY);
  }

  async lend(hand: Hand): Promise<void> {
    this.problem = undefined;
    try {
      this.look = await send<Look>('POST', `/api/benches/${this.bench()}/stand-in`, hand);
    } catch (error) {
      this.problem = sentenceOf(error);
    }
  }
}
