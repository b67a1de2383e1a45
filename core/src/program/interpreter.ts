/* eslint max-lines: off -- the modes of one controller, which every word of a block may change */
import { Told } from '../schema/told.ts';
import { type Block, readBlock } from './block.ts';

export interface Point {
  x: number;
  y: number;
  z: number;
}

/** What a block asks for, in the order of execution that NISTIR 6556 gives (table 8). Machine coordinates, mm. */
export type Action =
  /** A rapid move has feed 0. */
  | { do: 'move'; to: Point; feed: number; rapid: boolean }
  | { do: 'probe'; to: Point; feed: number }
  /** Where the probe move before ended: the program counts from there (G92). */
  | { do: 'touched'; at: Point }
  | { do: 'dwell'; seconds: number }
  | { do: 'spindle'; turns: number; direction: 'clockwise' | 'counter-clockwise' | 'off' }
  | { do: 'bit'; number: number }
  | { do: 'pause' }
  | { do: 'end' };

/** What holds between two blocks of a program. */
export interface Modes {
  inch: boolean;
  incremental: boolean;
  /** Work coordinate system, 0 for G54. */
  system: number;
  /** Motion that a block without a word for it continues: 0 to 3, 38 (G38.2), 81 to 83; nothing after G80. */
  motion: number | undefined;
  /** mm/min. */
  feed: number;
  /** Spindle speed last given, whether it turns or not. */
  turns: number;
  bit: number;
  /** Where the last block ended, mm. */
  at: Point;
}

/** Nothing of a program that was meant lies further away than this, mm. */
const FURTHEST = 1e6;
const MOST_PECKS = 1000;

export class Refused extends Told {
  override name = 'Refused';
}

/** Chords of a simulated arc stay this close to it, mm. */
const ARC_TOLERANCE = 0.002;

/** Above the last bottom by this the rapid move back into a pecked hole ends, mm (NISTIR 6556 §3.5.16.4: “a bit”). */
const PECK_CLEARANCE = 0.254;

/** More chords than this of one arc fill the memory. */
const MOST_CHORDS = 200_000;

/** Codes that change nothing here: arc centres from the start, feed a minute, path control, cycle returns, coolant. */
const IDLE_G = new Set([43, 49, 61, 61.1, 64, 80, 91.1, 94, 98, 99]);
const IDLE_M = new Set([0, 1, 2, 7, 8, 9, 30, 48, 49, 60]);

/** The modes and offsets of an RS-274 controller; reads blocks and says what the machine has to do. */
export class Interpreter {
  /** Offsets of the work coordinate systems G54 to G59 from machine zero, mm. */
  readonly offsets: Point[] = Array.from({ length: 6 }, () => ({ x: 0, y: 0, z: 0 }));
  system = 0;
  private readonly home: [Point, Point] = [
    { x: 0, y: 0, z: 0 },
    { x: 0, y: 0, z: 0 },
  ];
  private perUnit = 1;
  private absolute = true;
  private motion: 0 | 1 | 2 | 3 | 38 | 81 | 82 | 83 | undefined = 1;
  private plane: 17 | 18 | 19 = 17;
  /** What a canned cycle keeps from block to block (NISTIR 6556 §3.5.16). */
  private cycle = { z: 0, r: 0, q: 0, p: 0, initial: 0 };
  private retractToInitial = true;
  /** What G92 has put on top of the work coordinate systems, mm. */
  private shift: Point = { x: 0, y: 0, z: 0 };
  /** The last move was a probe move along these axes: where it ends, nobody knows from the program alone. */
  private probed: readonly ('x' | 'y' | 'z')[] = [];
  private feed = 0;
  private turns = 0;
  private tool = 0;
  /** On which side of the way as it is written the controller leads the tool (G41, G42); where it goes itself is not reckoned. */
  beside: 'left' | 'right' | undefined;
  /** Where the last block ended, machine coordinates. */
  position: Point = { x: 0, y: 0, z: 0 };

