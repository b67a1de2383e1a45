/* eslint max-lines: off -- the modes of one controller, which every word of a block may change */
import { G_GROUP, M_GROUP, NotObeyed, split } from './block-words.ts';

/** A place in machine coordinates, mm. */
export interface Place {
  x: number;
  y: number;
  z: number;
}

/** One thing a block asks of the machine, in the order in which it is to be done. Feeds in mm/min, 0 for a rapid move. */
export type Order =
  | { order: 'go'; to: Place; feed: number }
  | { order: 'probe'; to: Place; feed: number }
  | { order: 'dwell'; seconds: number }
  | { order: 'spindle'; turns: number; on: boolean }
  /** A new speed for a spindle that turns; one that stands keeps standing. */
  | { order: 'speed'; turns: number }
  | { order: 'overrides'; on: boolean }
  /** A relay: M7 and M8 switch one on, M9 off. */
  | { order: 'relay'; on: boolean }
  | { order: 'change'; bit: number }
  /** Led beside its way from here on (G41, G42), to the left by so many times half of what entry D of its list says; 0 for along it. */
  | { order: 'beside'; left: -1 | 0 | 1; entry: number }
  | { order: 'wait' }
  | { order: 'end' };

type Axis = 'x' | 'y' | 'z';
type Motion = 0 | 1 | 2 | 3 | 38.2 | 80 | 81 | 82 | 83;

/** Chords of an arc stay this close to it, mm: well under the 0.02 mm to which pieces are compared. */
const CHORD = 0.001;
/** Most chords of one block; an arc that needs more is refused instead of filling the memory. */
const MOST_CHORDS = 200_000;
/** The two radii of an arc may differ by this (NISTIR 6556 §3.5.3.2): 0.002 mm, or 0.0002 in. */
const RADII = { mm: 0.002, in: 0.0002 * 25.4 };
/** How far over the last bottom a peck's rapid way back ends, mm. */
const BACK_OFF = 0.254;

/**
 * The stand-in's own reader of RS-274 programs, written from NISTIR 6556 (version 3, 2000) without the project's: a
 * fault in one is seen by the other. It obeys the words of a block in the order of table 8, refuses two words of one
 * modal group, words that nothing in the block uses, and whatever it does not know; a refused block changes nothing.
 */
export class Reader {
  /** Machine coordinates of the work coordinate systems' zeros, G54 to G59. */
  readonly systems: Place[] = Array.from({ length: 6 }, () => ({ x: 0, y: 0, z: 0 }));
  /** Where the last block ends. */
  at: Place = { x: 0, y: 0, z: 0 };
  system = 0;
  /** What G92 has put on top of them. */
  private shift: Place = { x: 0, y: 0, z: 0 };
  private inch = false;
  private incremental = false;
  private plane: 17 | 18 | 19 = 17;
  private motion: Motion = 1;
  private feed = 0;
  private turns = 0;
  private selected = 0;
  private backToStart = true;
  private held: Partial<Record<'z' | 'r' | 'p' | 'q', number>> = {};
  private startHeight = 0;

  /** @param leads whether the controller can lead the tool beside its way. */
  constructor(private readonly leads = false) {}

  /** Machine coordinates of the zero that counts now. */
  get zero(): Place {
    const { x, y, z } = this.systems[this.system];
    const { shift } = this;
    return { x: x + shift.x, y: y + shift.y, z: z + shift.z };
  }

  /** As after switching on; the coordinate systems stay. */
  restart(): void {
    this.shift = { x: 0, y: 0, z: 0 };
    Object.assign(this, { inch: false, incremental: false, plane: 17, motion: 1, feed: 0, system: 0, held: {} });
    this.backToStart = true;
  }

  /** @throws {NotObeyed} with one sentence; then nothing of the block holds. */
  read(line: string): Order[] {
    const words = split(line);
    if (words.length === 0) return [];
    const before = this.remembered();
    try {
      return this.obey(words);
    } catch (error) {
      Object.assign(this, before);
      throw error;
    }
  }

