import { formatLength } from '../quantity/format.ts';
import type { CutResult } from '../sequence/cut-result.ts';
import { approachOver } from '../program/approach.ts';
import type { BesideCut } from '../program/between-cuts.ts';
import { kindOf } from '../cuts/kinds.ts';
import { titleOf } from '../cuts/title.ts';
import type { BaseCut } from '../document/cut.ts';
import { sentenceText } from '../fields/sentence.ts';
import type { Job } from '../document/job.ts';
import { type Left, leftWords } from '../cuts/left-on-purpose.ts';
import { thickest, zeroOf } from '../stock/stock.ts';
import { machineKindOf } from './kinds.ts';
import { programCut } from './program-cut.ts';
import { type Program, type ProgramCut, writeProgram } from '../program/write.ts';

/** The programs of a job: one for all bits or one for each, by the bench's dialect. Cuts with problems are left out. */
export function programsFor(
  job: Job,
  result: { cuts: readonly CutResult[]; beside: readonly BesideCut[]; left?: readonly Left[] },
  about: { revision: string; date: string; notes?: readonly string[] },
): Program[] {
  const { stock, unit, bench } = job;
  const dialect = machineKindOf(bench).dialect(bench);
  const cuts: ProgramCut[] = result.cuts.flatMap((made, k) => {
    const cut = job.cuts.find((c) => c.id === made.cut)!;
    if (made.problem || made.path.feed.length === 0) return [];
    return [
      programCut(made, job, result.beside[k], {
        title: titleOf(cut, job, made),
        details: made.clearing ? clearingDetails(made.clearing, unit) : detailsOf(cut, job, made.tabs.length),
        drilling: kindOf(cut).cycle?.(cut, made),
      }),
    ];
  });
  if (cuts.length === 0) return [];
  const heading = {
    job: job.name,
    revision: about.revision,
    date: about.date,
    stock: `${stock.material}, ${formatLength(stock.length, unit)} × ${formatLength(stock.width, unit)} × ${formatLength(thickest(stock), unit)}`,
    zero: `${zeroWords(job)}`,
    bench: bench.name,
    unit,
    notes: [...(about.notes ?? []), ...(result.left ?? []).flatMap(leftWords)],
    lift: stock.lift,
    approach: approachOver(job, result.cuts),
    park: bench.park,
  };
  const zero = zeroOf(stock);
  if (dialect.bits === 'one-program') return [writeProgram(heading, cuts, zero, dialect)];
  const groups: ProgramCut[][] = [];
  for (const cut of cuts) {
    if (groups.at(-1)?.[0].bit.number === cut.bit.number) groups.at(-1)!.push(cut);
    else groups.push([cut]);
  }
  return groups.map((group) => ({
    ...writeProgram(heading, group, zero, dialect),
    bit: group[0].bit.name,
  }));
}

/** The same of a bit that clears before a cut's own. */
export function clearingDetails({ step, depthPerPass }: NonNullable<CutResult['clearing']>, unit: Job['unit']): string {
  return `at ${formatLength(step, unit, 3)}, ${formatLength(depthPerPass, unit, 3)} a pass`;
}

/** Settings that someone needs two months later, for a program’s heading; see `CutKind.heading`. */
export function detailsOf(cut: BaseCut, { unit }: Pick<Job, 'unit'>, tabs: number): string {
  return sentenceText(kindOf(cut).heading(cut, tabs === 1 ? '1 tab' : `${tabs} tabs`, unit), unit);
}

/** Where zero lies, in words: “lower left corner, top of the stock”. */
export function zeroWords({ stock }: Job): string {
  const where = stock.zeroXY === 'centre' ? 'centre' : `${stock.zeroXY.replace('-', ' ')} corner`;
  return `${where}, ${stock.zeroZ === 'stock' ? 'top of the stock' : 'spoilboard'}`;
}
