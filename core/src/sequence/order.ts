export interface Ranked {
  rank: number;
  bit: string;
}

/** Parts in the trade’s order; among equals those with the bit that is in come first, then as the job lists them. */
export function orderParts<T extends Ranked>(parts: readonly T[]): T[] {
  const rest = [...parts];
  const out: T[] = [];
  while (rest.length) {
    const lowest = Math.min(...rest.map((part) => part.rank));
    const bit = out.at(-1)?.bit;
    const same = rest.findIndex((part) => part.rank === lowest && part.bit === bit);
    const pick = same >= 0 ? same : rest.findIndex((part) => part.rank === lowest);
    out.push(...rest.splice(pick, 1));
  }
  return out;
}
