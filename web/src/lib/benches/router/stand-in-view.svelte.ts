import { sentenceOf } from '@kerbe/core/schema/told';
import type { Hand } from '@kerbe/machine/kinds/hands';
import { send } from '$lib/send';

/** What the stand-in shows of itself, as someone beside it would see it; see docs/stand-in.md. */
export interface Look {
  travel: { x: number; y: number; z: number };
  tip: { x: number; y: number; z: number };
  setter?: { x: number; y: number; radius: number };
  piece?: {
    x: number;
    y: number;
    length: number;
    width: number;
    top: number;
    /** Length of the lines drawn on it, mm. */
    drawn: number;
  };
  plate?: { x0: number; x1: number; y0: number; y1: number; z1: number };
  clip: boolean;
  bit?: { name: string; diameter: number; broken?: boolean };
  /** How a slip of paper under the tip feels, where somebody holds one there. */
  paper?: 'free' | 'drags' | 'held';
  emergency: boolean;
  spindle: number;
}

const EVERY = 300;

/** The eyes and hands of someone beside the simulated machine. What they see is for people: no rule goes by it. */
export class StandInView {
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