  private remembered() {
    const { at, shift, system, inch, incremental, plane, motion, feed, turns, selected, backToStart, startHeight } =
      this;
    const held = { ...this.held };
    return {
      at,
      shift,
      system,
      inch,
      incremental,
      plane,
      motion,
      feed,
      turns,
      selected,
      backToStart,
      startHeight,
      held,
    };
  }

  private obey(words: [letter: string, value: number][]): Order[] {
    const g = new Map<number, number>();
    const m = new Map<number, number>();
    const given = new Map<string, number>();
    for (const [letter, value] of words) {
      if (letter === 'G' || letter === 'M') {
        const [table, groups] = letter === 'G' ? [G_GROUP, g] : [M_GROUP, m];
        const group = table.get(value);
        if (group === undefined || (letter === 'G' && group === 7 && value !== 40 && !this.leads))
          throw new NotObeyed(`${letter}${value} is not known here.`);
        if (groups.has(group))
          throw new NotObeyed(
            `${letter}${groups.get(group)} and ${letter}${value} are of one modal group and may not share a block.`,
          );
        groups.set(group, value);
      } else {
        if (!(this.leads ? 'XYZIJKRFSTPQLD' : 'XYZIJKRFSTPQL').includes(letter))
          throw new NotObeyed(`The word ${letter} is not known here.`);
        if (given.has(letter)) throw new NotObeyed(`The word ${letter} stands twice in one block.`);
        given.set(letter, value);
      }
    }
    const used = new Set<string>();
    const take = (letter: string): number | undefined => {
      used.add(letter);
      return given.get(letter);
    };
    const has = (...letters: string[]) => letters.some((letter) => given.has(letter));
    const orders: Order[] = [];
    const single = g.get(0);
    const axes = has('X', 'Y', 'Z');

    // Table 8, 3 to 7: feed, speed, bit, its change, spindle. The feed counts in the units from before this block.
    const f = take('F');
    if (f !== undefined) {
      if (f < 0) throw new NotObeyed('The feed F is negative.');
      this.feed = this.mm(f);
    }
    const s = take('S');
    if (s !== undefined) {
      if (s < 0) throw new NotObeyed('The spindle speed S is negative.');
      this.turns = s;
    }
    const t = take('T');
    if (t !== undefined) {
      if (t < 0 || !Number.isInteger(t)) throw new NotObeyed('The bit number T is not a whole number.');
      this.selected = t;
    }
    if (m.has(6)) orders.push({ order: 'change', bit: this.selected });
    const spindle = m.get(7);
    if (spindle !== undefined)
      orders.push({ order: 'spindle', turns: spindle === 5 ? 0 : this.turns, on: spindle !== 5 });
    else if (s !== undefined) orders.push({ order: 'speed', turns: s });
    const relay = m.get(8);
    if (relay !== undefined) orders.push({ order: 'relay', on: relay !== 9 });
    // 9, 10: overrides, dwell.
    const overrides = m.get(9);
    if (overrides !== undefined) orders.push({ order: 'overrides', on: overrides === 48 });
    if (single === 4) {
      const p = take('P');
      if (p === undefined || p < 0) throw new NotObeyed('G4 needs a time P of 0 or more seconds.');
      orders.push({ order: 'dwell', seconds: p });
    }
    const beside = g.get(7);
    if (beside !== undefined && this.leads) {
      const entry = beside === 40 ? 0 : take('D');
      if (entry === undefined) throw new NotObeyed(`G${beside} needs D, the entry that says how wide the tool is.`);
      orders.push({ order: 'beside', left: beside === 40 ? 0 : beside === 41 ? 1 : -1, entry });
    }
    // 11 to 18: plane, units, coordinate system, distance, cycles' way back.
    const plane = g.get(2);
    if (plane !== undefined) this.plane = plane as 17 | 18 | 19;
    const units = g.get(6);
    if (units !== undefined) this.inch = units === 20;
    const system = g.get(12);
    if (system !== undefined) this.system = system - 54;
    const distance = g.get(3);
    if (distance !== undefined) this.incremental = distance === 91;
    const back = g.get(10);
    if (back !== undefined) this.backToStart = back === 98;
    // 19: home, and setting a coordinate system.
    const called = g.get(1) as Motion | undefined;
    if (single === 10) this.setSystem(take);
    else if (single === 92 || single === 92.1) {
      if (called !== undefined) throw new NotObeyed(`G${single} and G${called} may not share a block.`);
      this.setShift(single, take, axes);
    } else if (single === 28 || single === 30) {
      if (called !== undefined) throw new NotObeyed(`G${single} and G${called} may not share a block.`);
      if (axes) orders.push(this.go(this.target(take, false), 0));
      orders.push(this.go({ x: 0, y: 0, z: 0 }, 0));
    }
    // 20: motion.
    const asked =
      called ??
      (axes && single !== 10 && single !== 28 && single !== 30 && single !== 4 && single !== 92
        ? this.motion
        : undefined);
    if (single === 53 && asked !== 0 && asked !== 1) throw new NotObeyed('G53 goes with G0 or G1 only.');
    if (asked !== undefined) {
      if (called !== undefined && single === 10) throw new NotObeyed(`G10 and G${called} may not share a block.`);
      orders.push(...this.moves(asked, take, has, single === 53));
    }
    // 21: stopping.
    const stop = m.get(4);
    if (stop === 2 || stop === 30) {
      orders.push({ order: 'spindle', turns: 0, on: false }, { order: 'overrides', on: true }, { order: 'end' });
      // NISTIR 6556 §3.6.1: units stay as they are, what G92 said does not.
      this.shift = { x: 0, y: 0, z: 0 };
      Object.assign(this, { system: 0, plane: 17, incremental: false, motion: 1 });
    } else if (stop !== undefined) orders.push({ order: 'wait' });

    const idle = [...given.keys()].filter((letter) => !used.has(letter));
    if (idle.length > 0) throw new NotObeyed(`Nothing in this block uses the word ${idle[0]}.`);
    return orders;
  }