  /**
   * @param said without it a word that is not known is refused with its block; with it, it is said, and what the block asks
   *   for beside it is done, unless it may be a kind of motion.
   */
  constructor(private readonly said?: (sentence: string) => void) {}

  /** The modes that hold now. */
  get modes(): Modes {
    return {
      inch: this.perUnit !== 1,
      incremental: !this.absolute,
      system: this.system,
      motion: this.motion,
      feed: this.feed,
      turns: this.turns,
      bit: this.tool,
      at: this.position,
    };
  }

  set modes({ inch, incremental, system, motion, feed, turns, bit, at }: Modes) {
    Object.assign(this, { perUnit: inch ? 25.4 : 1, absolute: !incremental, system, motion, feed, turns, tool: bit });
    this.position = at;
  }

  /** Modes as after a start or M30 (offsets stay). */
  reset(): void {
    this.perUnit = 1;
    this.absolute = true;
    this.motion = 1;
    this.feed = 0;
    this.system = 0;
    this.plane = 17;
    this.beside = undefined;
  }

  private unknown(sentence: string): void {
    if (!this.said) throw new Refused(sentence);
    this.said(sentence);
  }

  /** @throws {Refused | import('./block.ts').BlockError} with one sentence. */
  read(line: string): Action[] {
    const block = readBlock(line);
    return block ? this.actions(block) : [];
  }

