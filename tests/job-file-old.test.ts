import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { placeItem } from '../core/src/artwork/place.ts';
import { shapesOf } from '../core/src/compute/compute.ts';
import { bytesFromBase64, type JobFile, readJobFile, writeJobFile } from '../core/src/job/job-file.ts';
import { resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const text = (name: string) => readFileSync(new URL(`../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8');
type Loose = { job: { cuts: Record<string, unknown>[]; artwork: Record<string, unknown>[]; [key: string]: unknown } };

const old = (name: string) => readFileSync(new URL(`./old-jobs/${name}.kerbe.json`, import.meta.url), 'utf8');

/** What each cut of a job works on: the points of all its outlines. */
async function worked(file: JobFile): Promise<unknown[]> {
  const resources = await resourcesFromDisk((hash) => file.assets[hash] && bytesFromBase64(file.assets[hash].base64));
  const items = file.job.artwork.map((item) => placeItem(item, resources));
  return file.job.cuts.map((cut) =>
    shapesOf(cut, items).map(({ name, outlines }) => [name, outlines.map(({ points }) => [...points])]),
  );
}

describe('job files from before', () => {
  test.each(['night-light', 'comet-marker', 'meridian-plate', 'entrance-board', 'sundial-face'])(
    '%s as version 1 had it, with shapes by their numbers, is the job that it is now',
    async (name) => {
      const [before, now] = [readJobFile(old(name)), readJobFile(text(name))];
      expect(JSON.parse(old(name))).toMatchObject({ job: { version: 1 } });
      expect(before.job.version).toBe(3);
      expect(await worked(before)).toEqual(await worked(now));
      for (const job of [before.job, now.job]) for (const cut of job.cuts) cut.targets = [];
      // Benches of before told of no accessories.
      expect(before.job.bench).toMatchObject({ pins: 'none', warmUp: 0, dustBoot: true, spindleStart: 3 });
      expect(before.job).toEqual({ ...now.job, bench: { ...now.job.bench, pins: 'none', warmUp: 0 } });
    },
  );
  test('what older files do not say takes the meaning it had: no refit, loops and not slots, Kerbe’s order and starts', () => {
    const old = JSON.parse(text('night-light')) as Loose;
    delete old.job.ownOrder;
    for (const item of old.job.artwork) delete item.refit;
    for (const cut of old.job.cuts)
      for (const key of ['slots', 'start', 'skin', 'lead', 'lastPass', 'finish']) delete cut[key];
    const { job } = readJobFile(JSON.stringify(old));
    expect(job.ownOrder).toBe(false);
    expect(job.artwork[0]).toMatchObject({ refit: 0 });
    expect(job.cuts.find((cut) => cut.kind === 'pocket')).toMatchObject({ slots: false, finish: 0, lastPass: 0 });
    expect(job.cuts.find((cut) => cut.kind === 'profile')).toMatchObject({
      start: [],
      skin: 0,
      lead: { kind: 'none', length: 3 },
    });
  });
  test.each([
    ['one place', { x: 3, y: 4 }, [{ x: 3, y: 4 }]],
    ['null', null, []],
  ])('a start that is %s is a list of places', (_, start, places) => {
    const old = JSON.parse(text('night-light')) as Loose;
    old.job.cuts.find((cut) => cut.kind === 'profile')!.start = start;
    expect(readJobFile(JSON.stringify(old)).job.cuts.find((cut) => cut.kind === 'profile')).toMatchObject({
      start: places,
    });
  });
  test.each(['night-light', 'comet-marker', 'meridian-plate', 'entrance-board', 'sundial-face'])(
    '%s comes back as it went out',
    (name) => {
      const file = readJobFile(text(name));
      expect(readJobFile(writeJobFile(file.job, file.assets))).toEqual(file);
    },
  );
  test.each([
    ['a later version', (f: Loose): void => void (f.job.version = 4), /version/],
    ['another format', (f: Loose): void => void (f.job.format = 'other'), /format/],
    ['a cut of no known kind', (f: Loose): void => void (f.job.cuts[0].kind = 'polish'), /kind of cut 1/],
    ['a refit of a metre', (f: Loose): void => void (f.job.artwork[0].refit = 1000), /refit of artwork 1/],
    [
      'an asset that is no hash',
      (f: Loose): void => void (f.job.artwork[0].asset = '../../etc/passwd'),
      /drawing of artwork 1/,
    ],
    ['a name beyond all measure', (f: Loose): void => void (f.job.name = 'x'.repeat(5000)), /name/],
  ] as const)('%s: one sentence that names it', (_, change, sentence) => {
    const file = JSON.parse(text('night-light')) as Loose;
    change(file);
    expect(() => readJobFile(JSON.stringify(file))).toThrow(sentence);
  });
});
