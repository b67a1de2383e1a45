/** One block of RS-274 text: its words in the order written. */
export interface Block {
  words: { letter: string; value: number }[];
  comment?: string;
}

export class BlockError extends Error {
  override name = 'BlockError';
}

/**
 * Reads one line of RS-274 as NISTIR 6556 defines it (§3.3): an optional line number, words of a letter and a number in
 * any order, blanks anywhere outside comments, comments in brackets. Lower case reads as upper case. Expressions and
 * parameters are not taken.
 *
 * @returns undefined for an empty line or a per cent sign alone.
 * @throws {BlockError} with one sentence.
 * @example readBlock('n12 g1 x 1. 5 f200 (in)') // words G 1, X 1.5, F 200 and the comment “in”
 */
export function readBlock(line: string): Block | undefined {
  if (line.length > 256) throw new BlockError('A line is longer than the 256 characters RS-274 allows.');
  let comment: string | undefined;
  let bare = '';
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '(') {
      const end = line.indexOf(')', i);
      const nested = line.indexOf('(', i + 1);
      if (end < 0 || (nested >= 0 && nested < end))
        throw new BlockError(`A comment is not closed in “${line.trim()}”.`);
      comment = line.slice(i + 1, end);
      i = end;
    } else if (line[i] === ';') {
      comment = line.slice(i + 1);
      break;
    } else if (!/\s/.test(line[i])) bare += line[i].toUpperCase();
  }
  if (bare === '' || bare === '%') return comment === undefined ? undefined : { words: [], comment };
  const words: Block['words'] = [];
  const pattern = /([A-Z])([-+]?(?:\d+\.?\d*|\.\d+))/y;
  while (pattern.lastIndex < bare.length) {
    const from = pattern.lastIndex;
    const match = pattern.exec(bare);
    if (!match) throw new BlockError(`“${bare.slice(from)}” cannot be read in “${line.trim()}”.`);
    if (match[1] === 'N' && words.length > 0)
      throw new BlockError(`The line number does not come first in “${line.trim()}”.`);
    if (match[1] !== 'N') words.push({ letter: match[1], value: Number(match[2]) });
  }
  return { words, comment };
}