  /** What a block that was read asks for. @throws {Refused} with one sentence. */
  actions({ words }: Block): Action[] {
    const value = new Map<string, number>();
    const gs: number[] = [];
    const ms: number[] = [];
    for (const { letter, value: v } of words) {
      if (letter === 'G') gs.push(Math.round(v * 10) / 10);
      else if (letter === 'M') ms.push(v);
      else {
        if (!'XYZIJKRFSTPLQHD'.includes(letter)) {
          this.unknown(`The word ${letter} is not known here.`);
          continue;
        }
        if (value.has(letter)) throw new Refused(`The word ${letter} stands twice in one block.`);
        value.set(letter, v);
      }
    }
    const out: Action[] = [];
    let probing: readonly ('x' | 'y' | 'z')[] = [];
    let direct = false;
    let special: number | undefined;
    let motion: typeof this.motion | undefined;
    let strange: number | undefined;
    for (const g of gs) {
      if (g === 0 || g === 1 || g === 2 || g === 3) motion = this.one(motion, g);
      else if (g === 38.2) motion = this.one(motion, 38);
      else if (g === 81 || g === 82 || g === 83) motion = this.one(motion, g);
      else if (g === 80) this.motion = undefined;
      else if (g === 98 || g === 99) this.retractToInitial = g === 98;
      else if (g === 20) this.perUnit = 25.4;
      else if (g === 21) this.perUnit = 1;
      else if (g === 90) this.absolute = true;
      else if (g === 91) this.absolute = false;
      else if (g === 53) direct = true;
      else if (g === 40) this.beside = undefined;
      else if (g === 41 || g === 42) this.beside = g === 41 ? 'left' : 'right';
      else if (g >= 54 && g <= 59 && Number.isInteger(g)) this.system = g - 54;
      else if (g === 4 || g === 10 || g === 28 || g === 30 || (g >= 92 && g < 93)) special = g;
      else if (g === 17 || g === 18 || g === 19) this.plane = g;
      else if (!IDLE_G.has(g)) {
        this.unknown(`G${g} is not known here.`);
        strange = g;
      }
    }
    const f = value.get('F');
    if (f !== undefined) {
      if (f < 0) throw new Refused('The feed F is negative.');
      this.feed = f * this.perUnit;
    }
    const s = value.get('S');
    if (s !== undefined) {
      if (s < 0) throw new Refused('The spindle speed S is negative.');
      this.turns = s;
    }
    const t = value.get('T');
    if (t !== undefined) {
      if (t < 0 || !Number.isInteger(t)) throw new Refused('The bit number T is not a whole number.');
      this.tool = t;
    }
    for (const m of ms) {
      if (m === 6) out.push({ do: 'bit', number: this.tool });
      else if (m === 3 || m === 4) {
        // A beam is made ready with none of its power.
        if (this.turns <= 0 && s === undefined) throw new Refused('The spindle is to start, but no speed S was given.');
        out.push({ do: 'spindle', turns: this.turns, direction: m === 3 ? 'clockwise' : 'counter-clockwise' });
      } else if (m === 5) out.push({ do: 'spindle', turns: 0, direction: 'off' });
      else if (!IDLE_M.has(m)) this.unknown(`M${m} is not known here.`);
    }
    const axes = (['X', 'Y', 'Z'] as const).some((letter) => value.has(letter));
    if (axes && strange !== undefined && motion === undefined)
      throw new Refused(`A move with G${strange} cannot be followed.`);
    if (special === 4) {
      const p = value.get('P');
      if (p === undefined || p < 0) throw new Refused('G4 needs a time P of 0 or more seconds.');
      out.push({ do: 'dwell', seconds: p });
    } else if (special === 10) this.setOffset(value);
    else if (special !== undefined && special >= 92) out.push(...this.shifted(special, value));
    else if (special === 28 || special === 30) {
      if (axes) out.push(this.move(this.target(value, direct), 0));
      out.push(this.move(this.home[special === 28 ? 0 : 1]));
    } else {
      const cycling = (m: typeof motion) => m === 81 || m === 82 || m === 83;
      if (motion !== undefined) {
        if (cycling(motion) && !cycling(this.motion))
          this.cycle = { z: NaN, r: NaN, q: 0, p: 0, initial: this.position.z };
        this.motion = motion;
      }
      if (cycling(this.motion)) {
        if (axes || motion !== undefined) out.push(...this.drill(value));
      } else if (this.motion === undefined) {
        if (axes) throw new Refused('This block names axes, but no motion is on; give G0, G1 or another first.');
      } else if (
        axes ||
        ((this.motion === 2 || this.motion === 3) && ['I', 'J', 'K'].some((letter) => value.has(letter)))
      ) {
        const to = this.target(value, direct);
        if (direct && this.motion !== 0 && this.motion !== 1) throw new Refused('G53 goes with G0 or G1 only.');
        if (this.motion === 0) out.push(this.move(to));
        else {
          if (this.feed <= 0) throw new Refused('A feed F is needed before this move.');
          if (this.motion === 1) out.push(this.move(to, this.feed));
          else if (this.motion === 38) {
            out.push({ do: 'probe', to, feed: this.feed });
            const from = this.position;
            probing = (['x', 'y', 'z'] as const).filter((name) => to[name] !== from[name]);
            this.position = to;
          } else out.push(...this.arc(to, value, this.motion === 2));
        }
      } else if (motion === 38 || motion === 2 || motion === 3) throw new Refused('This move names no axis.');
    }
    for (const m of ms) {
      if (m === 0 || m === 1) out.push({ do: 'pause' });
      if (m === 2 || m === 30) {
        out.push({ do: 'spindle', turns: 0, direction: 'off' }, { do: 'end' });
        this.reset();
        this.shift = { x: 0, y: 0, z: 0 };
      }
    }
    this.probed = probing;
    return out;
  }

  private one<T>(before: T | undefined, now: T): T {
    if (before !== undefined) throw new Refused('Two kinds of motion stand in one block.');
    return now;
  }

  /** A move at a feed, or a rapid one. */
  private move(to: Point, feed?: number): Action {
    this.position = to;
    return { do: 'move', to, feed: feed ?? 0, rapid: feed === undefined };
  }

  private target(value: Map<string, number>, direct: boolean): Point {
    const { offsets, shift } = this;
    const system = offsets[this.system];
    const offset = direct
      ? { x: 0, y: 0, z: 0 }
      : { x: system.x + shift.x, y: system.y + shift.y, z: system.z + shift.z };
    const axis = (name: 'x' | 'y' | 'z') => {
      const word = value.get(name.toUpperCase());
      if (word === undefined) return this.position[name];
      const place = (this.absolute || direct ? offset[name] : this.position[name]) + word * this.perUnit;
      if (!(Math.abs(place) <= FURTHEST)) throw new Refused('A move leads further than a kilometre away.');
      return place;
    };
    return { x: axis('x'), y: axis('y'), z: axis('z') };
  }

