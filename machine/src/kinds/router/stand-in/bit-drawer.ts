import type { Hand } from './hands.ts';
import type { FittedBit } from './workpiece.ts';

/** The bits beside a machine: each sticks out nearly as far whenever it is put in, and no two alike. */
export class BitDrawer {
  private readonly lengths = new Map<string, number>();

  constructor(private readonly random: () => number) {}

  /** How far a bit usually sticks out, mm; nothing before it was taken once. */
  lengthOf(which: string): number | undefined {
    return this.lengths.get(which);
  }

  /** A bit as a hand puts it in: which one it is, and how far it sticks out of the collet, mm. */
  take({ id, name, diameter, angle, tip, spring }: Hand & { hand: 'bit' }): FittedBit {
    const which = id ?? `${name} ${diameter} ${angle} ${tip}`;
    if (!this.lengths.has(which)) this.lengths.set(which, 38 + Math.round(this.random() * 1400) / 100);
    return {
      name,
      diameter,
      halfAngle: angle === undefined ? undefined : (angle * Math.PI) / 360,
      tipDiameter: tip,
      // A hand never puts it in quite as deep as the last time.
      spring: spring ? { ...spring, broken: false } : undefined,
      length: this.lengths.get(which)! + Math.round(40 + this.random() * 600) / 1000,
    };
  }
}