  private mm(value: number): number {
    return this.inch ? value * 25.4 : value;
  }

  private go(to: Place, feed: number): Order {
    this.at = to;
    return { order: 'go', to, feed };
  }

  private target(take: (letter: string) => number | undefined, direct: boolean): Place {
    const zero = direct ? { x: 0, y: 0, z: 0 } : this.zero;
    const along = (axis: Axis): number => {
      const word = take(axis.toUpperCase());
      if (word === undefined) return this.at[axis];
      return this.incremental && !direct ? this.at[axis] + this.mm(word) : zero[axis] + this.mm(word);
    };
    return { x: along('x'), y: along('y'), z: along('z') };
  }

  private moves(
    motion: Motion,
    take: (letter: string) => number | undefined,
    has: (...letters: string[]) => boolean,
    direct: boolean,
  ): Order[] {
    const cycle = motion === 81 || motion === 82 || motion === 83;
    if (cycle) {
      if (![81, 82, 83].includes(this.motion)) {
        this.held = {};
        this.startHeight = this.at.z;
      }
      this.motion = motion;
      return this.drill(motion, take, has);
    }
    if (motion === 80) {
      this.motion = 80;
      if (has('X', 'Y', 'Z'))
        throw new NotObeyed('This block names axes, but no motion is on; give G0, G1 or another.');
      return [];
    }
    const turning = motion === 2 || motion === 3;
    if (!has('X', 'Y', 'Z') && !(turning && has('I', 'J', 'K'))) throw new NotObeyed('This move names no axis.');
    this.motion = motion;
    const from = this.at;
    const to = this.target(take, direct);
    if (motion === 0) return [this.go(to, 0)];
    if (this.feed <= 0) throw new NotObeyed('A feed F is needed before this move.');
    if (motion === 1) return [this.go(to, this.feed)];
    if (motion === 38.2) {
      if (Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z) < 0.254)
        throw new NotObeyed('A probe move is at least 0.254 mm (0.01 in) long.');
      this.at = to;
      return [{ order: 'probe', to, feed: this.feed }];
    }
    return this.arc(from, to, motion === 2, take, has('R'));
  }

  /** An arc in the chosen plane, with the third axis going along evenly. */
  private arc(
    from: Place,
    to: Place,
    clockwise: boolean,
    take: (letter: string) => number | undefined,
    byRadius: boolean,
  ): Order[] {
    const [a, b, c]: [Axis, Axis, Axis] =
      this.plane === 17 ? ['x', 'y', 'z'] : this.plane === 18 ? ['z', 'x', 'y'] : ['y', 'z', 'x'];
    const word = { x: 'I', y: 'J', z: 'K' };
    const slack = this.inch ? RADII.in : RADII.mm;
    let middle: [number, number];
    if (byRadius) {
      const r = this.mm(take('R')!);
      const [da, db] = [to[a] - from[a], to[b] - from[b]];
      const chord2 = da * da + db * db;
      if (chord2 === 0) throw new NotObeyed('An arc by its radius needs an end other than its start.');
      const rise2 = r * r - chord2 / 4;
      if (rise2 < -slack * Math.abs(r)) throw new NotObeyed('The arc’s radius is too small to reach its end.');
      // On which side of the chord its centre lies: a short way round (r > 0) clockwise has it on the right.
      const rise = Math.sqrt(Math.max(0, rise2) / chord2) * (r > 0 === clockwise ? -1 : 1);
      middle = [from[a] + da / 2 - db * rise, from[b] + db / 2 + da * rise];
    } else {
      const off = (axis: Axis) => this.mm(take(word[axis]) ?? 0);
      middle = [from[a] + off(a), from[b] + off(b)];
    }
    const radius = Math.hypot(from[a] - middle[0], from[b] - middle[1]);
    const end = Math.hypot(to[a] - middle[0], to[b] - middle[1]);
    if (radius === 0 || Math.abs(radius - end) > slack + 1e-9)
      throw new NotObeyed('The arc’s centre is not equally far from its ends.');
    const begin = Math.atan2(from[b] - middle[1], from[a] - middle[0]);
    let turn = Math.atan2(to[b] - middle[1], to[a] - middle[0]) - begin;
    while (clockwise ? turn > -1e-12 : turn < 1e-12) turn += clockwise ? -2 * Math.PI : 2 * Math.PI;
    const step = radius > CHORD ? 2 * Math.acos(1 - CHORD / radius) : Math.PI / 2;
    const pieces = Math.max(1, Math.ceil(Math.abs(turn) / step));
    if (pieces > MOST_CHORDS) throw new NotObeyed('This arc is too large for the machine.');
    const out: Order[] = [];
    for (let k = 1; k < pieces; k++) {
      const share = k / pieces;
      const angle = begin + turn * share;
      const r = radius + (end - radius) * share;
      const place = { x: 0, y: 0, z: 0 };
      place[a] = middle[0] + r * Math.cos(angle);
      place[b] = middle[1] + r * Math.sin(angle);
      place[c] = from[c] + (to[c] - from[c]) * share;
      out.push(this.go(place, this.feed));
    }
    out.push(this.go(to, this.feed));
    return out;
  }

  /** Drilling cycles (§3.5.16) in the XY plane: G81 once down, G82 with a dwell, G83 by pecks. */
  private drill(
    motion: 81 | 82 | 83,
    take: (letter: string) => number | undefined,
    has: (...letters: string[]) => boolean,
  ): Order[] {
    if (this.plane !== 17) throw new NotObeyed('Drilling cycles work in the XY plane only; give G17 first.');
    if (this.feed <= 0) throw new NotObeyed('A feed F is needed before this move.');
    if (!has('X', 'Y', 'Z')) throw new NotObeyed('This drilling cycle names no axis.');
    const { zero } = this;
    const number = (letter: 'Z' | 'R' | 'P' | 'Q', key: keyof Reader['held'], value: (word: number) => number) => {
      const word = take(letter);
      if (word !== undefined) this.held[key] = value(word);
    };
    const r0 = take('R');
    if (r0 !== undefined) this.held.r = this.incremental ? this.at.z + this.mm(r0) : zero.z + this.mm(r0);
    number('Z', 'z', (word) => (this.incremental ? (this.held.r ?? NaN) + this.mm(word) : zero.z + this.mm(word)));
    if (motion === 82) number('P', 'p', (word) => word);
    if (motion === 83) number('Q', 'q', (word) => this.mm(word));
    const times = take('L') ?? 1;
    const { z, r, p = 0, q = 0 } = this.held;
    if (z === undefined || r === undefined || Number.isNaN(z)) throw new NotObeyed('A drilling cycle needs Z and R.');
    if (r < z) throw new NotObeyed('R of the drilling cycle lies below its Z.');
    if (motion === 83 && q <= 0) throw new NotObeyed('G83 needs a peck Q above 0.');
    if (motion === 82 && p < 0) throw new NotObeyed('The dwell P is negative.');
    if (!Number.isInteger(times) || times < 1 || times > 1000)
      throw new NotObeyed('L of a drilling cycle is a whole number from 1 to 1000.');
    if (motion === 83 && (r - z) / q > 10_000) throw new NotObeyed('The pecks of this cycle are too many.');
    const out: Order[] = [];
    const go = (to: Partial<Place>, feed: number) => out.push(this.go({ ...this.at, ...to }, feed));
    for (let k = 0; k < times; k++) {
      const along = (axis: 'x' | 'y'): number => {
        const word = take(axis.toUpperCase());
        if (word === undefined) return this.at[axis];
        return this.incremental ? this.at[axis] + this.mm(word) : zero[axis] + this.mm(word);
      };
      const place = { x: along('x'), y: along('y') };
      if (this.at.z < r) go({ z: r }, 0);
      go(place, 0);
      go({ z: r }, 0);
      if (motion === 83)
        for (let bottom = r; ;) {
          const next = Math.max(z, bottom - q);
          if (bottom < r) go({ z: Math.min(r, bottom + BACK_OFF) }, 0);
          go({ z: next }, this.feed);
          if (next <= z) break;
          go({ z: r }, 0);
          bottom = next;
        }
      else go({ z }, this.feed);
      if (motion === 82 && p > 0) out.push({ order: 'dwell', seconds: p });
      go({ z: this.backToStart ? Math.max(this.startHeight, r) : r }, 0);
    }
    return out;
  }

  /** G92 says what the place is called where the machine stands, along the axes it names; G92.1 takes that away (§3.5.18). */
  private setShift(word: number, take: (letter: string) => number | undefined, axes: boolean): void {
    if (word === 92.1) {
      this.shift = { x: 0, y: 0, z: 0 };
      return;
    }
    if (!axes) throw new NotObeyed('G92 needs an axis.');
    const system = this.systems[this.system];
    const shift = { ...this.shift };
    for (const axis of ['x', 'y', 'z'] as const) {
      const said = take(axis.toUpperCase());
      if (said !== undefined) shift[axis] = this.at[axis] - this.mm(said) - system[axis];
    }
    this.shift = shift;
  }

  private setSystem(take: (letter: string) => number | undefined): void {
    const l = take('L');
    if (l !== 2 && l !== 20) throw new NotObeyed('G10 needs L2 or L20.');
    const p = take('P') ?? 0;
    if (!Number.isInteger(p) || p < 0 || p > 6) throw new NotObeyed('G10 needs P1 to P6, or P0 for the one in use.');
    const index = p === 0 ? this.system : p - 1;
    const next = { ...this.systems[index] };
    for (const axis of ['x', 'y', 'z'] as const) {
      const word = take(axis.toUpperCase());
      if (word !== undefined) next[axis] = l === 2 ? this.mm(word) : this.at[axis] - this.mm(word);
    }
    this.systems[index] = next;
  }
}