  /** A canned drilling cycle: across at the height of R, down in one or by pecks of Q, and up. */
  private drill(value: Map<string, number>): Action[] {
    const { cycle } = this;
    if (this.plane !== 17) throw new Refused('Drilling cycles work in the XY plane only; give G17 first.');
    if (!this.absolute) throw new Refused('Drilling cycles are read with G90 only; write it before this block.');
    const height = (letter: 'Z' | 'R') =>
      value.get(letter)! * this.perUnit + this.offsets[this.system].z + this.shift.z;
    if (value.has('Z')) cycle.z = height('Z');
    if (value.has('R')) cycle.r = height('R');
    if (value.has('Q')) cycle.q = value.get('Q')! * this.perUnit;
    if (value.has('P')) cycle.p = value.get('P')!;
    if (Number.isNaN(cycle.z) || Number.isNaN(cycle.r)) throw new Refused('A drilling cycle needs Z and R.');
    if (cycle.r < cycle.z) throw new Refused('R of the drilling cycle lies below its Z.');
    if (this.feed <= 0) throw new Refused('A feed F is needed before this move.');
    if (this.motion === 83 && !(cycle.q > 0)) throw new Refused('G83 needs a peck Q above 0.');
    if (this.motion === 83 && (cycle.r - cycle.z) / cycle.q > MOST_PECKS)
      throw new Refused('G83 would take more than a thousand pecks; its Q is too small.');
    const out: Action[] = [];
    const to = this.target(new Map([...value].filter(([letter]) => letter !== 'Z')), false);
    const at = (z: number, feed?: number) => out.push(this.move({ x: to.x, y: to.y, z }, feed));
    if (this.position.z < cycle.r) out.push(this.move({ ...this.position, z: cycle.r }));
    out.push(this.move({ x: to.x, y: to.y, z: this.position.z }));
    at(cycle.r);
    if (this.motion === 83) {
      for (let bottom = cycle.r; ;) {
        const next = Math.max(cycle.z, bottom - cycle.q);
        if (bottom < cycle.r) at(Math.min(cycle.r, bottom + PECK_CLEARANCE));
        at(next, this.feed);
        if (next <= cycle.z) break;
        at(cycle.r);
        bottom = next;
      }
    } else at(cycle.z, this.feed);
    if (this.motion === 82 && cycle.p > 0) out.push({ do: 'dwell', seconds: cycle.p });
    at(this.retractToInitial ? Math.max(cycle.initial, cycle.r) : cycle.r);
    return out;
  }

  /**
   * G92 says where the tool is, G92.1 to G92.3 take that away, and put it back (NISTIR 6556 §3.5.18). After a probe move
   * along an axis it says where that ended: the surface is taken to lie where the program has it, so nothing shifts.
   */
  private shifted(word: number, value: Map<string, number>): Action[] {
    if (word === 92) {
      const named = (['x', 'y', 'z'] as const).filter((name) => value.has(name.toUpperCase()));
      if (named.length === 0) throw new Refused('G92 names no axis.');
      const offset = this.offsets[this.system];
      const at = { ...this.position };
      for (const name of named) {
        const said = value.get(name.toUpperCase())! * this.perUnit;
        if (this.probed.includes(name)) at[name] = offset[name] + this.shift[name] + said;
        else this.shift[name] = this.position[name] - offset[name] - said;
      }
      this.position = at;
      return named.some((name) => this.probed.includes(name)) ? [{ do: 'touched', at }] : [];
    }
    if (word === 92.3) throw new Refused('G92.3 brings back what G92 said before, which is not kept here.');
    this.shift = { x: 0, y: 0, z: 0 };
    return [];
  }

