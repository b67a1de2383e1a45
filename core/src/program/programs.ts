import { formatLength } from '../quantity/format.ts';
import { type JobResult, titleOf } from '../job/compute.ts';
import type { Job } from '../job/job.ts';
import { thickest, zeroOf } from '../stock/stock.ts';
import { DIALECTS } from './dialect.ts';
import { type Program, type ProgramCut, writeProgram } from './write.ts';

/** The programs of a job: one for all bits or one for each, by the bench's dialect. Cuts with problems are left out. */
export function programsFor(job: Job, result: JobResult, about: { revision: string; date: string }): Program[] {
  const { stock, unit, bench } = job;
  const dialect = DIALECTS[bench.dialect];
  const cuts: ProgramCut[] = result.cuts.flatMap((made) => {
    const cut = job.cuts.find((c) => c.id === made.id)!;
    const number = job.bits.findIndex((bit) => bit.id === cut.bit);
    if (made.problem || made.path.feed.length === 0) return [];
    return [
      {
        id: cut.id,
        title: titleOf(cut, job),
        bit: { number: number + 1, name: job.bits[number].name },
        path: made.path,
        depth: made.depth,
        feed: cut.feed,
        plunge: cut.plunge,
        speed: cut.speed,
        minutes: made.minutes,
      },
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
    lift: stock.lift,
    minutes: cuts.reduce((sum, cut) => sum + cut.minutes, 0),
  };
  const zero = zeroOf(stock);
  if (dialect.bits === 'one-program') return [writeProgram(heading, cuts, zero, dialect)];
  const groups: ProgramCut[][] = [];
  for (const cut of cuts) {
    if (groups.at(-1)?.[0].bit.number === cut.bit.number) groups.at(-1)!.push(cut);
    else groups.push([cut]);
  }
  return groups.map((group) => ({
    ...writeProgram({ ...heading, minutes: group.reduce((s, c) => s + c.minutes, 0) }, group, zero, dialect),
    bit: group[0].bit.name,
  }));
}

/** Where zero lies, in words: “lower left corner, top of the stock”. */
export function zeroWords({ stock }: Job): string {
  const where = stock.zeroXY === 'centre' ? 'centre' : `${stock.zeroXY.replace('-', ' ')} corner`;
  return `${where}, ${stock.zeroZ === 'stock' ? 'top of the stock' : 'spoilboard'}`;
}
