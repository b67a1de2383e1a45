import { judgeArtwork } from './artwork.ts';
import { judgeDepth } from './depth.ts';
import { judgeUneven } from './uneven.ts';
import { judgeHolding } from './holding.ts';
import { judgeKinds } from './kinds.ts';
import { judgeMachine } from './machine.ts';
import { judgeOrder } from './order.ts';
import { judgeSettings } from './settings.ts';
import { judgeTools } from './tools.ts';
import type { Remark } from '../cuts/remark.ts';
import type { Judged } from './judged.ts';

/** Judges a job by every rule; what must be mended comes first. */
export async function judge(judged: Judged): Promise<Remark[]> {
  const remarks = [
    ...(await judgeArtwork(judged)),
    ...judgeTools(judged),
    ...judgeSettings(judged),
    ...judgeDepth(judged),
    ...judgeUneven(judged),
    ...(await judgeKinds(judged)),
    ...judgeHolding(judged),
    ...judgeMachine(judged),
    ...judgeOrder(judged),
  ];
  const rank = ({ weight, withholds }: Remark) => (withholds ? 0 : weight === 'wrong' ? 1 : 2);
  return remarks.sort((a, b) => rank(a) - rank(b));
}
