/* eslint max-lines: off -- one walk through a program, with all that makes it go elsewhere than to the next line */
import { type Block, bareLine, blockOf } from './block.ts';
import { BlockError } from './block-error.ts';
import { ExpressionReader } from './expression.ts';
import { Parameters } from './parameters.ts';

/** Calls within each other at most. */
const DEEPEST = 50;

const MOST_REPEATS = 100_000;

/** Lines without a block of their own that are passed at once. */
const MOST_PASSED = 1000;

/** Words of a line that begins with O, behind its number or name. */
const O_WORDS = 'SUB|ENDSUB|CALL|RETURN|IF|ELSEIF|ELSE|ENDIF|WHILE|ENDWHILE|DO|REPEAT|ENDREPEAT|BREAK|CONTINUE';
const O_LINE = new RegExp(`^/?(?:N\\d+)?O(\\d+|<[^<>]{1,60}>)(${O_WORDS})?(.*)$`);

interface Mark {
  /** Its place among them. */
  k: number;
  line: number;
  id: string;
  word: string;
}

interface Return {
  /** Where reading goes on. */
  line: number;
  /** Of a call by M98: where the subprogram begins, and how often it is still to be carried out. */
  again?: { line: number; left: number };
  /** Own parameters of the subprogram, which end with it. */
  scoped: boolean;
  /** Repeats that were going on when it was called. */
  repeats: Map<number, number>;
}

/**
 * A program’s blocks in the order in which they are carried out: subprograms called by M98 and by O-words, repeats,
 * conditions and jumps. NISTIR 6556 has parameters and expressions, the rest goes by common practice; docs/formats/programs.md
 * tells which. What it takes for granted is told once a kind.
 */
export class ProgramFlow {
  readonly parameters: Parameters;
  /** The line that is carried out now, from 0. */
  line = -1;
  private next = 0;
  private steps = 0;
  private readonly calls: Return[] = [];
  /** Lines that begin with O, and where each subprogram begins and ends. */
  private readonly marks: Mark[] = [];
  private readonly at = new Map<number, Mark>();
  private readonly numbered = new Map<string, number>();
  private repeats = new Map<number, number>();
  private begun = false;
  private numbers: Map<number, number> | undefined;
  private done = false;

  /** @param say what is taken for granted, and what cannot be followed, one sentence. @param mostSteps lines that are carried out at most, however often each. */
  constructor(
    private readonly rows: readonly string[],
    private readonly say: (sentence: string) => void,
    private readonly mostSteps: number,
  ) {
    this.parameters = new Parameters((name) => say(`The parameter ${name} is used before it is set; it counts as 0.`));
    for (const [line, row] of rows.entries()) {
      if (!/^[\s/]*(?:[nN][\d\s]*)?[oO]/.test(row)) continue;
      const found = O_LINE.exec(this.bareOf(row));
      if (!found) continue;
      const id = /^\d/.test(found[1]) ? String(Number(found[1])) : found[1];
      const mark = { k: this.marks.length, line, id, word: found[2] ?? '' };
      this.marks.push(mark);
      this.at.set(line, mark);
      if ((mark.word === '' || mark.word === 'SUB') && !this.numbered.has(id)) this.numbered.set(id, line);
    }
  }

  private bareOf(row: string): string {
    try {
      return bareLine(row, true).bare;
    } catch {
      return '';
    }
  }

  /**
   * The next block that is carried out; nothing at the end.
   * @throws {BlockError} for a line that cannot be read; reading goes on behind it.
   */
  block(): FlowBlock | undefined {
    for (let passed = 0; !this.done && this.next < this.rows.length; passed++) {
      // Whoever reads has a turn, whatever a loop does.
      if (passed > MOST_PASSED) return { words: [], skipped: [] };
      this.line = this.next++;
      this.step();
      const row = this.rows[this.line];
      const bare = bareLine(row, true);
      const mark = this.at.get(this.line);
      if (mark) this.follow(mark, O_LINE.exec(bare.bare)![3]);
      else if (!this.jumped(bare.bare)) {
        const block = blockOf(bare, row, true, this.parameters);
        if (
          block &&
          (block.words.length > 0 || block.skipped.length > 0 || block.comment !== undefined || block.sets)
        ) {
          if (block.words.length > 0) this.begun = true;
          for (const { key, value } of block.sets ?? []) this.parameters.set(key, value);
          if (block.slash)
            this.say(
              'Lines with a slash before them (block delete) are read as if that switch were off, and are carried out.',
            );
          return this.called(block);
        }
      }
    }
    return undefined;
  }

  /** @throws {TooLong} */
  private step(): void {
    if (++this.steps > this.mostSteps)
      throw new TooLong(
        `Line ${this.line + 1}: more than ${this.mostSteps.toLocaleString('en')} lines would be carried out; a loop has no end, or the program is to be divided.`,
      );
  }

