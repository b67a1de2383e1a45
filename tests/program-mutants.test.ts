import { readFileSync } from 'node:fs';
import { beforeAll, expect, test } from 'vitest';
import { compute } from '../core/src/compute/compute.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { BlockError } from '../core/src/program/block.ts';
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
    'G53 G0 Z0', 'G28', 'M6 T99', 'M0', 'M30', 'M2', '%', 'N10', '(', ')', ';', '#1=5', 'O100', 'F0', 'F-5', 'S1e9', 'X', '--1', 'G', 'G1.5', 'G38.2 Z-5', 'G4 P1e12', '\n'.repeat(50),
  ],
  nest: ['(', ')'],
}; // prettier-ignore

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
    const bytes = mutated(oneOf(rng, [source, `G21 G90\nF500\n${source}`]), rng, NC);
    const text = new TextDecoder().decode(bytes);
    const where = `program ${index} of seed ${SEED}`;
    try {
      const program = readProgram(text);
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
