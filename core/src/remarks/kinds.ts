import { kindOf } from '../cuts/kinds.ts';
import type { Remark } from '../cuts/remark.ts';
import { cutsOf, type Judged } from './judged.ts';

/** What each cut’s kind says of it. */
export async function judgeKinds(judged: Judged): Promise<Remark[]> {
  const { job, items, cuts, tryCut } = judged;
  const remarks: Remark[] = [];
  for (const { cut, index, result } of cutsOf(judged)) {
    const own = job.bits.find((tool) => tool.id === cut.bit);
    if (result.problem || !own) continue;
    const parts = cuts.filter((part) => part.cut === cut.id);
    remarks.push(...((await kindOf(cut).judge?.({ job, items, cut, index, own, result, parts, tryCut })) ?? []));
  }
  return remarks;
}
