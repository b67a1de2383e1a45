import jsonPatch from 'fast-json-patch';

/**
 * Whether a change of a document goes on with the one before it, so that one step takes both back: it changes nothing but what
 * that changed, and neither puts something into a list nor takes something out of one.
 *
 * @param states before both, between them, and after both
 * @example a cut made 4 and then 5 mm deep: one step; a cut added and then made 5 mm deep: two
 */
export function sameStep(...[first, second, third]: [object, object, object]): boolean {
  const [before, now] = [placesOf(first, second), placesOf(second, third)];
  return before !== undefined && now !== undefined && [...now].every((place) => before.has(place));
}

/** Which parts of a document two states of it differ in, `/cuts/1` or `/stock/length`; undefined where something was added to a list or removed. */
function placesOf(before: object, after: object): Set<string> | undefined {
  const places = new Set<string>();
  for (const { op, path } of jsonPatch.compare(before, after)) {
    if (op !== 'replace' && /\/\d+$/.test(path)) return undefined;
    places.add(path.split('/', 3).join('/'));
  }
  return places;
}
