import { type Path, PathBuilder } from '../motion/path.ts';
import { TooManyMoves } from '../motion/too-many-moves.ts';
import type { Block } from './block.ts';
import { BlockError } from './block-error.ts';
import { type Action, Interpreter } from './interpreter.ts';
import { AXES, type Point } from './point.ts';
import { type FlowBlock, ProgramFlow, TooLong } from './program-flow.ts';
import { Refused } from './refused.ts';
import { WorkZeros } from './work-zeros.ts';

/** A program read back: where the bit goes, program coordinates, mm. */
export interface ReadProgram {
  path: Path;
  /** For every point of the path the line, from 0, that led to it. */
  lines: Uint32Array;
  /** Bits called, in order, with the first point each of them makes. */
  bits: { number: number; point: number }[];
  /** Bits that are in while the spindle turns, with the first line, from 0, at which they are; 0 where none was called. */
  turned: { number: number; line: number }[];
  /** Seconds of dwelling. */
  dwell: number;
  /** For every point whether the controller leads the tool beside the move to it: 0 not, 1 to the left, 2 to the right. */
  beside: Uint8Array;
  /** What could not be followed, and what was taken for granted, one sentence a kind with the first line it stands in. */
  notes: string[];
  /** All moves were followed; where not, its time and its reach are those of what was. */
  whole: boolean;
}

/** Notes at most; a file that is no program would have one a line. */
const MOST_NOTES = 20;

const SIDES = [undefined, 'left', 'right'] as const;
const LED =
  'From here on the controller leads the tool beside its way (G41, G42), by as much as is set there; the way is shown as it is written.';
const MACHINE_MOVES = 'Moves in machine coordinates (G53, G28, G30) are left out; where they lead is not known here.';
const FROM_UNKNOWN = 'Moves from a place that is not known are left out, until all three axes are given again.';
const OTHER_ZERO =
  'From here on it counts from a zero that only the machine knows (G54 to G59, G10 or G92); moves are left out until it counts from the first one again.';

/** How much of a program is read. */
export interface ReadLimits {
  /** Points of all its moves and arcs. */
  points: number;
  /** Lines that are carried out, however often each. */
  lines: number;
}

/** Blocks that are carried out at once. */
const PART = 5000;

const LIMITS: ReadLimits = { points: 10_000_000, lines: 5_000_000 };

/** Words that call what does not stand in the file. */
const CALLS_G = [65, 66, 66.1];
const CALLS_M = [97, 198];

/**
 * Reads any RS-274 program into a path, also one that Kerbe did not write. What can be followed is, modes and words of a
 * block whatever else stands in it. What cannot is noted: moves in machine coordinates, whose place is not known here,
 * kinds of motion and words it does not know, zeros that only the machine knows. After a move that could not be followed
 * its axes are not known, and moves are left out until each is given again. Subprograms, parameters and expressions are
 * carried out; what is taken for granted with them is noted (docs/formats/programs.md).
 *
 * @throws {BlockError} when not one line could be followed, or it is too long.
 * @example readProgram('G21\nG0 Z5\nG0 X10 Y0\nG1 Z-1 F100').path.xyz.slice(-6) // [10, 0, 5, 10, 0, -1]
 */
export function readProgram(text: string, limits: ReadLimits = LIMITS): ReadProgram {
  const reading = readingProgram(text, limits);
  for (;;) {
    const { done, value } = reading.next();
    if (done) return value;
  }
}

/** As {@link readProgram}, in parts, so that others can work in between, or end it. */
export function* readingProgram(text: string, limits: ReadLimits = LIMITS): Generator<undefined, ReadProgram> {
  const rows = text.split(/\r\n|\n|\r/);
  if (rows.length > limits.lines)
    throw new BlockError(`This program has more than ${limits.lines.toLocaleString('en')} lines; divide it.`);
  const reader = new ProgramReader(rows, limits);
  while (reader.part(PART)) yield;
  return reader.finish();
}

class ProgramReader {
  private readonly flow: ProgramFlow;
  private readonly interpreter = new Interpreter((sentence) => this.note(sentence));
  private readonly zeros = new WorkZeros();
  /** The zero of the first move, machine coordinates. */
  private base: Point | undefined;
  /** Axes whose place is not known since a move could not be followed. */
  private readonly lost = new Set<keyof Point>();
  private readonly builder: PathBuilder;
  private readonly lineOf: number[] = [];
  private readonly beside: number[] = [];
  private readonly bits: ReadProgram['bits'] = [];
  private readonly notes = new Map<string, string>();
  private readonly turned: ReadProgram['turned'] = [];
  private dwell = 0;
  private bit = -1;
  private spindle = 0;
  private whole = true;
  /** A probe move whose end is known once the program says where it counts from. */
  private probing: { to: Point; feed: number } | undefined;
  private jump = false;
  /** The first line in machine coordinates that no other move has followed yet. */
  private direct: number | undefined;
  private ended = false;

