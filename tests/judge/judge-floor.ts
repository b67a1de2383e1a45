import type { Edges } from './edges.ts';
import type { Wood } from './wood.ts';

/** How far a place may lie from where a bit could reach it, and still be asked for, mm. */
const SLIVER = 0.03;

/** All that the smallest bit can reach is cut to the floor. @param beyond how far past the outline the wall is, mm. */
export function judgeFloor(swept: Wood, edges: Edges, deepest: number, radius: number, beyond = 0): string[] {
  const reachable = new Uint8Array(swept.height.length);
  for (let index = 0; index < reachable.length; index++) {
    const [x, y] = swept.place(index);
    if (edges.distance(x, y) < radius + 0.004 || !edges.inside(x, y)) continue;
    swept.under(
      { ax: x, ay: y, az: 0, bx: x, by: y, bz: 0, feed: 1, bit: 1, line: 0 },
      radius + beyond - SLIVER,
      (at) => {
        reachable[at] = 1;
      },
    );
  }
  let left = 0;
  let where = -1;
  for (let index = 0; index < reachable.length; index++)
    if (reachable[index] && swept.height[index] > -deepest + 2e-3) {
      left++;
      where = index;
    }
  if (left === 0) return [];
  const [x, y] = swept.place(where);
  return [
    `leaves ${(left * swept.cell ** 2).toFixed(3)} mm² that the bit can reach, at ${x.toFixed(2)}, ${y.toFixed(2)}`,
  ];
}
