import { Refused } from './refused.ts';

const MOST_PECKS = 1000;
const MOST_REPEATS = 10_000;

/** Above the last bottom by this the rapid move back into a pecked hole ends, mm (NISTIR 6556 §3.5.16.4: “a bit”). */
const PECK_CLEARANCE = 0.254;

/**
 * Kinds of canned drilling cycle by their G word. NISTIR 6556 §3.5.16 tells of all but G73, which goes by common practice:
 * a peck that breaks the chip and lifts a little instead of leaving the hole.
 */
export const CYCLES = [73, 81, 82, 83, 85, 86, 89] as const;
export type Cycle = (typeof CYCLES)[number];

/** Whether a G word is that of a drilling cycle. */
export const isCycle = (g: number | undefined): g is Cycle => (CYCLES as readonly (number | undefined)[]).includes(g);

/** One hole of a cycle: heights, mm. */
export interface Hole {
  cycle: Cycle;
  bottom: number;
  /** Where plunging begins (R). */
  clear: number;
  /** Where the tool goes in the end (G98, G99). */
  retract: number;
  /** Depth of a peck (Q), mm; 0 where none is given. */
  peck: number;
  /** Seconds at the bottom (P). */
  dwell: number;
}

/** What is done in a hole, in order; a height with a feed or by a rapid move. */
export type HoleStep = { to: number; rapid: boolean } | { dwell: number } | { spindle: 'off' | 'on' };

/**
 * How often a cycle is done (L), 1 where nothing is said.
 * @throws {Refused} where L is not a whole number above 0.
 */
export function repeatsOf(l: number | undefined): number {
  if (l === undefined) return 1;
  if (l === 0)
    throw new Refused(
      'A drilling cycle with L0 drills on one controller and not on another; leave L out, or the block.',
    );
  if (!Number.isInteger(l) || l < 0) throw new Refused('L of a drilling cycle is not a whole number above 0.');
  if (l > MOST_REPEATS) throw new Refused('A drilling cycle is repeated more than ten thousand times.');
  return l;
}

/**
 * What a tool that stands at the height of R over a hole does there (NISTIR 6556 §3.5.16).
 *
 * @throws {Refused} for a peck that is none, or too many of them.
 * @example holeSteps({ cycle: 81, bottom: -5, clear: 2, retract: 2, peck: 0, dwell: 0 })
 *   // [{ to: -5, rapid: false }, { to: 2, rapid: true }]
 */
export function holeSteps({ cycle, bottom, clear, retract, peck, dwell }: Hole): HoleStep[] {
  const out: HoleStep[] = [];
  const to = (height: number, rapid: boolean) => out.push({ to: height, rapid });
  if (cycle === 73 || cycle === 83) {
    if (!(peck > 0)) throw new Refused(`G${cycle} needs a peck Q above 0.`);
    if ((clear - bottom) / peck > MOST_PECKS)
      throw new Refused(`G${cycle} would take more than a thousand pecks; its Q is too small.`);
    let last = clear;
    do {
      if (cycle === 83 && last < clear) to(Math.min(clear, last + PECK_CLEARANCE), true);
      last = Math.max(bottom, last - peck);
      to(last, false);
      if (last > bottom) to(cycle === 83 ? clear : Math.min(clear, last + PECK_CLEARANCE), true);
    } while (last > bottom);
  } else to(bottom, false);
  if ((cycle === 82 || cycle === 86 || cycle === 89) && dwell > 0) out.push({ dwell });
  if (cycle === 86) out.push({ spindle: 'off' });
  to(retract, cycle !== 85 && cycle !== 89);
  if (cycle === 86) out.push({ spindle: 'on' });
  return out;
}