  constructor(
    rows: readonly string[],
    private readonly limits: ReadLimits,
  ) {
    this.builder = new PathBuilder(limits.points);
    this.flow = new ProgramFlow(rows, (sentence) => this.note(sentence), limits.lines);
  }

  /** Carries out so many blocks. @returns whether there are more. */
  part(blocks: number): boolean {
    for (let k = 0; k < blocks && !this.ended; k++) {
      try {
        const block = this.flow.block();
        if (!block) return false;
        this.take(block);
      } catch (error) {
        if (error instanceof TooManyMoves)
          throw new BlockError(
            `Line ${this.flow.line + 1}: this program has more than ${this.limits.points.toLocaleString('en')} moves; divide it.`,
          );
        if (error instanceof TooLong || !(error instanceof Refused || error instanceof BlockError)) throw error;
        this.refuse(error);
      }
    }
    return !this.ended;
  }

  private refuse(error: Refused | BlockError): void {
    this.whole = false;
    if (error instanceof BlockError) this.lose(AXES);
    const lasting = error instanceof Refused && error.lasting;
    this.ended ||= lasting;
    this.note(lasting ? `${error.message.replace(/\.$/, '')}; it is not read further.` : error.message);
  }

  private note(sentence: string, line = this.flow.line): void {
    const kind = sentence.replace(/“.*”|#\S+/, '');
    if (!this.notes.has(kind) && this.notes.size < MOST_NOTES) this.notes.set(kind, `Line ${line + 1}: ${sentence}`);
  }

  private left(sentence: string, line?: number): void {
    this.whole = false;
    this.note(sentence, line);
  }

  private lose(axes: Iterable<keyof Point>): void {
    for (const axis of axes) this.lost.add(axis);
    if (this.lost.size > 0) this.jump = this.builder.length > 0;
  }

  private take(block: FlowBlock): void {
    for (const part of block.skipped) this.note(`“${part}” cannot be read.`);
    const words = (letter: string) => block.words.filter((one) => one.letter === letter).map(({ value }) => value);
    const gs = words('G');
    const letters = [...block.words.map(({ letter }) => letter), ...block.skipped.map(([letter]) => letter)];
    const named = AXES.filter((axis) => letters.includes(axis.toUpperCase()));
    const garbled = block.skipped.some(([letter]) => AXES.some((axis) => axis.toUpperCase() === letter));
    const actions = this.actionsOf(block, gs, named, garbled);
    if (block.lost || gs.some((g) => CALLS_G.includes(g)) || words('M').some((m) => CALLS_M.includes(m))) {
      this.whole = false;
      this.lose(AXES);
    }
    if (this.direct !== undefined && actions.some((action) => action.do === 'move' || action.do === 'probe')) {
      this.left(MACHINE_MOVES, this.direct);
      this.direct = undefined;
    }
    if (this.probing && actions.length > 0) this.probed(actions[0]);
    for (const action of actions) if (this.done(action)) return;
  }

  /** What a block asks for, and which axes are known behind it. */
  private actionsOf(block: Block, gs: readonly number[], named: readonly (keyof Point)[], garbled: boolean): Action[] {
    if (gs.includes(28) || gs.includes(30) || gs.includes(53) || garbled) {
      if (gs.includes(53)) {
        // At the end, on the way to where the bit is parked, nothing follows that would have to begin from there.
        this.direct ??= this.flow.line;
        this.lose(named);
      } else if (garbled) {
        this.whole = false;
        this.lose(named);
      } else {
        this.left(MACHINE_MOVES);
        this.lose(AXES);
      }
      // The bit that it calls and the modes that it sets hold all the same.
      return this.interpreter.actions(modesOf(block));
    }
    let actions;
    try {
      actions = this.interpreter.actions(block);
    } catch (error) {
      if (error instanceof Refused) this.lose(named);
      throw error;
    }
    this.follow(block, gs, named, actions);
    return actions;
  }

  /** What the block tells of zeros and places. */
  private follow(block: Block, gs: readonly number[], named: readonly (keyof Point)[], actions: Action[]): void {
    const { system, incremental } = this.interpreter.modes;
    const word = (letter: string) => block.words.find((one) => one.letter === letter)?.value;
    if (gs.includes(10)) {
      const p = word('P') ?? 0;
      const of = p === 0 ? system : p - 1;
      if (word('L') === 2) this.zeros.setFromMachine(of, named);
      else this.zeros.setHere(of, named, this.lost);
      return;
    }
    const touched = actions.some((action) => action.do === 'touched');
    if (gs.includes(92) && !touched) this.zeros.shift(named, this.lost);
    if (gs.includes(92.1) || gs.includes(92.2)) this.zeros.unshift();
    const moves = actions.some((action) => action.do === 'move' || action.do === 'probe');
    if (!moves && !touched) return;
    if (!this.base) {
      this.zeros.begin(system);
      this.base = this.interpreter.zero;
    }
    // In G91 an axis is only known where it was known before.
    if (incremental) return;
    for (const axis of named)
      if (this.zeros.knows(system, axis)) this.lost.delete(axis);
      else {
        this.left(OTHER_ZERO);
        this.lose([axis]);
      }
  }

  private probed(first: Action): void {
    const { x, y, z } = this.here(first.do === 'touched' ? first.at : this.probing!.to);
    this.builder.to(x, y, z, this.probing!.feed, first.do === 'touched' ? 0 : 1);
    this.lined(this.flow.line - 1);
    this.probing = undefined;
  }

  private here({ x, y, z }: Point): Point {
    const { base } = this;
    return base ? { x: x - base.x, y: y - base.y, z: z - base.z } : { x, y, z };
  }

  /** @returns whether the program ends by it. */
  private done(action: Action): boolean {
    if (action.do === 'dwell') this.dwell += action.seconds;
    else if (action.do === 'spindle') {
      this.spindle = action.turns;
      this.turns();
    } else if (action.do === 'bit' && action.number !== this.bit) {
      this.bit = action.number;
      this.bits.push({ number: action.number, point: this.builder.length });
      // Not every controller stops it for a change.
      this.turns();
    } else if (action.do === 'move' || action.do === 'probe') this.moved(action);
    else if (action.do === 'end') this.ended = true;
    return this.ended;
  }

  private moved(action: Extract<Action, { do: 'move' | 'probe' }>): void {
    if (this.lost.size > 0) {
      this.left(FROM_UNKNOWN);
      return;
    }
    const { x, y, z } = this.here(action.to);
    if (this.jump) {
      // From nowhere to here: no cut, and no way that anyone knows.
      this.jump = false;
      this.builder.rapid(x, y, z);
    }
    if (action.do === 'probe') {
      this.probing = action;
      return;
    }
    if (action.rapid) this.builder.rapid(x, y, z);
    else this.builder.to(x, y, z, action.feed);
    this.lined(this.flow.line);
    if (this.interpreter.beside) this.note(LED);
  }

  private lined(line: number): void {
    while (this.lineOf.length < this.builder.length) {
      this.lineOf.push(line);
      this.beside.push(SIDES.indexOf(this.interpreter.beside));
    }
  }

  private turns(): void {
    const number = Math.max(0, this.bit);
    if (this.spindle > 0 && !this.turned.some((known) => known.number === number))
      this.turned.push({ number, line: this.flow.line });
  }

  finish(): ReadProgram {
    if (this.probing) {
      const { x, y, z } = this.here(this.probing.to);
      this.builder.to(x, y, z, this.probing.feed);
    }
    this.lined(this.flow.line);
    if (this.builder.length === 0)
      throw new BlockError(
        this.notes.size
          ? `No move could be read. ${[...this.notes.values()][0]}`
          : 'This file holds no moves; choose an RS-274 program.',
      );
    return {
      path: this.builder.done(),
      lines: Uint32Array.from(this.lineOf),
      beside: Uint8Array.from(this.beside),
      bits: this.bits,
      turned: this.turned,
      dwell: this.dwell,
      notes: [...this.notes.values()],
      whole: this.whole,
    };
  }
}

/** A block without its move: units, distances, plane, feed, speed and bit still hold. */
function modesOf({ words, ...block }: Block): Block {
  return {
    ...block,
    words: words.filter(({ letter, value }) =>
      letter === 'G' ? ![53, 28, 30].includes(value) : !'XYZIJKRABCUVW'.includes(letter),
    ),
  };
}
