/** Nodes that lie this near to the line between their neighbours, in x, y and radius, are left out, mm. */
const THINNING_TOLERANCE = 0.0015;

/** A turn back of less than this, mm, is no branch but two nodes out of order. */
const BACK_AND_FORTH = 0.05;

/** Nodes of a medial axis: centre and radius of a touching circle, mm. */
export interface AxisNodes {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly r: Float64Array;
}

/** Takes out nodes where a chain turns back on itself for a moment: beside a junction they may stand out of order. */
export function straightenChain(chain: number[], { x, y }: AxisNodes): void {
  let kept = 1;
  for (let i = 1; i < chain.length; i++) {
    while (kept > 1) {
      const p = chain[kept - 2];
      const n = chain[kept - 1];
      const ux = x[n] - x[p];
      const uy = y[n] - y[p];
      const vx = x[chain[i]] - x[n];
      const vy = y[chain[i]] - y[n];
      const shorter = Math.min(ux * ux + uy * uy, vx * vx + vy * vy);
      if (ux * vx + uy * vy >= 0 || shorter > BACK_AND_FORTH * BACK_AND_FORTH) break;
      kept--;
    }
    chain[kept++] = chain[i];
  }
  chain.length = kept;
}

/** Appends to `out` the pairs of nodes that are left of a chain by Douglas and Peucker's way, on x, y and radius together. */
export function thinChain(chain: readonly number[], { x, y, r }: AxisNodes, out: number[]): void {
  const stack = [0, chain.length - 1];
  while (stack.length) {
    const hi = stack.pop()!;
    const lo = stack.pop()!;
    const a = chain[lo];
    const b = chain[hi];
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const dr = r[b] - r[a];
    const l2 = dx * dx + dy * dy + dr * dr;
    let worst = THINNING_TOLERANCE * THINNING_TOLERANCE;
    let split = -1;
    for (let i = lo + 1; i < hi; i++) {
      const ex = x[chain[i]] - x[a];
      const ey = y[chain[i]] - y[a];
      const er = r[chain[i]] - r[a];
      let t = l2 > 0 ? (ex * dx + ey * dy + er * dr) / l2 : 0;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const gx = ex - t * dx;
      const gy = ey - t * dy;
      const gr = er - t * dr;
      const d2 = gx * gx + gy * gy + gr * gr;
      if (d2 > worst) {
        worst = d2;
        split = i;
      }
    }
    if (split < 0) {
      if (a !== b || chain.length === 2) out.push(a, b);
    } else stack.push(split, hi, lo, split);
  }
}
