/* eslint max-lines: off -- the modes of one controller, which every word of a block may change */
import { PLANES, arcPoints } from './arc-points.ts';
import { type Block, readBlock } from './block.ts';
import { type Cycle, holeSteps, isCycle, repeatsOf } from './drilling-cycle.ts';
import { modalClash } from './modal-groups.ts';
import { AXES, type Point } from './point.ts';
import { Refused } from './refused.ts';
import { type TurnedScaled, keepsArcs, laidAt, saidOf } from './turned-scaled.ts';

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
  /** Motion that a block without a word for it continues: 0 to 3, 38 (G38.2), 73 to 89; nothing after G80. */
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
/** Codes that change nothing here: length of the tool, path control, coolant. */
const IDLE_G = new Set([43, 49, 61, 61.1, 64]);
const IDLE_M = new Set([0, 1, 2, 7, 8, 9, 30, 48, 49, 60]);

/**
 * Words that are followed in a program from elsewhere only: what Kerbe takes up or sends on states its modes anew, and
 * these are none of them.
 */
const FOREIGN_G = new Set([50, 51, 68, 69, 73, 85, 86, 89, 90.1, 93, 95]);

/** A larger or smaller factor of G51 is no scale that anyone meant. */
const MOST_SCALED = 100;

type Motion = 0 | 1 | 2 | 3 | 38 | Cycle;
type Words = ReadonlyMap<string, number>;
const MOTIONS = new Map<number, Motion>([
  [0, 0],
  [1, 1],
  [2, 2],
  [3, 3],
  [38.2, 38],
  [73, 73],
  [81, 81],
  [82, 82],
  [83, 83],
  [85, 85],
  [86, 86],
  [89, 89],
]);

