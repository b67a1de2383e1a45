import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readFileSync } from 'node:fs';
import type { CutJob as Job } from '../job/job.ts';
import { JobSchema } from '../job/job.ts';
import { list } from './list.ts';
import { sentenceFor } from './sentence-for.ts';
import { text } from './text.ts';

const demo = (): Job =>
  (
    JSON.parse(readFileSync(new URL('../../../demo/jobs/entrance-board.kerbe.json', import.meta.url), 'utf8')) as {
      job: Job;
    }
  ).job;

describe('text', () => {
  it.each(['', 'Fernhill', 'É ✶ 星', '😀', 'two\nlines'])('keeps %j', (value) => {
    expect(text(20).parse(value)).toBe(value);
  });
  it.each(['a\0b', '\ud800', 'x\udfff', '\udc00\ud800'])('refuses %j, which no database can hold', (value) => {
    expect(text(20).safeParse(value).success).toBe(false);
  });
});

describe('list', () => {
  it('looks at its length before its elements, and says one thing of a million wrong ones', () => {
    let looked = 0;
    const element = z.custom(() => {
      looked++;
      return false;
    });
    const outcome = list(element, 3).safeParse(Array.from({ length: 1_000_000 }, () => ({})));
    expect(outcome.error?.issues).toHaveLength(1);
    expect(looked).toBe(0);
  });
});

describe('sentenceFor', () => {
  const said = (change: (job: Record<string, never> & Job) => void, unit: 'mm' | 'in' = 'mm') => {
    const job = demo();
    change(job as never);
    const { error } = JobSchema.safeParse(job);
    return error ? sentenceFor(error, unit) : undefined;
  };
  it.each([
    [(job: Job) => (job.cuts[1].feed = 0), 'The feed of cut 2 must be more than 0 mm/min.'],
    [
      (job: Job) => ((job.cuts[0] as { plunge: number }).plunge = 1e9),
      'The plunge of cut 1 must be at most 50000 mm/min.',
    ],
    [(job: Job) => (job.stock.length = -4), 'The length of the stock must be more than 0 mm.'],
    [(job: Job) => (job.bits[2].diameter = '6' as never), 'The diameter of bit 3 must be a number.'],
    [(job: Job) => (job.name = ''), 'The name is empty.'],
    [(job: Job) => (job.name = 'a'.repeat(200)), 'The name is too long; 120 characters are the most.'],
    [(job: Job) => (job.notes = 'a\0'), 'The note holds a character that cannot be kept; type it again.'],
    [(job: Job) => (job.unit = 'feet' as never), 'The unit is none of those that can be chosen.'],
    [(job: Job) => (job.cuts = Array(500).fill({}) as never), 'The list of cuts is too long; 200 are the most.'],
    [(job: Job) => (job.cuts[0].kind = 'mill' as never), 'The kind of cut 1 is none of those that can be chosen.'],
    [(job: Job) => delete (job as Partial<Job>).stock, 'The stock must be complete.'],
    [
      (job: Job) => (job.cuts[0].targets[0].shapes = [7] as never),
      'The list of chosen shapes of chosen artwork 1 of cut 1 must be text.',
    ],
  ])('case %#', (change, sentence) => {
    expect(said(change)).toBe(sentence);
  });
  it('says limits in the job’s own unit', () => {
    expect(said((job) => (job.stock.width = 9000), 'in')).toBe('The width of the stock must be at most 196.85 in.');
  });
  it('never says a validator’s own words', () => {
    const job = demo() as unknown as Record<string, unknown>;
    const wrong: unknown[] = [undefined, null, -1e300, 'x', '', [], {}, [{}], true, 'a\0'];
    for (const key of Object.keys(job))
      for (const value of wrong) {
        const { error } = JobSchema.safeParse({ ...job, [key]: value });
        if (error) expect(sentenceFor(error)).not.toMatch(/expected|received|invalid|too small|too big|undefined|NaN/i);
      }
  });
});
