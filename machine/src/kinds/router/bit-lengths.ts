/** Two readings closer than this are of one length, mm. */
export const SAME_LENGTH = 0.02;
/** A bit further than this from all its last lengths is asked about, mm. */
const FAR = 3;

/** How far a reading is from the nearest of a bit's last ones, where that is far, mm. */
export function farFromOwn(reading: number, own: readonly number[]): number | undefined {
  if (own.length === 0) return undefined;
  const off = Math.min(...own.map((length) => Math.abs(length - reading)));
  return off > FAR ? off : undefined;
}
