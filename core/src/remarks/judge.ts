import { judgeArtwork } from './artwork.ts';
import { judgeDepth } from './depth.ts';
import { judgeHolding } from './holding.ts';
import { judgeInlays } from './inlay.ts';
import { judgeMachine } from './machine.ts';
import { judgeOrder } from './order.ts';
import type { Judged, Remark } from './remark.ts';
import { judgeWidth } from './width.ts';

/** Judges a job by every rule; what must be mended comes first. */
export async function judge(judged: Judged): Promise<Remark[]> {
  const remarks = [
    ...(await judgeArtwork(judged)),
    ...judgeDepth(judged),
    ...(await judgeWidth(judged)),
    ...judgeInlays(judged),
    ...judgeHolding(judged),
    ...judgeMachine(judged),
    ...judgeOrder(judged),
  ];
  return remarks.sort((a, b) => Number(a.weight === 'advice') - Number(b.weight === 'advice'));
}