  /** M98 and M99 leave the block, once what stands beside them is carried out. */
  private called(block: Block): FlowBlock {
    const m = block.words.find(({ letter, value }) => letter === 'M' && (value === 98 || value === 99));
    if (!m) return block;
    const word = (letter: string) => block.words.find((one) => one.letter === letter)?.value;
    const p = word('P');
    const l = word('L') ?? 1;
    if (m.value === 98) {
      const id = p === undefined ? '' : String(p);
      const line = this.numbered.get(id);
      if (line === undefined) {
        this.say(`The subprogram that is called (M98 P${id}) does not stand in this file; what it does is left out.`);
        return { ...block, words: block.words.filter((one) => one !== m), lost: true };
      }
      this.say('M98 calls the subprogram whose O number is P, L times; it ends at M99.');
      if (l > 0) this.call(line + 1, { scoped: false, again: { line: line + 1, left: this.times(l) - 1 } });
    } else this.back(p);
    return { ...block, words: block.words.filter((one) => one !== m && one.letter !== 'P' && one.letter !== 'L') };
  }

  private times(l: number): number {
    if (!Number.isInteger(l) || l < 0 || l > MOST_REPEATS)
      throw new BlockError('A repeat is not a whole number from 0 to 100,000.');
    return l;
  }

  private call(line: number, { scoped, again }: Pick<Return, 'scoped' | 'again'>): void {
    if (this.calls.length >= DEEPEST)
      throw new TooLong(
        `Line ${this.line + 1}: more than 50 subprograms are called within each other; one calls itself.`,
      );
    this.calls.push({ line: this.next, scoped, again, repeats: this.repeats });
    this.repeats = new Map();
    this.next = line;
  }

  /** @param to a line number (N) to go on at (M99 P). */
  private back(to?: number): void {
    const last = this.calls.at(-1);
    if (!last) {
      this.say('M99 would begin the program again from its start; it is read once.');
      this.done = true;
      return;
    }
    if (last.again && last.again.left > 0) {
      last.again.left--;
      this.next = last.again.line;
      return;
    }
    this.calls.pop();
    this.repeats = last.repeats;
    if (last.scoped) this.parameters.leave();
    this.next = last.line;
    if (to !== undefined) this.goTo(to);
  }

  /** IF, GOTO, WHILE and END, which begin a line without a letter of their own. */
  private jumped(bare: string): boolean {
    const found = /^\/?(?:N\d+)?(GOTO|IF|WHILE|DO\d|END\d)/.exec(bare);
    if (!found) return false;
    const word = found[1];
    const reader = new ExpressionReader(bare, found[0].length, this.parameters);
    this.say('IF, GOTO and WHILE are followed as they are commonly meant: GOTO goes to the line with that N number.');
    if (word === 'GOTO') this.goTo(reader.value());
    else if (word === 'IF') this.ifThen(reader, bare);
    else if (word === 'WHILE') {
      if (!reader.value()) this.next = this.endOf(bare.slice(reader.at), this.line) + 1;
    } else if (word.startsWith('END')) this.next = this.beginOf(word.slice(3));
    return true;
  }

  private ifThen(reader: ExpressionReader, bare: string): void {
    const holds = reader.value() !== 0;
    const rest = bare.slice(reader.at);
    if (rest.startsWith('GOTO')) {
      reader.at += 4;
      if (holds) this.goTo(reader.value());
    } else if (rest.startsWith('THEN#')) {
      reader.at += 5;
      const key = reader.name();
      reader.at++;
      const value = reader.value();
      if (holds) this.parameters.set(key, value);
    } else throw new BlockError('What follows IF is neither GOTO nor THEN.');
  }

  private goTo(n: number): void {
    if (!this.numbers) {
      this.numbers = new Map();
      for (const [line, row] of this.rows.entries()) {
        const found = /^\s*\/?\s*[nN]\s*(\d+)/.exec(row);
        if (found && !this.numbers.has(Number(found[1]))) this.numbers.set(Number(found[1]), line);
      }
    }
    const line = this.numbers.get(n);
    if (line === undefined) this.stop(`There is no line N${n} to go to`);
    else this.next = line;
  }

  /** The END of the WHILE at a line, by its DO number. */
  private endOf(rest: string, from: number): number {
    const n = /^DO(\d)/.exec(rest)?.[1];
    for (let line = from + 1; line < this.rows.length && n; line++) {
      this.step();
      if (/[eE]/.test(this.rows[line]) && new RegExp(`^(?:N\\d+)?END${n}`).test(this.bareOf(this.rows[line])))
        return line;
    }
    this.stop('A WHILE has no END');
    return this.rows.length;
  }

  private beginOf(n: string): number {
    for (let line = this.line - 1; line >= 0; line--) {
      this.step();
      if (/[dD]/.test(this.rows[line]) && new RegExp(`DO${n}$`).test(this.bareOf(this.rows[line]))) return line;
    }
    this.stop('An END has no WHILE');
    return this.rows.length;
  }

