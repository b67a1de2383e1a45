import type { Bounds } from './outline.ts';

/**
 * Numbers of boxes that overlap, directly or by way of others, swept from left to right.
 *
 * @param margin boxes nearer to each other than this count as overlapping, mm.
 * @example boxGroups([boxAt(0), boxAt(1), boxAt(9)]) // [[0, 1], [2]], with boxes 2 mm wide
 */
export function boxGroups(boxes: readonly Bounds[], margin = 0): number[][] {
  const parent = boxes.map((_, i) => i);
  const root = (i: number) => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  const order = boxes.map((_, i) => i).sort((a, b) => boxes[a].minX - boxes[b].minX);
  let open: number[] = [];
  for (const i of order) {
    const box = boxes[i];
    open = open.filter((k) => boxes[k].maxX + margin >= box.minX);
    for (const k of open)
      if (boxes[k].maxY + margin >= box.minY && boxes[k].minY - margin <= box.maxY) parent[root(i)] = root(k);
    open.push(i);
  }
  const groups = new Map<number, number[]>();
  boxes.forEach((_, i) => {
    const r = root(i);
    const group = groups.get(r);
    if (group) group.push(i);
    else groups.set(r, [i]);
  });
  return [...groups.values()];
}
