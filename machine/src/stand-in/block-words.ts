/** A block that this controller does not obey; the message is one sentence. */
export class NotObeyed extends Error {
  override name = 'NotObeyed';
}

/**
 * The modal groups of NISTIR 6556, table 4, as far as this controller knows their words. Group 0 holds words that work
 * in their own block only; two of one group in one block are refused.
 */
export const G_GROUP = new Map<number, number>();
for (const [group, words] of [
  [0, [4, 10, 28, 30, 53, 92, 92.1]],
  [1, [0, 1, 2, 3, 38.2, 80, 81, 82, 83]],
  [2, [17, 18, 19]],
  [3, [90, 91]],
  [5, [94]],
  [6, [20, 21]],
  [7, [40, 41, 42]],
  [8, [49]],
  [10, [98, 99]],
  [12, [54, 55, 56, 57, 58, 59]],
  [13, [61, 61.1, 64]],
] as [number, number[]][])
  for (const word of words) G_GROUP.set(word, group);
export const M_GROUP = new Map<number, number>();
for (const [group, words] of [
  [4, [0, 1, 2, 30, 60]],
  [6, [6]],
  [7, [3, 4, 5]],
  [8, [7, 8, 9]],
  [9, [48, 49]],
] as [number, number[]][])
  for (const word of words) M_GROUP.set(word, group);

const LONGEST_LINE = 256;

/** The words of a line without blanks, comments, line number and block delete. @throws {NotObeyed} */
export function split(line: string): [letter: string, value: number][] {
  if (line.length > LONGEST_LINE) throw new NotObeyed(`A line is longer than the ${LONGEST_LINE} characters allowed.`);
  let text = '';
  let inside = false;
  for (const c of line) {
    if (inside) {
      if (c === '(') throw new NotObeyed('A comment stands inside another.');
      if (c === ')') inside = false;
    } else if (c === '(') inside = true;
    else if (c === ';') break;
    else if (c > ' ') text += c.toUpperCase();
  }
  if (inside) throw new NotObeyed('A comment is not closed.');
  if (text === '%') return [];
  const out: [string, number][] = [];
  let rest = text;
  while (rest.length > 0) {
    const word = /^([A-Z])([+-]?(?:\d+\.?\d*|\.\d+))/.exec(rest);
    if (!word) throw new NotObeyed(`“${rest.slice(0, 20)}” cannot be read.`);
    rest = rest.slice(word[0].length);
    if (word[1] === 'N') {
      if (out.length > 0 || rest.length + word[0].length !== text.length)
        throw new NotObeyed('The line number does not come first.');
      continue;
    }
    out.push([word[1], Number(word[2])]);
  }
  return out;
}
