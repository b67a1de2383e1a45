import { readBlock } from './block.ts';
import { type Action, Interpreter, type Modes } from './interpreter.ts';

const AXIS_OF = new Map<string, 'x' | 'y' | 'z'>([
  ['X', 'x'],
  ['Y', 'y'],
  ['Z', 'z'],
]);

/** Follows a program line by line: what each line does, and which modes hold after it. */
export class ProgramFollower {
  private readonly interpreter = new Interpreter();
  /** The last comment, as a program's prompt stands before its pause. */
  remark = '';
  /** Turns a minute that the program has the spindle make now; 0 where it stands. */
  spindle = 0;
  /** The words that have the spindle turn, and a relay be switched on, where they are: M3, M4; M7, M8. */
  turnedBy: string | undefined;
  relay: string | undefined;
  /** Axes whose place is known from the program. */
  readonly known = { x: false, y: false, z: false };
  /** Whether an M6 of the program is in this line. */
  changes = false;
  /** Whether it waits for someone in this line (M0, M1, M60). */
  pauses = false;
  ended = false;
  /** Axes that this line names, and whether it does so in machine coordinates (G53). */
  named: ('x' | 'y' | 'z')[] = [];
  direct = false;

  /** @param from modes to begin with, where not at the program's first line. */
  constructor(from?: Modes) {
    if (from) this.interpreter.modes = from;
  }

  get modes(): Modes {
    return this.interpreter.modes;
  }

  /** On which side of its way the controller leads the tool from here on. */
  get beside(): 'left' | 'right' | undefined {
    return this.interpreter.beside;
  }

  /** @throws {import('./refused.ts').Refused | import('./block-error.ts').BlockError} with one sentence. */
  take(line: string): Action[] {
    this.changes = this.pauses = this.direct = false;
    this.named = [];
    const block = readBlock(line);
    if (!block) return [];
    if (block.comment) this.remark = block.comment.trim();
    const actions = this.interpreter.actions(block);
    for (const { letter, value } of block.words) {
      if (letter === 'M') this.noteSwitch(value);
      const axis = AXIS_OF.get(letter);
      if (axis) {
        this.named.push(axis);
        this.known[axis] = true;
      }
      if (letter === 'G' && value === 53) this.direct = true;
    }
    const said = block.words.find(({ letter }) => letter === 'S');
    if (said && this.turnedBy) this.spindle = said.value;
    for (const action of actions) {
      if (action.do === 'spindle') this.spindle = action.turns;
      else if (action.do === 'bit') this.changes = true;
      else if (action.do === 'pause') this.pauses = true;
      else if (action.do === 'end') this.ended = true;
    }
    return actions;
  }

  private noteSwitch(word: number): void {
    if (word === 3 || word === 4) this.turnedBy = `M${word}`;
    else if (word === 5) this.turnedBy = undefined;
    else if (word === 7 || word === 8) this.relay = `M${word}`;
    else if (word === 9) this.relay = undefined;
  }
}

/**
 * A block that states every mode anew, so that what was said to the machine in between cannot change how the next
 * line is read.
 *
 * @example modeWords({ inch: true, incremental: false, system: 0 }) // 'G17 G20 G90 G94 G54'
 */
export function modeWords({ inch, incremental, system }: Modes): string {
  return `G17 ${inch ? 'G20' : 'G21'} ${incremental ? 'G91' : 'G90'} G94 G${54 + system}`;
}

/**
 * A line that continues a motion from before, with that motion's word written into it; other lines as they are.
 *
 * @param power the S word that goes on, where it is a word of moves and this line says none.
 * @example withMotion('N40 X10 Y5', 1) // 'N40 G1 X10 Y5'
 */
export function withMotion(line: string, motion: number | undefined, power?: number): string {
  if (motion === undefined || motion > 3) return line;
  const block = readBlock(line);
  if (!block) return line;
  const said = power === undefined || block.words.some(({ letter }) => letter === 'S') ? '' : ` S${power}`;
  const words = block.words.map(({ letter, value }) => letter + value);
  const named = words.some((word) => /^G(0|1|2|3|38\.2|80|81|82|83|4|10|28|30)$/.test(word));
  const moves = block.words.some(({ letter }) => 'XYZIJK'.includes(letter));
  return named || !moves
    ? line
    : line.replace(/^(\s*[nN]\s*\d+)?\s*/, (number) => `${number.trim()} G${motion} `).trim() + said;
}
