import { readFileSync } from 'node:fs';
import { beforeAll, expect, test } from 'vitest';
import { compute } from '../core/src/compute/compute.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { BlockError } from '../core/src/program/block-error.ts';
import { checkProgram } from '../core/src/program/check.ts';
import { programsFor } from '../core/src/machines/programs.ts';
import { readProgram } from '../core/src/program/read.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';
import { programFacts } from '../machine/src/runner/program-facts.ts';
import { type Dictionary, mutated, oneOf, upTo } from './faults/mutants.ts';
import { random } from './faults/random.ts';

// Programs from elsewhere come as files of any content: each is read, or refused with a sentence, and the runner's own
// look through a program says what a controller would not follow. `./kerbe soak --fuzz` reads 20,000.
const COUNT = Number(process.env.KERBE_MUTANTS ?? 120);
const SEED = Number(process.env.KERBE_SEED ?? 1);

const NC: Dictionary = {
  words: [
    'G1X1e9', 'G2 I1e6 J0', 'G3 R1e8 X1', 'G2 X0 Y0 R-1', 'G83 Z-1000 R5 Q.0001', 'G81 Z-5 R5', 'G80', 'G91', 'G20', 'G21', 'G17', 'G18', 'G92 X1', 'G10 L2 P1 X1e99',
    'G53 G0 Z0', 'G28', 'M6 T99', 'M0', 'M30', 'M2', '%', 'N10', '(', ')', ';', '#1=5', 'O100', 'M98 P100', 'M99', 'o1 while [1]', 'o1 endwhile', 'o100 call [1]', 'GOTO 50', 'X[1/0]', '#[#1]=#2', 'G91.1', 'G90.1', 'G73', 'G68 R45', 'G51 P-3', 'L0', '/', 'F0', 'F-5', 'S1e9', 'X', '--1', 'G', 'G1.5', 'G38.2 Z-5', 'G4 P1e12', '\n'.repeat(50),
  ],
  nest: ['(', ')'],
}; // prettier-ignore

/** What programs from other hands hold: subprograms, parameters, loops, cycles, turned and scaled. */
const OTHERS = [
  'O1 (MAIN)\nG21 G90\nG0 X0 Y0 Z5\nF300\nM98 P100 L3\nG0 Y5\nM30\nO100\nG91 G1 X2\nG90\nM99',
  'o100 sub\nG1 X#1 Y#2 F300\no100 endsub\nG21 G90\nG0 X0 Y0 Z0\n#1=1\no1 while [#1 LT 4]\no100 call [#1*3] [#1**2]\n#1=[#1+1]\no1 endwhile\no2 repeat [3]\nG91 G0 Z1\nG90\no2 endrepeat\no3 if [#1 EQ 4]\nG0 X0\no3 else\nG0 Y0\no3 endif\nM2',
  'G21 G90\nG0 X0 Y0 Z9\n#1=0\nWHILE [#1 LT 3] DO1\nG91 G0 X1\nG90\n#1=[#1+1]\nEND1\nIF [#1 EQ 3] THEN #2=8\nIF [#1 GT 2] GOTO 50\nG0 Y99\nN50 G0 Y#2\nM30',
  'G21 G90\nG0 X0 Y0 Z5\nF400\nG68 X0 Y0 R30\nG51 X0 Y0 P2\nG2 X0 Y0 I5 J0 P2\nG50\nG69\nG95 S900 M3\nG1 X9 F.1\nG93\nG1 X0 F2\nG94 F300\nG73 X1 Y1 Z-4 R2 Q1\nG91 G81 X4 Z-3 R-1 L3\nG90 G80\nG10 L2 P2 X5\nG55\nG0 X1 Y1 Z1\nM30',
];

/** A loop without an end comes to its end soon. */
const LIMITS = { points: 200_000, lines: 20_000 };

const { job, assets } = readJobFile(
  readFileSync(new URL('../demo/jobs/comet-marker.kerbe.json', import.meta.url), 'utf8'),
);
let program = '';
beforeAll(async () => {
  const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const result = await compute(job, resources, await clipperFromDisk(), { unjudged: true });
  program = programsFor(job, result, { revision: '1', date: '2026-11-25' })[0].text;
});

async function* bytesOf(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}

test(`${COUNT} programs`, async () => {
  let read = 0;
  for (let index = 0; index < COUNT; index++) {
    const rng = random(SEED * 1_000_003 + index);
    const lines = program.split('\n');
    const from = upTo(rng, lines.length);
    const source =
      rng() < 0.5 ? lines.slice(0, 60).join('\n') : lines.slice(from, from + 40 + upTo(rng, 200)).join('\n');
    const bytes = mutated(oneOf(rng, [source, `G21 G90\nF500\n${source}`, oneOf(rng, OTHERS)]), rng, NC);
    const text = new TextDecoder().decode(bytes);
    const where = `program ${index} of seed ${SEED}`;
    try {
      const program = readProgram(text, LIMITS);
      const { path, notes } = program;
      const { findings, minutes } = checkProgram(program, job);
      expect(path.xyz.every(Number.isFinite), where).toBe(true);
      expect(minutes, where).toBeGreaterThanOrEqual(0);
      for (const sentence of [...notes, ...findings])
        expect(sentence.replace(/“[^”]*”/g, ''), where).not.toMatch(/NaN|undefined|Infinity/);
      read++;
    } catch (error) {
      if (!(error instanceof BlockError))
        throw new Error(`${where}: ${String((error as Error).stack)}`, { cause: error });
      expect(error.message, where).toMatch(/^\S.*\.$/s);
    }
    const facts = await programFacts(bytesOf(bytes));
    expect(facts.lines, where).toBeGreaterThanOrEqual(text === '' ? 0 : 1);
    for (const sentence of facts.refused) expect(sentence, where).toMatch(/^Line \d+: \S.*\.$/s);
  }
  console.log(`${COUNT} programs: ${read} read`);
  expect(read).toBeGreaterThan(0);
}, 7_200_000);
