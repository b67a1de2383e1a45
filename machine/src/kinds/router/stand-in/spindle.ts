/** Turns a minute that a spindle gains or loses in a second. */
const RAMP = 8000;

/** Faster than this, turns a minute, a bit cuts. */
const CUTTING = 1000;

/** A spindle: what is asked of it, and how fast it turns by now. */
export class Spindle {
  /** Turns a minute the program or a hand asks for; 0 is off. */
  asked = 0;
  turns = 0;
  /** Its override, as a share, which counts only while overrides are on. */
  share = 1;
  overridesOn = true;

  get cutting(): boolean {
    return this.turns > CUTTING;
  }

  advance(seconds: number): void {
    const most = RAMP * seconds;
    const asked = this.asked * (this.overridesOn ? this.share : 1);
    this.turns += Math.max(-most, Math.min(most, asked - this.turns));
  }
}