/** What the G words of a block ask for beside modes. */
interface Asked {
  motion?: Motion;
  /** A word that works in its own block only: 4, 10, 28, 30, 51, 68, 92 and its like. */
  special?: number;
  /** In machine coordinates (G53). */
  direct: boolean;
  /** A word that is not known. */
  strange?: number;
}

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
  private centresAbsolute = false;
  private motion: Motion | undefined = 1;
  private plane: 17 | 18 | 19 = 17;
  /** What a canned cycle keeps from block to block (NISTIR 6556 §3.5.16); heights as they were said, mm. */
  private cycle = { z: 0, r: 0, q: 0, p: 0, initial: 0 };
  private retractToInitial = true;
  /** What G92 has put on top of the work coordinate systems, mm. */
  private shift: Point = { x: 0, y: 0, z: 0 };
  /** The last move was a probe move along these axes: where it ends, nobody knows from the program alone. */
  private probed: readonly ('x' | 'y' | 'z')[] = [];
  /** What F means: mm/min, mm a turn, or how often a minute a move could be made (G94, G95, G93). */
  private feedMode: 93 | 94 | 95 = 94;
  private feed = 0;
  private turns = 0;
  private clockwise = true;
  private tool = 0;
  /** On which side of the way as it is written the controller leads the tool (G41, G42); where it goes itself is not reckoned. */
  beside: 'left' | 'right' | undefined;
  /** Where the last block ended by what the program says, machine coordinates; a scale and a rotation are put on it. */
  private saidAt: Point = { x: 0, y: 0, z: 0 };
  private laid: TurnedScaled = {};

  /**
   * @param said without it a word that is not known is refused with its block; with it, it is said, and what the block asks
   *   for beside it is done, unless it may be a kind of motion.
   */
  constructor(private readonly said?: (sentence: string) => void) {}

  /** Where the last block ended, machine coordinates. */
  get position(): Point {
    return laidAt(this.saidAt, this.laid);
  }

  set position(at: Point) {
    this.saidAt = saidOf(at, this.laid);
  }

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

  /** Axes that G92 has shifted. */
  get shifted(): ('x' | 'y' | 'z')[] {
    return AXES.filter((axis) => this.shift[axis] !== 0);
  }

  /** Modes as after a start or M30 (offsets stay). */
  reset(): void {
    const at = this.position;
    Object.assign(this, { perUnit: 1, absolute: true, centresAbsolute: false, motion: 1, feed: 0, feedMode: 94 });
    Object.assign(this, { system: 0, plane: 17, beside: undefined, laid: {} });
    this.saidAt = at;
  }

  private unknown(sentence: string): void {
    if (!this.said) throw new Refused(sentence);
    this.said(sentence);
  }

  /** @throws {Refused | import('./block-error.ts').BlockError} with one sentence. */
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
    const clash = modalClash(gs, ms);
    if (clash) throw new Refused(clash.sentence, clash.lasting);
    const asked = this.setModes(gs);
    this.setFigures(value);
    const out: Action[] = this.switched(ms, value.has('S'));
    this.probed = this.moved(asked, value, out);
    this.ended(ms, out);
    return out;
  }

  /** G words that hold from here on, and what the others ask for. */
  private setModes(gs: readonly number[]): Asked {
    const asked: Asked = { direct: false };
    for (const g of gs) {
      if (!this.said && FOREIGN_G.has(g)) throw new Refused(`G${g} is not known here.`);
      const motion = MOTIONS.get(g);
      if (motion !== undefined) asked.motion = motion;
      else if (g === 80) this.motion = undefined;
      else if (g === 98 || g === 99) this.retractToInitial = g === 98;
      else if (g === 20 || g === 21) this.perUnit = g === 20 ? 25.4 : 1;
      else if (g === 90 || g === 91) this.absolute = g === 90;
      else if (g === 90.1 || g === 91.1) this.centresAbsolute = g === 90.1;
      else if (g === 93 || g === 94 || g === 95) {
        if (g !== this.feedMode) this.feed = 0;
        this.feedMode = g;
      } else if (g === 53) asked.direct = true;
      else if (g === 40) this.beside = undefined;
      else if (g === 41 || g === 42) this.beside = g === 41 ? 'left' : 'right';
      else if (g >= 54 && g <= 59 && Number.isInteger(g)) this.system = g - 54;
      else if ([4, 10, 28, 30, 50, 51, 68, 69].includes(g) || (g >= 92 && g < 93)) asked.special = g;
      else if (g === 17 || g === 18 || g === 19) this.plane = g;
      else if (!IDLE_G.has(g)) {
        this.unknown(`G${g} is not known here.`);
        asked.strange = g;
      }
    }
    return asked;
  }

  /** Feed, speed and bit. */
  private setFigures(value: Words): void {
    const f = value.get('F');
    if (f !== undefined) {
      if (f < 0) throw new Refused('The feed F is negative.');
      this.feed = this.feedMode === 93 ? f : f * this.perUnit;
    } else if (this.feedMode === 93) this.feed = 0;
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
  }

  /** Bit changes and the spindle. */
  private switched(ms: readonly number[], speed: boolean): Action[] {
    const out: Action[] = [];
    for (const m of ms) {
      if (m === 6) out.push({ do: 'bit', number: this.tool });
      else if (m === 3 || m === 4) {
        // A beam is made ready with none of its power.
        if (this.turns <= 0 && !speed) throw new Refused('The spindle is to start, but no speed S was given.');
        this.clockwise = m === 3;
        out.push(this.spindle());
      } else if (m === 5) out.push({ do: 'spindle', turns: 0, direction: 'off' });
      else if (!IDLE_M.has(m)) this.unknown(`M${m} is not known here.`);
    }
    return out;
  }

  private spindle(): Action {
    return { do: 'spindle', turns: this.turns, direction: this.clockwise ? 'clockwise' : 'counter-clockwise' };
  }

  private ended(ms: readonly number[], out: Action[]): void {
    for (const m of ms) {
      if (m === 0 || m === 1) out.push({ do: 'pause' });
      if (m === 2 || m === 30) {
        out.push({ do: 'spindle', turns: 0, direction: 'off' }, { do: 'end' });
        this.reset();
        this.shift = { x: 0, y: 0, z: 0 };
      }
    }
  }

  /** What the block moves, or does instead. @returns the axes along which it probes. */
  private moved(
    { motion, special, direct, strange }: Asked,
    value: Words,
    out: Action[],
  ): readonly ('x' | 'y' | 'z')[] {
    const axes = AXES.some((axis) => value.has(axis.toUpperCase()));
    if (axes && strange !== undefined && motion === undefined)
      throw new Refused(`A move with G${strange} cannot be followed.`);
    if (special !== undefined) {
      this.worked(special, value, direct, out);
      return [];
    }
    if (motion !== undefined) {
      if (isCycle(motion) && !isCycle(this.motion)) this.cycle = { z: NaN, r: NaN, q: 0, p: 0, initial: this.saidAt.z };
      this.motion = motion;
    }
    const arc = this.motion === 2 || this.motion === 3;
    if (isCycle(this.motion)) {
      if (axes || motion !== undefined) this.drill(this.motion, value, out);
    } else if (this.motion === undefined) {
      if (axes) throw new Refused('This block names axes, but no motion is on; give G0, G1 or another first.');
    } else if (axes || (arc && ['I', 'J', 'K'].some((letter) => value.has(letter)))) {
      if (direct && this.motion !== 0 && this.motion !== 1) throw new Refused('G53 goes with G0 or G1 only.');
      const to = this.target(value, direct);
      if (this.motion === 0) out.push(this.move(to));
      else if (this.motion === 1) out.push(this.move(to, this.feedOver([to])));
      else if (this.motion === 38) return this.probe(to, out);
      else this.arc(to, value, out);
    } else if (motion === 38 || motion === 2 || motion === 3) throw new Refused('This move names no axis.');
    return [];
  }

  /** Words that work in their own block only. */
  private worked(special: number, value: Words, direct: boolean, out: Action[]): void {
    if (special === 4) {
      const p = value.get('P');
      if (p === undefined || p < 0) throw new Refused('G4 needs a time P of 0 or more seconds.');
      out.push({ do: 'dwell', seconds: p });
    } else if (special === 10) this.setOffset(value);
    else if (special >= 92) out.push(...this.countFrom(special, value));
    else if (special >= 50) this.lay(special, value);
    else {
      if (AXES.some((axis) => value.has(axis.toUpperCase()))) out.push(this.move(this.target(value, direct)));
      out.push(this.move(saidOf(this.home[special === 28 ? 0 : 1], this.laid)));
    }
  }

  private probe(to: Point, out: Action[]): readonly ('x' | 'y' | 'z')[] {
    const feed = this.feedOver([to]);
    const from = this.saidAt;
    this.saidAt = to;
    out.push({ do: 'probe', to: this.position, feed });
    return AXES.filter((name) => to[name] !== from[name]);
  }

  /**
   * The feed of a move through these places, mm/min (NISTIR 6556 §3.5.19; G95 by common practice).
   * @throws {Refused} where it is not known.
   */
  private feedOver(places: readonly Point[]): number {
    if (this.feed <= 0)
      throw new Refused(
        this.feedMode === 93 ? 'With G93 every move needs its own F.' : 'A feed F is needed before this move.',
      );
    if (this.feedMode === 94) return this.feed;
    if (this.feedMode === 95) {
      if (this.turns <= 0) throw new Refused('The feed counts a turn (G95), and no speed S was given.');
      return this.feed * this.turns;
    }
    let length = 0;
    let from = this.position;
    for (const place of places) {
      const to = laidAt(place, this.laid);
      length += Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z);
      from = to;
    }
    return Math.max(length * this.feed, 1e-3);
  }

  /** A move at a feed, or a rapid one. */
  private move(to: Point, feed?: number): Action {
    this.saidAt = to;
    return { do: 'move', to: this.position, feed: feed ?? 0, rapid: feed === undefined };
  }

  /** Where the zero that the program counts from now lies, machine coordinates, mm. */
  get zero(): Point {
    const { offsets, shift } = this;
    const system = offsets[this.system];
    return { x: system.x + shift.x, y: system.y + shift.y, z: system.z + shift.z };
  }

  private target(value: Words, direct: boolean): Point {
    const from = direct ? this.position : this.saidAt;
    const offset = direct ? { x: 0, y: 0, z: 0 } : this.zero;
    const axis = (name: 'x' | 'y' | 'z') => {
      const word = value.get(name.toUpperCase());
      if (word === undefined) return from[name];
      const place = (this.absolute || direct ? offset[name] : from[name]) + word * this.perUnit;
      if (!(Math.abs(place) <= FURTHEST)) throw new Refused('A move leads further than a kilometre away.');
      return place;
    };
    const to = { x: axis('x'), y: axis('y'), z: axis('z') };
    return direct ? saidOf(to, this.laid) : to;
  }

  /** A canned drilling cycle: across at the height of R, down, and up (NISTIR 6556 §3.5.16). */
  private drill(kind: Cycle, value: Words, out: Action[]): void {
    const { cycle } = this;
    if (this.plane !== 17) throw new Refused('Drilling cycles work in the XY plane only; give G17 first.');
    if (!this.said && (!this.absolute || value.has('L')))
      throw new Refused('Drilling cycles are read with G90 and without L only.');
    if (this.feedMode === 93) throw new Refused('Drilling cycles do not go with G93; give G94 first.');
    const repeats = repeatsOf(value.get('L'));
    const said = (letter: 'Z' | 'R', kept: number) => (value.has(letter) ? value.get(letter)! * this.perUnit : kept);
    const next = { ...cycle, z: said('Z', cycle.z), r: said('R', cycle.r) };
    if (value.has('Q')) next.q = value.get('Q')! * this.perUnit;
    if (value.has('P')) next.p = value.get('P')!;
    if (Number.isNaN(next.z) || Number.isNaN(next.r)) throw new Refused('A drilling cycle needs Z and R.');
    const feed = this.feedOver([]);
    this.cycle = next;
    const across = new Map([...value].filter(([letter]) => letter !== 'Z'));
    // In G91 R counts from where the tool is, and Z from R.
    const clear = (this.absolute ? this.zero.z : this.saidAt.z) + next.r;
    const bottom = (this.absolute ? this.zero.z : clear) + next.z;
    if (clear < bottom - 1e-9) throw new Refused('R of the drilling cycle lies below its Z.');
    const retract = this.retractToInitial ? Math.max(next.initial, clear) : clear;
    const steps = holeSteps({ cycle: kind, bottom, clear, retract, peck: next.q, dwell: next.p });
    for (let k = 0; k < repeats; k++) {
      const to = this.target(across, false);
      const at = (z: number, feed?: number) => out.push(this.move({ x: to.x, y: to.y, z }, feed));
      if (this.saidAt.z < clear) out.push(this.move({ ...this.saidAt, z: clear }));
      at(this.saidAt.z);
      at(clear);
      for (const step of steps)
        if ('to' in step) at(step.to, step.rapid ? undefined : feed);
        else if ('dwell' in step) out.push({ do: 'dwell', seconds: step.dwell });
        else out.push(step.spindle === 'on' ? this.spindle() : { do: 'spindle', turns: 0, direction: 'off' });
    }
  }

  /**
   * G92 says where the tool is, G92.1 to G92.3 take that away, and put it back (NISTIR 6556 §3.5.18). After a probe move
   * along an axis it says where that ended: the surface is taken to lie where the program has it, so nothing shifts.
   */
  private countFrom(word: number, value: Words): Action[] {
    if (word === 92) {
      const named = AXES.filter((name) => value.has(name.toUpperCase()));
      if (named.length === 0) throw new Refused('G92 names no axis.');
      const offset = this.offsets[this.system];
      const at = { ...this.saidAt };
      for (const name of named) {
        const said = value.get(name.toUpperCase())! * this.perUnit;
        if (this.probed.includes(name)) at[name] = offset[name] + this.shift[name] + said;
        else this.shift[name] = this.saidAt[name] - offset[name] - said;
      }
      this.saidAt = at;
      return named.some((name) => this.probed.includes(name)) ? [{ do: 'touched', at: this.position }] : [];
    }
    if (word === 92.3) throw new Refused('G92.3 brings back what G92 said before, which is not kept here.');
    this.shift = { x: 0, y: 0, z: 0 };
    return [];
  }

  /** G10 L2 sets an offset; L20 sets it so that the present position reads as given. */
  private setOffset(value: Words): void {
    const l = value.get('L');
    const p = value.get('P') ?? 0;
    if (l !== 2 && l !== 20) throw new Refused('G10 needs L2 or L20.');
    if (!Number.isInteger(p) || p < 0 || p > 6) throw new Refused('G10 needs P1 to P6.');
    const offset = this.offsets[p === 0 ? this.system : p - 1];
    for (const name of AXES) {
      const word = value.get(name.toUpperCase());
      if (word !== undefined) offset[name] = l === 2 ? word * this.perUnit : this.saidAt[name] - word * this.perUnit;
    }
  }

  /** A scale (G51, G50) or a rotation (G68, G69), about a point that the program gives or where the tool is. */
  private lay(word: number, value: Words): void {
    const { position, zero } = this;
    const about = (name: 'x' | 'y' | 'z') => {
      const given = value.get(name.toUpperCase());
      return given === undefined ? this.saidAt[name] : zero[name] + given * this.perUnit;
    };
    if (word === 50) this.laid = { ...this.laid, scale: undefined };
    else if (word === 69) this.laid = { ...this.laid, turn: undefined };
    else if (word === 51)
      this.laid = { ...this.laid, scale: { at: { x: about('x'), y: about('y'), z: about('z') }, by: scaleOf(value) } };
    else {
      if (this.plane !== 17) throw new Refused('A rotation (G68) is followed in the XY plane only; give G17 first.');
      const degrees = value.get('R');
      if (degrees === undefined) throw new Refused('G68 needs an angle R.');
      this.laid = { ...this.laid, turn: { at: { x: about('x'), y: about('y') }, degrees } };
    }
    // The tool does not move by it.
    this.position = position;
  }

  /** An arc in the chosen plane (NISTIR 6556 §3.5.3; more than one turn and centres from zero by common practice). */
  private arc(to: Point, value: Words, out: Action[]): void {
    const { saidAt: from, perUnit, plane } = this;
    const [a, b] = PLANES[plane];
    if (!keepsArcs(this.laid, a, b))
      throw new Refused(
        'An arc under two different scales (G51) is no arc; controllers differ in what they make of it.',
      );
    const turns = value.get('P') ?? 1;
    if (!this.said && value.has('P')) throw new Refused('The word P is not known with an arc here.');
    if (!Number.isInteger(turns) || turns < 1) throw new Refused('P of an arc is not a whole number of turns.');
    const r = value.get('R');
    const centre: Partial<Point> = {};
    for (const axis of [a, b]) {
      const word = value.get(CENTRE[axis]);
      if (this.centresAbsolute && word === undefined && r === undefined)
        throw new Refused('With G90.1 an arc names both coordinates of its centre.');
      centre[axis] = (this.centresAbsolute ? this.zero[axis] : from[axis]) + (word ?? 0) * perUnit;
    }
    const points = arcPoints({
      from,
      to,
      plane,
      clockwise: this.motion === 2,
      radius: r === undefined ? undefined : r * perUnit,
      centre,
      turns,
      // NISTIR 6556 §3.5.3.2: the two radii may differ by 0.0002 in or 0.002 mm.
      apart: perUnit === 1 ? 0.002 : 0.0002 * 25.4,
      largest: FURTHEST,
    });
    const feed = this.feedOver(points);
    for (const point of points) out.push(this.move(point, feed));
  }
}

/** The factors of G51: P for the axes that it names, and X and Y where it names none; or I, J and K. */
function scaleOf(value: Words): Point {
  const p = value.get('P');
  const named = AXES.filter((name) => value.has(name.toUpperCase()));
  const of = (name: 'x' | 'y' | 'z'): number => {
    if (p === undefined) return value.get(CENTRE[name]) ?? 1;
    return (named.length > 0 ? named : ['x', 'y']).includes(name) ? p : 1;
  };
  const by = { x: of('x'), y: of('y'), z: of('z') };
  for (const factor of Object.values(by))
    if (!(Math.abs(factor) <= MOST_SCALED && Math.abs(factor) >= 1 / MOST_SCALED))
      throw new Refused(
        'A scale (G51) is larger than 100 or smaller than 0.01; write its factor itself, 1.5 for half as large again.',
      );
  return by;
}

const CENTRE: Record<keyof Point, string> = { x: 'I', y: 'J', z: 'K' };
