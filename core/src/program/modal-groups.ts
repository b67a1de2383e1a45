/** Words that exclude each other in one block, and what they set (NISTIR 6556, table 4). */
interface ModalGroup {
  sets: string;
  /** The meaning of all that follows hangs on it. */
  lasting: boolean;
  words: readonly number[];
}

const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, k) => from + k);

/** G80 is left out: the safe line that most programs begin with has it beside G0. */
const G_GROUPS: readonly ModalGroup[] = [
  { sets: 'kinds of motion', lasting: false, words: [0, 1, 2, 3, 38.2, 73, 76, ...range(81, 89)] },
  { sets: 'planes', lasting: true, words: [17, 18, 19] },
  { sets: 'units', lasting: true, words: [20, 21] },
  { sets: 'sides of the way', lasting: false, words: [40, 41, 42] },
  { sets: 'scales', lasting: true, words: [50, 51] },
  { sets: 'work coordinate systems', lasting: true, words: [...range(54, 59), 59.1, 59.2, 59.3] },
  { sets: 'rotations', lasting: true, words: [68, 69] },
  { sets: 'ways to count', lasting: true, words: [90, 91] },
  { sets: 'ways to count arc centres', lasting: true, words: [90.1, 91.1] },
  { sets: 'meanings of F', lasting: true, words: [93, 94, 95] },
  { sets: 'retracts of a drilling cycle', lasting: false, words: [98, 99] },
  { sets: 'words that work in their own block only', lasting: false, words: [4, 10, 28, 30, 92, 92.1, 92.2, 92.3] },
];
const M_GROUPS: readonly ModalGroup[] = [
  { sets: 'ends or pauses', lasting: false, words: [0, 1, 2, 30, 60] },
  { sets: 'states of the spindle', lasting: false, words: [3, 4, 5] },
];

/** Two words of one block that exclude each other. */
export interface Clash {
  sentence: string;
  /** Nothing that follows can be understood without knowing which of the two holds. */
  lasting: boolean;
}

/**
 * Two different words of one modal group in one block; nothing where there are none.
 *
 * @example modalClash([90, 91], [])?.lasting // true
 */
export function modalClash(gs: readonly number[], ms: readonly number[]): Clash | undefined {
  for (const [letter, groups, words] of [
    ['G', G_GROUPS, gs],
    ['M', M_GROUPS, ms],
  ] as const) {
    if (words.length < 2) continue;
    for (const group of groups) {
      const [first, second] = [...new Set(words.filter((word) => group.words.includes(word)))];
      if (second === undefined) continue;
      const sentence =
        group.sets === 'kinds of motion'
          ? `Two kinds of motion stand in one block (${letter}${first} and ${letter}${second}).`
          : `${letter}${first} and ${letter}${second} stand in one block; write the one that is meant.`;
      return { sentence, lasting: group.lasting };
    }
  }
  return undefined;
}
