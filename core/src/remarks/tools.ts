import type { Remark } from '../cuts/remark.ts';
import { kindOf } from '../cuts/kinds.ts';
import { toolKindOf } from '../tools/kinds.ts';
import type { Judged } from './judged.ts';

/** Tools of cuts whose sizes contradict each other: what is cut by them would be none of it. */
export function judgeTools({ job }: Judged): Remark[] {
  const used = new Set(job.cuts.flatMap((cut) => [cut.bit, ...(kindOf(cut).clearBits?.(cut as never) ?? [])]));
  return job.bits.flatMap((bit): Remark[] => {
    const text = used.has(bit.id) ? toolKindOf(bit).amiss?.(bit, job.unit) : undefined;
    return text
      ? [{ id: `amiss-${bit.id}`, stop: 'bits', weight: 'wrong', text: `${bit.name}: ${text}`, remedies: [] }]
      : [];
  });
}
