import { judgeArtwork } from './artwork.ts';
import { judgeDepth } from './depth.ts';
import { judgeHolding } from './holding.ts';
import { judgeKinds } from './kinds.ts';
import { judgeMachine } from './machine.ts';
import { judgeOrder } from './order.ts';
import type { Remark } from '../cuts/remark.ts';
import type { Judged } from './judged.ts';

/** Judges a job by every rule; what must be mended comes first. */
export async function judge(judged: Judged): Promise<Remark[]> {
  const remarks = [
    ...(await judgeArtwork(judged)),
    ...judgeDepth(judged),
    ...(await judgeKinds(judged)),
    ...judgeHolding(judged),
    ...judgeMachine(judged),
    ...judgeOrder(judged),
  ];
  return remarks.sort((a, b) => Number(a.weight === 'advice') - Number(b.weight === 'advice'));
}
