import { existsSync, readFileSync } from 'node:fs';
import { measurePath } from '@kerbe/core/motion/path';
import { planMotion } from '@kerbe/core/motion/plan';
import { BlockError } from '@kerbe/core/program/block-error';
import { type ReadProgram, readProgram } from '@kerbe/core/program/read';
import { usualBench } from './bench-limits.ts';
import { Misuse } from './misuse.ts';

/** `./kerbe time PROGRAM.nc`: how long any RS-274 program takes on the demo shop's router. Prints one JSON object. */
export function time(args: string[]): void {
  if (args.length !== 1) throw new Misuse('Use: ./kerbe time PROGRAM.nc');
  const program = programFrom(args[0]);
  const { cut, link, lowest, lifts } = measurePath(program.path);
  const round = (v: number) => Math.round(v * 1000) / 1000;
  console.log(
    JSON.stringify({
      seconds: round(planMotion(program.path, usualBench().limits).minutes * 60 + program.dwell),
      moves: program.path.feed.length - 1,
      cut_mm: round(cut),
      link_mm: round(link),
      lifts,
      deepest: round(-lowest),
      bits: program.bits.map(({ number }) => number),
      whole: program.whole,
      notes: program.notes,
    }),
  );
}

/** Reads a program file. @throws {Misuse} with one sentence. */
export function programFrom(file: string): ReadProgram {
  if (!existsSync(file)) throw new Misuse(`There is no file ${file}.`);
  try {
    return readProgram(readFileSync(file, 'utf8'));
  } catch (error) {
    if (error instanceof BlockError) throw new Misuse(error.message);
    throw error;
  }
}
