/**
 * Where the halves of an inlay do not fit, as a sentence.
 * @example pinchedWords(1) // 'In one place edges of this inlay lie nearer to each other than the bit is wide, and its halves do not fit there; choose a smaller bit for both.'
 */
export function pinchedWords(places: number): string {
  return `In ${places === 1 ? 'one place' : `${places} places`} edges of this inlay lie nearer to each other than the bit is wide, and its halves do not fit there; choose a smaller bit for both.`;
}
