import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { leftWords } from '@kerbe/core/cuts/left-on-purpose';
import { compute } from '@kerbe/core/compute/compute';
import { titleOf } from '@kerbe/core/cuts/title';
import { bytesFromBase64, JobFileError, readJobFile } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/machines/programs';
import { OwnFault } from '@kerbe/core/schema/own-fault';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { Misuse } from './misuse.ts';

/** `./kerbe make JOB.kerbe.json --out DIR`: writes a job's programs and a report, without a browser or a database. */
export async function make(args: string[]): Promise<void> {
  let parsed;
  try {
    parsed = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' } } });
  } catch (error) {
    throw new Misuse(`${(error as Error).message} Use: ./kerbe make JOB.kerbe.json --out DIR`);
  }
  const [file] = parsed.positionals;
  const { out } = parsed.values;
  if (!file || !out || parsed.positionals.length > 1) throw new Misuse('Use: ./kerbe make JOB.kerbe.json --out DIR');
  if (!existsSync(file)) throw new Misuse(`There is no file ${file}.`);
  let read;
  try {
    read = readJobFile(readFileSync(file, 'utf8'));
  } catch (error) {
    if (error instanceof JobFileError) throw new Misuse(error.message);
    throw error;
  }
  const { job, assets } = read;
  const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const result = await compute(job, resources, await clipperFromDisk());
  const wrong = result.remarks.filter((remark) => remark.weight === 'wrong');
  const withheld = result.remarks.find(({ withholds }) => withholds);
  if (withheld) throw new Misuse(`No program is written: ${withheld.text}`);
  const programs = programsFor(job, result, { revision: 'file', date: new Date().toISOString().slice(0, 10) });
  mkdirSync(out, { recursive: true });
  const names = programs.map((program, index) => {
    const name = programs.length === 1 ? 'program.nc' : `program-${index + 1}.nc`;
    writeFileSync(`${out}/${name}`, program.text);
    return name;
  });
  const report = {
    job: job.name,
    programs: names,
    seconds: Math.round(result.minutes * 60),
    bitChanges: result.bitChanges,
    besideSeconds: Math.round(result.beside.reduce((sum, { before, after }) => sum + before + after, 0) * 60),
    cuts: result.cuts.map((made) => {
      const cut = job.cuts.find((c) => c.id === made.cut)!;
      return {
        title: titleOf(cut, job, made),
        bit: job.bits.find((bit) => bit.id === made.bit)?.name,
        depth_mm: round(made.depth),
        cut_mm: round(made.cutLength),
        link_mm: round(made.linkLength),
        seconds: Math.round(made.minutes * 60),
        problem: made.problem,
      };
    }),
    remarks: result.remarks.map(({ weight, text, remedies }) => ({
      weight,
      text,
      remedies: remedies.map((r) => r.label),
    })),
    left: result.left.flatMap(leftWords),
  };
  writeFileSync(`${out}/report.json`, JSON.stringify(report, null, 2) + '\n');
  for (const remark of wrong) console.error(`Mend before running: ${remark.text}`);
  const fault = result.cuts.find(({ ownFault }) => ownFault);
  if (fault) throw new OwnFault(fault.problem);
  console.log(`Wrote ${names.join(', ') || 'no program'} and report.json to ${out}.`);
}

const round = (mm: number) => Math.round(mm * 1000) / 1000;
