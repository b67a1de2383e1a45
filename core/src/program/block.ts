import { BlockError } from './block-error.ts';
import { ExpressionReader } from './expression.ts';
import type { Parameters } from './parameters.ts';

/** One block of RS-274 text: its words in the order written. */
export interface Block {
  words: { letter: string; value: number }[];
  comment?: string;
  /** What could not be read, where that is passed over: a letter whose number is no number, and its like. */
  skipped: string[];
  /** A slash stands before it: left out where the controller’s switch for block delete is on. */
  slash?: boolean;
  /** Parameters that it sets once it is read, in order. */
  sets?: { key: number | string; value: number }[];
}

/** Where reading goes on behind what cannot be read. */
const NEXT_WORD = /[A-Z][-+]?(?:\d|\.\d)/;

/** Characters of a line (NISTIR 6556 §3.3.1). */
const LONGEST = 256;

/** Longer than this no line of a program from elsewhere is. */
const LONGEST_FOREIGN = 20_000;

/** A line without its comments and blanks, in capitals. */
export interface BareLine {
  bare: string;
  comment?: string;
  /** Comments that are not closed, where that is passed over. */
  skipped: string[];
}

/**
 * Takes comments and blanks off a line.
 * @param foreign a comment that is not closed is passed over, and a line may be long.
 * @throws {BlockError} with one sentence.
 * @example bareLine('n12 g1 x 1. 5 (in)').bare // 'N12G1X1.5'
 */
export function bareLine(line: string, foreign = false): BareLine {
  if (line.length > LONGEST && !(foreign && line.length < LONGEST_FOREIGN))
    throw new BlockError('A line is longer than the 256 characters RS-274 allows.');
  // Most lines of a program have no comment.
  if (!/[(;]/.test(line)) return { bare: line.replace(/\s+/g, '').toUpperCase(), skipped: [] };
  let comment: string | undefined;
  const skipped: string[] = [];
  let bare = '';
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '(') {
      const end = line.indexOf(')', i);
      const nested = line.indexOf('(', i + 1);
      if (end < 0 || (nested >= 0 && nested < end)) {
        if (!foreign) throw new BlockError(`A comment is not closed in “${line.trim()}”.`);
        skipped.push(line.slice(i).trim());
        if (end < 0) break;
      }
      comment = line.slice(i + 1, end);
      i = end;
    } else if (line[i] === ';') {
      comment = line.slice(i + 1);
      break;
    } else if (!/\s/.test(line[i])) bare += line[i].toUpperCase();
  }
  return { bare, comment, skipped };
}

/**
 * Reads one line of RS-274 as NISTIR 6556 defines it (§3.3): an optional line number, words of a letter and a number in
 * any order, blanks anywhere outside comments, comments in brackets. Lower case reads as upper case.
 *
 * @param foreign of a program for another controller: what cannot be read is listed, not thrown, and a line may be long.
 * @param parameters with them a slash before a block, parameters and expressions are read (NISTIR 6556 §3.3.2), in a
 *   program for another controller only.
 * @returns undefined for an empty line or a per cent sign alone.
 * @throws {BlockError} with one sentence; of another controller’s program for expressions without a value.
 * @example readBlock('n12 g1 x 1. 5 (in)').words // [{ letter: 'G', value: 1 }, { letter: 'X', value: 1.5 }]
 */
export function readBlock(line: string, foreign = false, parameters?: Parameters): Block | undefined {
  return blockOf(bareLine(line, foreign), line, foreign, parameters);
}

/** The block of a line without comments and blanks; see {@link readBlock}. */
export function blockOf(
  { bare, comment, skipped }: BareLine,
  line: string,
  foreign: boolean,
  parameters?: Parameters,
): Block | undefined {
  if (bare === '' || bare === '%')
    return comment === undefined && skipped.length === 0 ? undefined : { words: [], comment, skipped };
  if (parameters && /[#[/]/.test(bare)) return withValues(bare, comment, skipped, parameters);
  const words: Block['words'] = [];
  const pattern = /([A-Z])([-+]?(?:\d+\.?\d*|\.\d+))/y;
  while (pattern.lastIndex < bare.length) {
    const from = pattern.lastIndex;
    const match = pattern.exec(bare);
    if (!match) {
      if (!foreign) throw new BlockError(`“${bare.slice(from)}” cannot be read in “${line.trim()}”.`);
      pattern.lastIndex = skip(bare, from, skipped);
      continue;
    }
    if (!Number.isFinite(Number(match[2]))) {
      if (!foreign) throw new BlockError(`The number of “${match[1]}” in a line is too large.`);
      skipped.push(`${match[0].slice(0, 12)}…`);
      continue;
    }
    if (match[1] === 'N' && words.length > 0 && !foreign)
      throw new BlockError(`The line number does not come first in “${line.trim()}”.`);
    if (match[1] !== 'N') words.push({ letter: match[1], value: Number(match[2]) });
  }
  return { words, comment, skipped };
}

/** Lists what cannot be read from here on, and says where reading goes on. */
function skip(bare: string, from: number, skipped: string[]): number {
  const next = NEXT_WORD.exec(bare.slice(from + 1));
  const to = next ? from + 1 + next.index : bare.length;
  skipped.push(bare.slice(from, to));
  return to;
}

/** A block with a slash, parameters or expressions; what it sets counts only for the blocks behind it. */
function withValues(bare: string, comment: string | undefined, skipped: string[], parameters: Parameters): Block {
  const words: Block['words'] = [];
  const sets: NonNullable<Block['sets']> = [];
  const slash = /^(?:N\d+)?\/\d?/.exec(bare);
  const reader = new ExpressionReader(bare, slash ? slash[0].length : 0, parameters);
  while (reader.at < bare.length) {
    const from = reader.at;
    if (bare[from] === '#') {
      reader.at++;
      const key = reader.name();
      if (bare[reader.at] !== '=') throw new BlockError('A parameter stands where a word or a setting should.');
      reader.at++;
      sets.push({ key, value: reader.value() });
      continue;
    }
    reader.at++;
    if (/[A-Z]/.test(bare[from]) && reader.ahead) {
      const value = reader.value();
      if (bare[from] !== 'N') words.push({ letter: bare[from], value });
    } else reader.at = skip(bare, from, skipped);
  }
  return { words, comment, skipped, slash: slash !== null, sets };
}
