import { Told } from '../schema/told.ts';

/** One block of RS-274 text: its words in the order written. */
export interface Block {
  words: { letter: string; value: number }[];
  comment?: string;
  /** What could not be read, where that is passed over: a letter whose number is no number, and its like. */
  skipped: string[];
}

export class BlockError extends Told {
  override name = 'BlockError';
}

/** Where reading goes on behind what cannot be read. */
const NEXT_WORD = /[A-Z][-+]?(?:\d|\.\d)/;

/** Characters of a line (NISTIR 6556 §3.3.1). */
const LONGEST = 256;

/** Longer than this no line of a program from elsewhere is. */
const LONGEST_FOREIGN = 20_000;

/**
 * Reads one line of RS-274 as NISTIR 6556 defines it (§3.3): an optional line number, words of a letter and a number in
 * any order, blanks anywhere outside comments, comments in brackets. Lower case reads as upper case. Expressions and
 * parameters are not taken.
 *
 * @param foreign of a program for another controller: what cannot be read is listed, not thrown, and a line may be long.
 * @returns undefined for an empty line or a per cent sign alone.
 * @throws {BlockError} with one sentence.
 * @example readBlock('n12 g1 x 1. 5 (in)').words // [{ letter: 'G', value: 1 }, { letter: 'X', value: 1.5 }]
 */
export function readBlock(line: string, foreign = false): Block | undefined {
  if (line.length > LONGEST && !(foreign && line.length < LONGEST_FOREIGN))
    throw new BlockError('A line is longer than the 256 characters RS-274 allows.');
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
  if (bare === '' || bare === '%')
    return comment === undefined && skipped.length === 0 ? undefined : { words: [], comment, skipped };
  const words: Block['words'] = [];
  const pattern = /([A-Z])([-+]?(?:\d+\.?\d*|\.\d+))/y;
  while (pattern.lastIndex < bare.length) {
    const from = pattern.lastIndex;
    const match = pattern.exec(bare);
    if (!match) {
      if (!foreign) throw new BlockError(`“${bare.slice(from)}” cannot be read in “${line.trim()}”.`);
      const next = NEXT_WORD.exec(bare.slice(from + 1));
      const to = next ? from + 1 + next.index : bare.length;
      skipped.push(bare.slice(from, to));
      pattern.lastIndex = to;
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
