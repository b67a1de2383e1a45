import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { Journal, type JournalRecord } from './journal.ts';
import { touchRadius } from '../kinds/router/procedures.ts';

let folder: string;
let file: string;
beforeEach(() => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-journal-`);
  file = `${folder}/deep/runs.jsonl`;
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const record = (id: string, phase: JournalRecord['phase']): JournalRecord => ({
  id,
  phase,
  minutes: 3,
  waited: 1,
  line: 12,
  at: '2026-11-24T05:00:00.000Z',
});

describe('the runner’s journal', () => {
  test('ends are told once, from where a reader left off', () => {
    const journal = new Journal(file);
    journal.write(record('a', 'begun'));
    journal.write(record('a', 'done'));
    const first = journal.ends(0);
    expect(first.ends.map(({ id, phase }) => [id, phase])).toEqual([['a', 'done']]);
    expect(journal.ends(first.next).ends).toEqual([]);
    journal.write(record('b', 'begun'));
    journal.write(record('b', 'stopped'));
    expect(journal.ends(first.next).ends.map(({ id }) => id)).toEqual(['b']);
  });
  test('whenever it is read, written and begun anew, each end is told once and in its order', () => {
    const step = fc.oneof(
      { weight: 3, arbitrary: fc.constant('read' as const) },
      { weight: 1, arbitrary: fc.constant('restart' as const) },
      fc.record({ run: fc.constantFrom('a', 'b', 'c'), phase: fc.constantFrom('on', 'done', 'stopped') }),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        const own = `${folder}/${Math.random()}/runs.jsonl`;
        let journal = new Journal(own);
        const open = new Map<string, string>();
        const [ended, told]: string[][] = [[], []];
        let [from, count] = [0, 0];
        const read = () => {
          const { next, begun, ends } = journal.ends(from);
          for (const { id, phase } of ends) told.push(`${id} ${phase}`);
          expect(begun.toSorted()).toEqual([...open.values()].toSorted());
          from = next;
        };
        for (const what of steps)
          if (what === 'read') read();
          else if (what === 'restart') {
            journal = new Journal(own);
            for (const id of open.values()) ended.push(`${id} failed`);
            open.clear();
          } else {
            const { run, phase } = what;
            const id = open.get(run) ?? `${run}${++count}`;
            if (!open.has(run)) journal.write(record(id, 'begun'));
            open.set(run, id);
            journal.write(record(id, phase as JournalRecord['phase']));
            if (phase === 'on') continue;
            ended.push(`${id} ${phase}`);
            open.delete(run);
          }
        read();
        expect(told.toSorted()).toEqual(ended.toSorted());
        expect(told.filter((end) => !end.endsWith('failed'))).toEqual(ended.filter((end) => !end.endsWith('failed')));
      }),
      { numRuns: 300 },
    );
  });
  test('nobody else on this machine reads it', () => {
    new Journal(file).write(record('a', 'begun'));
    expect(statSync(file).mode & 0o777).toBe(0o600);
  });
  test('a run that was on when the runner was restarted has failed', () => {
    new Journal(file).write(record('a', 'begun'));
    const { ends } = new Journal(file).ends(0);
    expect(ends).toHaveLength(1);
    expect(ends[0]).toMatchObject({ id: 'a', phase: 'failed', line: 12 });
    expect(new Journal(file).ends(0).ends).toHaveLength(1);
  });
  test('a half-written last line loses nothing else', () => {
    const journal = new Journal(file);
    journal.write(record('a', 'begun'));
    journal.write(record('a', 'done'));
    appendFileSync(file, '{"id":"b","pha');
    expect(new Journal(file).ends(0).ends.map(({ id }) => id)).toEqual(['a']);
  });
  test('it is a line of JSON a record', () => {
    const journal = new Journal(file);
    journal.write(record('a', 'begun'));
    journal.write(record('a', 'failed'));
    expect(
      readFileSync(file, 'utf8')
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line).phase),
    ).toEqual(['begun', 'failed']);
  });
});

// A V-bit meets a plate's edge where its cone is as wide as it is deep under the edge times the tangent of half its angle.
describe('where a bit touches the side of a plate', () => {
  test.each([
    [{ id: 'a', name: '', diameter: 6, tip: 0 }, 6, 3],
    [{ id: 'a', name: '', diameter: 12.7, angle: 60, tip: 0 }, 6, 6 * Math.tan(Math.PI / 6)],
    [{ id: 'a', name: '', diameter: 12.7, angle: 90, tip: 0 }, 6, 6],
    [{ id: 'a', name: '', diameter: 12.7, angle: 90, tip: 0 }, 9, 6.35],
    [{ id: 'a', name: '', diameter: 6, angle: 30, tip: 0.2 }, 6, 0.1 + 6 * Math.tan(Math.PI / 12)],
  ])('%j, %f mm under the edge: %f mm from its middle', (bit, depth, radius) => {
    expect(touchRadius(bit, depth)).toBeCloseTo(radius, 9);
  });
});

describe('the journal through trouble', () => {
  const written = () =>
    readFileSync(file, 'utf8')
      .split('\n')
      .filter(Boolean)
      .flatMap((line) => {
        try {
          return [JSON.parse(line) as JournalRecord];
        } catch {
          return [];
        }
      });
  test('a run whose runner was killed ended at the last line that was noted', () => {
    const journal = new Journal(file);
    journal.write({ ...record('a', 'begun'), line: 0 });
    journal.write({ ...record('a', 'on'), line: 40 });
    journal.write({ ...record('a', 'on'), line: 90 });
    const { ends } = new Journal(file).ends(0);
    expect(ends).toHaveLength(1);
    expect(ends[0]).toMatchObject({ id: 'a', phase: 'failed', line: 90, minutes: 3 });
    expect(ends[0].why).toContain('more lines may have been made');
  });
  test('what comes after a half-written line is not lost with it', () => {
    new Journal(file).write(record('a', 'begun'));
    appendFileSync(file, '{"id":"a","phase":"do');
    const again = new Journal(file);
    again.write(record('b', 'begun'));
    again.write(record('b', 'done'));
    expect(new Journal(file).ends(0).ends.map(({ id, phase }) => [id, phase])).toEqual([
      ['a', 'failed'],
      ['b', 'done'],
    ]);
  });
  test('a full disk: a beginning is refused, an end waits, and nothing is told before it is kept', () => {
    let room = Infinity;
    const journal = new Journal(file, (path, text) => {
      appendFileSync(path, text.slice(0, room));
      if (text.length > room) throw Object.assign(new Error('ENOSPC'), { code: 'ENOSPC' });
    });
    expect(journal.write(record('a', 'begun'))).toBe(true);
    room = 7;
    expect(journal.write(record('b', 'begun'))).toBe(false);
    journal.forget('b');
    for (let line = 0; line < 100; line++) journal.write({ ...record('a', 'on'), line });
    expect(journal.write(record('a', 'done'))).toBe(false);
    expect(journal.ends(0)).toMatchObject({ ends: [], begun: ['a'] });
    room = Infinity;
    expect(journal.flush()).toBe(true);
    expect(journal.ends(0).ends.map(({ id, phase }) => [id, phase])).toEqual([['a', 'done']]);
    expect(written().map(({ phase, line }) => [phase, line])).toEqual([
      ['begun', 12],
      ['done', 12],
    ]);
  });
  test('how far ended runs once were is dropped at the next start, and numbers stay', () => {
    const journal = new Journal(file);
    journal.write(record('a', 'begun'));
    for (let line = 0; line < 50; line++) journal.write({ ...record('a', 'on'), line });
    journal.write(record('a', 'done'));
    const { next } = journal.ends(0);
    const again = new Journal(file);
    expect(written()).toHaveLength(2);
    expect(again.ends(0).next).toBe(next);
    again.write(record('b', 'begun'));
    again.write(record('b', 'lost'));
    expect(again.ends(next).ends.map(({ id }) => id)).toEqual(['b']);
  });
  test('a reader who has read further than this journal goes is told everything', () => {
    const journal = new Journal(file);
    journal.write(record('a', 'begun'));
    journal.write(record('a', 'done'));
    expect(journal.ends(999).ends).toHaveLength(1);
  });
});
