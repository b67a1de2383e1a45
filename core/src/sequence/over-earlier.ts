import type { Job } from '../document/job.ts';
import { piercingMoved } from '../motion/piercing.ts';
import { KEEP_OUT_ROOM } from '../stock/keep-out.ts';
import { clearLinks } from './clear-links.ts';
import { type CutResult, retimed } from './cut-result.ts';

/** Wider than any bench, mm: what lies free may lie anywhere. */
const ANYWHERE = { id: 'freed', kind: 'pin' as const, x: -10_000, y: -10_000, length: 20_000, width: 20_000 };

/**
 * Cuts in their order, in which none goes low over what one before it has freed: the links of all but the first of those that
 * free something go over as high as that wants. Within a cut its own kind sees to it.
 *
 * @param pierceSeconds what the bench takes at each pierce, s.
 */
export function overEarlier(
  cuts: readonly CutResult[],
  bench: Pick<Job['bench'], 'limits'>,
  post: { pierceSeconds?: number },
): CutResult[] {
  let over = 0;
  return cuts.map((cut) => {
    const { approach, path, pierce, dwells } = cut;
    if (approach === undefined || path.feed.length === 0) return cut;
    const high = Math.max(over, approach);
    const first = over === 0;
    over = high;
    if (first) return cut;
    const lifted = clearLinks(path, {
      keepOuts: [{ ...ANYWHERE, height: high - KEEP_OUT_ROOM }],
      stock: { length: 0, width: 0 },
      radius: 0,
      limits: bench.limits,
      atLeast: high,
    });
    return retimed(
      {
        ...cut,
        path: lifted.path,
        approach: high,
        ...(pierce && { pierce: piercingMoved(pierce, lifted.pointNow) }),
        ...(dwells && { dwells: { ...dwells, points: dwells.points.map(lifted.pointNow) } }),
      },
      bench,
      post,
    );
  });
}
