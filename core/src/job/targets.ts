import type { Target } from './job.ts';

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
  const before = targets.find((t) => t.item === item)?.shapes ?? [];
  const chosen = new Set(before === 'all' ? Array.from({ length: count }, (_, i) => i) : before);
  if (!chosen.delete(shape)) chosen.add(shape);
  const rest = targets.filter((t) => t.item !== item);
  if (chosen.size === 0) return rest;
  return [...rest, { item, shapes: chosen.size === count ? 'all' : [...chosen].sort((a, b) => a - b) }];
}
