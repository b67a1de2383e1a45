import type { Cut } from '../../core/src/cuts/kinds.ts';

export type Dice = () => number;
export const between = (dice: Dice, low: number, high: number) => low + dice() * (high - low);
export const pick = <T>(dice: Dice, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(dice() * list.length))];
export const n = (value: number, decimals = 3) => Number(value.toFixed(decimals));

/** Adds an option to the words of a command. */
export const say = (words: string[], name: string, value: string | number) => words.push(`--${name} ${value}`);

/** What a cut was asked for, as the judge needs it, and as the command takes it. */
export interface Asked {
  kind: Cut['kind'];
  options: string;
  /** Diameter of the bit, mm. */
  diameter: number;
  /** Of a V-bit: half-width gained a mm of depth, and the radius of its flat tip, mm. */
  slope: number;
  flat: number;
  clear: number[];
  depth: number;
  startDepth: number;
  perPass: number;
  lastPass: number;
  step: number;
  finish: number;
  /** Degrees; 0 plunges. */
  ramp: number;
  climb: boolean;
  side: 'outside' | 'inside' | 'on';
  tabs: { count: number; length: number; height: number };
  skin: number;
  lead: number;
  peck: number;
  lines: boolean;
  /** Of the pair of an inlay, mm a side: a gap, or below 0 a press. */
  fit: number;
  /** Of lines: how near their ends are joined. */
  join: number;
  /** Of a drag point: how its lines fill, at which angle, degrees, and whether stripes may stay. */
  pattern: 'outline' | 'hatch' | 'cross' | 'rings';
  angle: number;
  solid: boolean;
  /** Of an arc: seconds at a pierce, and how high it cuts, mm; its kerf stands where others have a diameter. */
  delay: number;
  cutHeight: number;
  /** Of a beam: per cent, mm/min, times gone over, what is kept off the lines altogether, how far it goes past a start. */
  power: number;
  feed: number;
  passes: number;
  kerf: number;
  overburn: number;
  /** Its lines are all gone along from one side, and told so many milliseconds earlier than they burn. */
  oneWay: boolean;
  earlier: number;
}

/** Of a beam, where nothing is said. */
export const BEAM = { power: 0, feed: 0, passes: 1, kerf: 0, overburn: 0.3, oneWay: false, earlier: 0 };
