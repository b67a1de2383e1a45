/** Numbers from 0 to 1 that come again with the same seed (a linear congruence; the factors from Knuth's MMIX). */
export function random(seed: number): () => number {
  let state = (BigInt(seed) * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
  return () => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
    return Number(state >> 33n) / 2 ** 31;
  };
}
