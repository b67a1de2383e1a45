import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { readCutOptions } from '../../command/src/cut-options.ts';
import { cutToFiles } from '../../command/src/cut.ts';
import { Misuse } from '../../command/src/misuse.ts';
import type { Cut } from '../../core/src/cuts/kinds.ts';
import { random } from '../faults/random.ts';
import { drawingFrom, type Drawn, holesFrom, opened } from './drawings.ts';
import { judge } from './judge.ts';
import { judgeInlay } from './inlay.ts';
import type { Asked } from './asked.ts';
import { settingsFrom } from './settings.ts';

export interface Judged {
  drawn: Drawn;
  asked: Asked;
  /** The sentence with which it was refused. */
  refused?: string;
  findings: string[];
  /** How to see it again. */
  command: string;
}

/** One drawing and one set of settings by chance, cut by the command and judged. The same seed gives the same. */
export async function judged(kind: Cut['kind'], seed: number): Promise<Judged> {
  const dice = random(seed * 7919 + kind.length * 104_729);
  for (let k = 0; k < 5; k++) dice();
  const made = kind === 'drill' ? holesFrom(dice) : drawingFrom(dice);
  const follows = kind === 'line' || kind === 'laser-score';
  // A curve that ends where it began is closed, and is cut beside its line.
  const cutOpen = kind === 'laser-cut' && !/[CQ]/.test(made.svg) && dice() < 0.2;
  const lines = (follows && dice() < 0.6) || cutOpen ? opened(made) : made;
  const asked = settingsFrom(dice, kind);
  const drawn = kind === 'drag' && asked.pattern === 'outline' && dice() < 0.5 ? opened(made) : lines;
  const folder = mkdtempSync(`${tmpdir()}/kerbe-judge-`);
  try {
    writeFileSync(`${folder}/a.svg`, drawn.svg);
    const words = `${kind} ${folder}/a.svg ${asked.options} --out ${folder}/a.nc`.split(/\s+/);
    const command = `KERBE_JUDGE=${kind}:${seed} npx vitest run tests/judge`;
    let remarks: string[];
    try {
      ({ remarks } = await cutToFiles(readCutOptions(words)));
    } catch (error) {
      if (error instanceof Misuse) return { drawn, asked, refused: error.message, findings: [], command };
      return { drawn, asked, findings: [`crashed: ${(error as Error).stack ?? String(error)}`], command };
    }
    const program = (name: string) => readFileSync(`${folder}/${name}.nc`, 'utf8');
    const findings =
      kind === 'inlay'
        ? judgeInlay(program('a-recess'), program('a-part'), drawn, asked, /halves do not fit/.test(remarks.join()))
        : judge(program('a'), drawn, asked);
    return { drawn, asked, findings, command };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