  private stop(why: string): void {
    this.say(`${why}; the program is not read further.`);
    this.done = true;
  }

  /** A line that begins with O. */
  private follow(mark: Mark, rest: string): void {
    const { id, word } = mark;
    const reader = new ExpressionReader(rest, 0, this.parameters);
    if (word === '') this.heading(mark);
    else if (word === 'SUB') this.next = this.find(mark, ['ENDSUB']).line + 1;
    else if (word === 'ENDSUB' || word === 'RETURN') this.back();
    else if (word === 'CALL') {
      const line = this.numbered.get(id);
      if (line === undefined) {
        this.stop(`The subprogram O${id} does not stand in this file`);
        return;
      }
      const given: number[] = [];
      while (reader.at < rest.length) given.push(reader.value());
      this.call(line + 1, { scoped: true });
      this.parameters.enter(given);
    } else this.loop(mark, reader);
    if (word !== '')
      this.say('Lines that begin with O (sub, call, if, while, repeat) are followed as they are commonly meant.');
  }

  /** A number alone: the program’s heading, or the beginning of another. */
  private heading({ id }: Mark): void {
    if (this.calls.length > 0) this.back();
    else if (this.begun) this.stop(`O${id} begins another program, and the one before it has no end (M30)`);
  }

  private loop(mark: Mark, reader: ExpressionReader): void {
    const { word, line } = mark;
    const skipTo = (words: string[]) => {
      this.next = this.find(mark, words).line + 1;
    };
    if (word === 'IF') this.branch(mark, reader);
    // Reached from within the branch that was taken.
    else if (word === 'ELSEIF' || word === 'ELSE') skipTo(['ENDIF']);
    else if (word === 'WHILE') {
      const begin = this.find(mark, ['DO'], -1);
      // Behind a DO it is the loop’s end.
      if (begin.line >= 0 && this.closes(mark)) {
        if (reader.value()) this.next = begin.line + 1;
      } else {
        const end = this.find(mark, ['ENDWHILE']);
        if (!reader.value()) this.next = end.line + 1;
      }
    } else if (word === 'ENDWHILE') this.next = this.find(mark, ['WHILE'], -1).line;
    else if (word === 'REPEAT') {
      if (!this.repeats.has(line)) this.repeats.set(line, this.times(Math.round(reader.value())));
      const left = this.repeats.get(line)!;
      this.repeats.set(line, left - 1);
      if (left > 0) return;
      this.repeats.delete(line);
      skipTo(['ENDREPEAT']);
    } else if (word === 'ENDREPEAT') this.next = this.find(mark, ['REPEAT'], -1).line;
    else if (word === 'BREAK') {
      for (const [at] of this.repeats) if (this.at.get(at)?.id === mark.id) this.repeats.delete(at);
      const end = this.find(mark, ['ENDWHILE', 'ENDREPEAT', 'WHILE']);
      this.next = end.line + 1;
    } else if (word === 'CONTINUE') this.next = this.find(mark, ['ENDWHILE', 'ENDREPEAT', 'WHILE']).line;
  }

  /** Whether a WHILE ends a DO of its name rather than beginning a loop: no ENDWHILE of its name follows it. */
  private closes(mark: Mark): boolean {
    return !this.marks.some(({ k, id, word }) => k > mark.k && id === mark.id && word === 'ENDWHILE');
  }

  private branch(mark: Mark, reader: ExpressionReader): void {
    if (reader.value()) return;
    let at = mark;
    for (;;) {
      at = this.find(at, ['ELSEIF', 'ELSE', 'ENDIF']);
      this.next = at.line + 1;
      if (this.done || at.word !== 'ELSEIF') return;
      const rest = O_LINE.exec(this.bareOf(this.rows[at.line]))![3];
      if (new ExpressionReader(rest, 0, this.parameters).value()) return;
    }
  }

  /** The next mark of the same name with one of these words, or the last before; without one, reading ends. */
  private find(mark: Mark, words: string[], way: 1 | -1 = 1): Mark {
    for (let k = mark.k + way; k >= 0 && k < this.marks.length; k += way) {
      this.step();
      const one = this.marks[k];
      if (one.id === mark.id && words.includes(one.word)) return one;
    }
    if (way === -1 && words[0] === 'DO') return { k: -1, line: -1, id: mark.id, word: '' };
    this.stop(`O${mark.id} ${mark.word.toLowerCase()} has no ${words.at(-1)!.toLowerCase()}`);
    return { k: this.marks.length, line: this.rows.length, id: mark.id, word: '' };
  }
}

/** A block that is carried out. */
export interface FlowBlock extends Block {
  /** Where the tool is behind it is not known: what it calls does not stand here. */
  lost?: boolean;
}

/** More is carried out than is read here. */
export class TooLong extends BlockError {
  override name = 'TooLong';
}
