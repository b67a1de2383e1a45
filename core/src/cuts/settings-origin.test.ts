import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import jsonPatch from 'fast-json-patch';
import { readJobFile } from '../job/job-file.ts';
import { type CutJob, JobSchema } from '../job/job.ts';
import { judgeSettings } from '../remarks/settings.ts';
import { noteSettings, settingsOrigin, typedSettings, unknownSettings } from './settings-origin.ts';
import { suitToBit } from './suit.ts';

const DEMO = new URL('../../../demo/jobs/', import.meta.url);
const board = (): CutJob =>
  structuredClone(readJobFile(readFileSync(new URL('entrance-board.kerbe.json', DEMO), 'utf8')).job);
const judged = (job: CutJob) => judgeSettings({ job, items: [], cuts: [], tryCut: () => Promise.resolve([]) });
const cutOut = (job: CutJob) => job.cuts.find(({ kind }) => kind === 'profile')!;
const changed = (job: CutJob, change: (draft: CutJob) => void): CutJob => {
  const draft = structuredClone(job);
  change(draft);
  noteSettings(job, draft);
  return JobSchema.parse(draft);
};

test('the demo’s cuts are set as their bits’ rows say', () => {
  const job = board();
  expect(job.cuts.map((cut) => settingsOrigin(job, cut))).toEqual(job.cuts.map(() => 'row'));
  expect(judged(job)).toEqual([]);
});

test('brass is not cut with the settings for oak: nothing is known, and no program is written', () => {
  const job = changed(board(), ({ stock }) => (stock.material = 'brass'));
  expect(unknownSettings(job, cutOut(job)).sort()).toEqual(['depthPerPass', 'feed', 'plunge', 'speed']);
  const remarks = judged(job);
  expect(remarks).toHaveLength(job.cuts.length);
  for (const remark of remarks) expect(remark).toMatchObject({ weight: 'wrong', withholds: true });
  expect(remarks[0].text).toContain('in brass: it has no settings for it at Bits');
});

test('what is typed is known, one by one; the last makes the cut whole', () => {
  let job = changed(board(), ({ stock }) => (stock.material = 'brass'));
  for (const [key, value] of [
    ['feed', 600],
    ['plunge', 150],
    ['speed', 12_000],
    ['depthPerPass', 0.2],
  ] as const) {
    expect(settingsOrigin(job, cutOut(job))).toBe('not known');
    job = changed(job, (draft) => Object.assign(cutOut(draft), { [key]: value }));
    expect(unknownSettings(job, cutOut(job))).not.toContain(key);
  }
  expect(settingsOrigin(job, cutOut(job))).toBe('typed');
  // For another material it was not said.
  const slate = changed(job, ({ stock }) => (stock.material = 'slate'));
  expect(settingsOrigin(slate, cutOut(slate))).toBe('not known');
});

test('a number that is typed as it stood counts as typed', () => {
  const job = changed(board(), ({ stock }) => (stock.material = 'brass'));
  const cut = cutOut(job);
  expect(typedSettings(job, cut, ['feed'])?.keys).toEqual(['feed']);
});

test('each remedy does what it says: meant, or copied from another material by name', () => {
  const brass = changed(board(), ({ stock }) => (stock.material = 'brass'));
  const index = brass.cuts.indexOf(cutOut(brass));
  const remark = judged(brass).find(({ cut }) => cut === cutOut(brass).id)!;
  const origins = remark.remedies.map(({ label, patch }) => {
    const mended = JobSchema.parse(jsonPatch.applyPatch(structuredClone(brass), patch, true).newDocument);
    return [label, settingsOrigin(mended, mended.cuts[index]), mended.cuts[index].settings?.of];
  });
  expect(origins[0]).toEqual([
    expect.stringMatching(
      /^Take feed 2000 mm\/min, plunge 600 mm\/min, spindle speed 16000 rpm,? and depth per pass 5 mm$/,
    ),
    'typed',
    undefined,
  ]);
  expect(origins.slice(1).every(([label, origin, of]) => origin === 'copied' && label!.endsWith(of!))).toBe(true);
  expect(origins.length).toBeGreaterThan(2);
});

test('another bit without a row for the material is asked for; less at once than a row allows is not', () => {
  const job = board();
  const thinner = changed(job, (draft) => Object.assign(cutOut(draft), { depthPerPass: 0.4 }));
  expect(settingsOrigin(thinner, cutOut(thinner))).toBe('row');
  const faster = changed(job, (draft) => Object.assign(cutOut(draft), { feed: 4321 }));
  expect(settingsOrigin(faster, cutOut(faster))).toBe('typed');
  const other = changed(job, (draft) => {
    const own = draft.bits.find(({ id }) => id === cutOut(draft).bit)!;
    draft.bits.push({ ...own, id: 'new', presets: [] });
    suitToBit(cutOut(draft), draft.bits.at(-1)!, draft.stock);
  });
  expect(settingsOrigin(other, cutOut(other))).toBe('not known');
});

test('a row that is changed at Bits takes nothing away from cuts that were set by it', () => {
  const job = changed(board(), ({ bits, stock }) => {
    for (const bit of bits)
      for (const row of bit.presets) if (row.material === stock.material) Object.assign(row, { feed: 777 });
  });
  expect(job.cuts.map((cut) => settingsOrigin(job, cut))).toEqual(job.cuts.map(() => 'row'));
  expect(job.cuts.every(({ settings }) => settings?.from === 'row')).toBe(true);
});

test('a bit that clears and has no row for the material keeps the program back, too', () => {
  const job = board();
  const clearing = { ...job.bits.find(({ kind }) => kind === 'end')!, id: 'clears', name: 'Clears' };
  job.bits.push(clearing);
  Object.assign(
    job.cuts.find(({ kind }) => kind === 'v-carve')!,
    { clearBits: ['clears'] },
  );
  expect(judged(job)).toEqual([]);
  clearing.presets = [];
  expect(judged(job)).toMatchObject([
    { withholds: true, text: expect.stringContaining('Clears, which clears') as string },
  ]);
});

test('a document of before whose numbers no row has is asked once', () => {
  const job = board();
  Object.assign(cutOut(job), { feed: 4321 });
  expect(judged(job).map(({ remedies }) => remedies[0].label)).toEqual([expect.stringContaining('feed 4321 mm/min')]);
  const index = job.cuts.indexOf(cutOut(job));
  const [{ remedies }] = judged(job);
  const mended = JobSchema.parse(jsonPatch.applyPatch(structuredClone(job), remedies[0].patch, true).newDocument);
  expect(judged(mended)).toEqual([]);
  expect(mended.cuts[index].settings?.material).toBe(job.stock.material);
});
