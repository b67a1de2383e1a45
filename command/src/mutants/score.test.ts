import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, expect, test } from 'vitest';
import { roomsOf } from './rooms.ts';
import { scoreOf } from './score.ts';
import { readTried, type Tried } from './tried.ts';

const folder = mkdtempSync(`${tmpdir()}/kerbe-mutants-`);
afterAll(() => rmSync(folder, { recursive: true }));

const tried = (key: string, status: Tried['status']): Tried => ({
  key,
  place: `a.ts:${key}`,
  text: 'a < b',
  replacement: 'a <= b',
  status,
});

test('what nobody noticed is listed, and what changes nothing is not counted', () => {
  const all = [
    tried('1', 'Killed'),
    tried('2', 'Timeout'),
    tried('3', 'Survived'),
    tried('4', 'NoCoverage'),
    tried('5', 'Survived'),
    tried('6', 'RuntimeError'),
  ];
  expect(scoreOf('core/motion', all, new Set(['5'])).split('\n')).toEqual([
    'a.ts:3 Survived: a < b → a <= b (3)',
    'a.ts:4 NoCoverage: a < b → a <= b (4)',
    'a.ts:6 RuntimeError: a < b → a <= b (6)',
    'core/motion: 2 of 5 noticed (40 %), 1 change nothing',
  ]);
});

test('of a mutant that was tried twice the second counts', () => {
  const record = `${folder}/record.jsonl`;
  expect(readTried(record).size).toBe(0);
  writeFileSync(
    record,
    [tried('1', 'Survived'), tried('2', 'Killed'), tried('1', 'Killed')]
      .map((one) => `${JSON.stringify(one)}\n`)
      .join(''),
  );
  expect([...readTried(record).values()].map(({ key, status }) => [key, status])).toEqual([
    ['1', 'Killed'],
    ['2', 'Killed'],
  ]);
});

test('rooms are the folders of core, machine and the web’s library', () => {
  const rooms = Object.keys(roomsOf());
  expect(rooms).toEqual(expect.arrayContaining(['core/motion', 'machine/runner', 'web/server', 'web/.']));
  expect(rooms).not.toContain('web/components');
});
