import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { compute } from '../core/src/compute/compute.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const router = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));

test('what another machine cannot make is said once, and nothing of its speeds', async () => {
  const tags = readJobFile(readFileSync(new URL('../demo/jobs/star-tags.kerbe.json', import.meta.url), 'utf8'));
  const resources = await resourcesFromDisk((hash) => tags.assets[hash] && bytesFromBase64(tags.assets[hash].base64));
  const job = { ...tags.job, bench: router.job.bench };
  const { remarks } = await compute(job, resources, await clipperFromDisk());
  const wrong = remarks.filter(({ weight, stop }) => weight === 'wrong' && stop === 'cuts');
  expect(wrong.map(({ text }) => text)).toEqual([
    expect.stringMatching(
      /is a router, and does not hold a beam, which cuts 1, 2, and 3 take; give the job to another bench/,
    ),
  ]);
  expect(wrong.flatMap(({ remedies }) => remedies)).toEqual([]);
});