  /** G10 L2 sets an offset; L20 sets it so that the present position reads as given. */
  private setOffset(value: Map<string, number>): void {
    const l = value.get('L');
    const p = value.get('P') ?? 0;
    if (l !== 2 && l !== 20) throw new Refused('G10 needs L2 or L20.');
    if (!Number.isInteger(p) || p < 0 || p > 6) throw new Refused('G10 needs P1 to P6.');
    const offset = this.offsets[p === 0 ? this.system : p - 1];
    for (const name of ['x', 'y', 'z'] as const) {
      const word = value.get(name.toUpperCase());
      if (word !== undefined) offset[name] = l === 2 ? word * this.perUnit : this.position[name] - word * this.perUnit;
    }
  }

  /** An arc in the chosen plane, its third axis going along evenly (NISTIR 6556 §3.5.3). */
  private arc(to: Point, value: Map<string, number>, clockwise: boolean): Action[] {
    const from = this.position;
    const [a, b, c] = PLANES[this.plane];
    let ca: number;
    let cb: number;
    const r = value.get('R');
    if (r !== undefined) {
      const radius = Math.abs(r * this.perUnit);
      const half = Math.hypot(to[a] - from[a], to[b] - from[b]) / 2;
      if (half === 0 || radius < half - 0.002) throw new Refused('The arc’s radius is too small to reach its end.');
      const h = Math.sqrt(Math.max(0, radius * radius - half * half));
      const side = clockwise === r > 0 ? 1 : -1;
      ca = (from[a] + to[a]) / 2 + (side * h * (to[b] - from[b])) / (2 * half);
      cb = (from[b] + to[b]) / 2 - (side * h * (to[a] - from[a])) / (2 * half);
    } else {
      ca = from[a] + (value.get(CENTRE[a]) ?? 0) * this.perUnit;
      cb = from[b] + (value.get(CENTRE[b]) ?? 0) * this.perUnit;
    }
    const radius = Math.hypot(from[a] - ca, from[b] - cb);
    const end = Math.hypot(to[a] - ca, to[b] - cb);
    // NISTIR 6556 §3.5.3.2: the two radii may differ by 0.0002 in or 0.002 mm.
    if (radius === 0 || Math.abs(radius - end) > (this.perUnit === 1 ? 0.002 : 0.0002 * 25.4) + 1e-9)
      throw new Refused('The arc’s centre is not equally far from its ends.');
    const start = Math.atan2(from[b] - cb, from[a] - ca);
    let sweep = Math.atan2(to[b] - cb, to[a] - ca) - start;
    if (clockwise && sweep >= -1e-12) sweep -= 2 * Math.PI;
    if (!clockwise && sweep <= 1e-12) sweep += 2 * Math.PI;
    if (radius > FURTHEST) throw new Refused('The arc’s radius is larger than a kilometre.');
    const chord = 2 * Math.acos(Math.max(0.5, 1 - ARC_TOLERANCE / radius));
    const n = Math.max(1, Math.ceil(Math.abs(sweep) / chord));
    if (n > MOST_CHORDS) throw new Refused('The arc is too large to be followed.');
    const out: Action[] = [];
    for (let i = 1; i <= n; i++) {
      const angle = start + (sweep * i) / n;
      const at = { ...to };
      if (i < n) {
        at[a] = ca + radius * Math.cos(angle);
        at[b] = cb + radius * Math.sin(angle);
        at[c] = from[c] + ((to[c] - from[c]) * i) / n;
      }
      out.push(this.move(at, this.feed));
    }
    return out;
  }
}

type Axis = keyof Point;

/** The axes of each plane in the order in which its arcs turn, and the one square to it. */
const PLANES: Record<17 | 18 | 19, readonly [Axis, Axis, Axis]> = {
  17: ['x', 'y', 'z'],
  18: ['z', 'x', 'y'],
  19: ['y', 'z', 'x'],
};
const CENTRE: Record<Axis, string> = { x: 'I', y: 'J', z: 'K' };
