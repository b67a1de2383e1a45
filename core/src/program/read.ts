import { type Path, PathBuilder } from '../motion/path.ts';
import { TooManyMoves } from '../motion/too-many-moves.ts';
import { type Block, BlockError, readBlock } from './block.ts';
import { Interpreter, type Point, Refused } from './interpreter.ts';

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
  /** What could not be followed, one sentence a kind with the first line it stands in. */
  notes: string[];
}

/** Notes at most; a file that is no program would have one a line. */
const MOST_NOTES = 20;

const SIDES = [undefined, 'left', 'right'] as const;
const LED =
  'From here on the controller leads the tool beside its way (G41, G42), by as much as is set there; the way is shown as it is written.';
const MACHINE_MOVES = 'Moves in machine coordinates (G53, G28, G30) are left out; where they lead is not known here.';
const FROM_UNKNOWN = 'Moves from a place that is not known are left out, until all three axes are given again.';

/** Points at most, of all its moves and arcs. */
const MOST_POINTS = 10_000_000;

/** Lines at most. */
const MOST_LINES = 5_000_000;

/**
 * Reads any RS-274 program into a path, also one that Kerbe did not write. What can be followed is, modes and words of a
 * block whatever else stands in it. What cannot is noted: moves in machine coordinates, whose place is not known here,
 * kinds of motion and words it does not know. After a move that could not be followed its axes are not known, and moves
 * are left out until each is given again.
 *
 * @throws {BlockError} when not one line could be followed.
 * @example readProgram('G21\nG0 Z5\nG0 X10 Y0\nG1 Z-1 F100').path.xyz.slice(-6) // [10, 0, 5, 10, 0, -1]
 */
export function readProgram(text: string): ReadProgram {
  let line = 0;
  const interpreter = new Interpreter((sentence) => note(sentence, line));
  /** Axes whose place is not known since a move could not be followed. */
  const lost = new Set<string>();
  const builder = new PathBuilder(MOST_POINTS);
  const lineOf: number[] = [];
  const beside: number[] = [];
  const lined = (line: number) => {
    while (lineOf.length < builder.length) {
      lineOf.push(line);
      beside.push(SIDES.indexOf(interpreter.beside));
    }
  };
  const bits: ReadProgram['bits'] = [];
  const notes = new Map<string, string>();
  let dwell = 0;
  const turned: ReadProgram['turned'] = [];
  let bit = -1;
  let spindle = 0;
  const turns = () => {
    const number = Math.max(0, bit);
    if (spindle > 0 && !turned.some((known) => known.number === number)) turned.push({ number, line });
  };
  /** A probe move whose end is known once the program says where it counts from. */
  let probing: { to: Point; feed: number } | undefined;
  let jump = false;
  /** The first line in machine coordinates that no other move has followed yet. */
  let direct: number | undefined;
  const rows = text.split(/\r\n|\n|\r/);
  if (rows.length > MOST_LINES) throw new BlockError('This program has more than five million lines; divide it.');
  const note = (sentence: string, line: number) => {
    const kind = sentence.replace(/“.*”/, '');
    if (!notes.has(kind) && notes.size < MOST_NOTES) notes.set(kind, `Line ${line + 1}: ${sentence}`);
  };
  for (const [index, row] of rows.entries()) {
    line = index;
    try {
      const block = readBlock(row, true);
      if (!block) continue;
      for (const part of block.skipped) note(`“${part}” cannot be read.`, line);
      const gs = block.words.filter(({ letter }) => letter === 'G').map(({ value }) => value);
      const named = [...block.words.map(({ letter }) => letter), ...block.skipped.map(([letter]) => letter)].filter(
        (letter) => AXES.includes(letter),
      );
      const garbled = block.skipped.some(([letter]) => AXES.includes(letter));
      let actions;
      if (gs.includes(28) || gs.includes(30) || gs.includes(53) || garbled) {
        if (gs.includes(53)) {
          // At the end, on the way to where the bit is parked, nothing follows that would have to begin from there.
          direct ??= line;
          lose(named);
        } else if (garbled) lose(named);
        else {
          note(MACHINE_MOVES, line);
          lose(AXES);
        }
        // The bit that it calls and the modes that it sets hold all the same.
        actions = interpreter.actions(modesOf(block));
      } else {
        try {
          actions = interpreter.actions(block);
        } catch (error) {
          if (!(error instanceof Refused)) throw error;
          lose(named);
          throw error;
        }
        // In G91 an axis is only known where it was known before.
        if (lost.size > 0 && !interpreter.modes.incremental) for (const axis of named) lost.delete(axis);
      }
      if (direct !== undefined && actions.some((action) => action.do === 'move' || action.do === 'probe')) {
        note(MACHINE_MOVES, direct);
        direct = undefined;
      }
      if (probing && actions.length > 0) {
        const [first] = actions;
        const { x, y, z } = first.do === 'touched' ? first.at : probing.to;
        builder.to(x, y, z, probing.feed, first.do === 'touched' ? 0 : 1);
        lined(line - 1);
        probing = undefined;
      }
      for (const action of actions) {
        if (action.do === 'dwell') dwell += action.seconds;
        else if (action.do === 'spindle') {
          spindle = action.turns;
          turns();
        } else if (action.do === 'bit' && action.number !== bit) {
          bit = action.number;
          bits.push({ number: bit, point: builder.length });
          // Not every controller stops it for a change.
          turns();
        } else if (action.do === 'move' || action.do === 'probe') {
          if (lost.size > 0) {
            note(FROM_UNKNOWN, line);
            continue;
          }
          if (jump) {
            // From nowhere to here: no cut, and no way that anyone knows.
            jump = false;
            builder.rapid(action.to.x, action.to.y, action.to.z);
          }
          if (action.do === 'probe') {
            probing = action;
            continue;
          }
          const { x, y, z } = action.to;
          if (action.rapid) builder.rapid(x, y, z);
          else builder.to(x, y, z, action.feed);
          lined(line);
          if (interpreter.beside) note(LED, line);
        } else if (action.do === 'end') return finish();
      }
    } catch (error) {
      if (error instanceof TooManyMoves)
        throw new BlockError('This program has more than ten million moves; divide it.');
      if (!(error instanceof Refused || error instanceof BlockError)) throw error;
      note(error.message, line);
    }
  }
  return finish();

  function lose(axes: Iterable<string>): void {
    for (const axis of axes) lost.add(axis);
    if (lost.size > 0) jump = builder.length > 0;
  }

  function finish(): ReadProgram {
    if (probing) builder.to(probing.to.x, probing.to.y, probing.to.z, probing.feed);
    lined(line);
    if (builder.length === 0)
      throw new BlockError(
        notes.size
          ? `No move could be read. ${[...notes.values()][0]}`
          : 'This file holds no moves; choose an RS-274 program.',
      );
    return {
      path: builder.done(),
      lines: Uint32Array.from(lineOf),
      beside: Uint8Array.from(beside),
      bits,
      turned,
      dwell,
      notes: [...notes.values()],
    };
  }
}

const AXES = ['X', 'Y', 'Z'];

/** A block without its move: units, distances, plane, feed, speed and bit still hold. */
function modesOf({ words, ...block }: Block): Block {
  return {
    ...block,
    words: words.filter(({ letter, value }) =>
      letter === 'G' ? ![53, 28, 30].includes(value) : !'XYZIJKRABCUVW'.includes(letter),
    ),
  };
}
