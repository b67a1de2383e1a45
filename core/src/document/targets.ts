import type { Target } from './cut.ts';

/** Whether some targets take in a shape of an item. `includesShape([{ item: 'a', shapes: 'all' }], 'a', 3)` is true. */
export function includesShape(targets: readonly Target[], item: string, shape: number): boolean {
  return targets.some((t) => t.item === item && (t.shapes === 'all' || t.shapes.includes(shape)));
}

/**
 * Adds a shape to the targets of a cut, or takes it out; an item all of whose shapes are chosen counts as whole.
 *
 * @param count how many shapes the item has.
 * @example toggleShape([{ item: 'a', shapes: 'all' }], 'a', 1, 3) // [{ item: 'a', shapes: [0, 2] }]
 */
export function toggleShape(targets: readonly Target[], item: string, shape: number, count: number): Target[] {
  return chooseShapes(targets, item, [shape], !includesShape(targets, item, shape), count);
}

/**
 * Adds some shapes of an item to the targets of a cut, such as a layer's, or takes them out.
 *
 * @param count how many shapes the item has.
 * @example chooseShapes([{ item: 'a', shapes: [0] }], 'a', [1, 2], true, 3) // [{ item: 'a', shapes: 'all' }]
 */
export function chooseShapes(
  targets: readonly Target[],
  item: string,
  shapes: readonly number[],
  on: boolean,
  count: number,
): Target[] {
  const before = targets.find((t) => t.item === item)?.shapes ?? [];
  const chosen = new Set(before === 'all' ? Array.from({ length: count }, (_, i) => i) : before);
  for (const shape of shapes)
    if (on) chosen.add(shape);
    else chosen.delete(shape);
  const rest = targets.filter((t) => t.item !== item);
  if (chosen.size === 0) return rest;
  return [...rest, { item, shapes: chosen.size === count ? 'all' : [...chosen].sort((a, b) => a - b) }];
}
