import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { Told } from '@kerbe/core/schema/told';
import { expect, test } from 'vitest';
import { startTrouble } from './start-trouble.ts';

const told = (error: Error) => {
  const trouble = startTrouble(error, '/data');
  return trouble instanceof Told ? trouble.message : undefined;
};

// As the system and PostgreSQL 15 say it.
test.each([
  [Object.assign(new Error('write'), { code: 'ENOSPC' }), /^The disk that holds \/data is full/],
  [new Error('initdb: error: could not write file "x": No space left on device'), /^The disk that holds/],
  [Object.assign(new Error('open'), { code: 'EROFS' }), /^Kerbe may not write everything in \/data/],
  [new Error('child process was terminated by signal 25: File size limit exceeded'), /ulimit -f/],
])('%s', (error, sentence) => {
  expect(told(error)).toMatch(sentence);
});

test('a database that does not start is told by the last word of its log', () => {
  const folder = mkdtempSync(`${tmpdir()}/kerbe-log-`);
  const log = `${folder}/postgres.log`;
  writeFileSync(
    log,
    '2026-01-01 FATAL:  the first thing\n2026-01-02 LOG:  starting\n2026-01-02 FATAL:  could not map memory\n',
  );
  const error = new Error(
    `pg_ctl -l ${log} start failed (1):\npg_ctl: could not start server\nExamine the log output.`,
  );
  expect(told(error)).toBe(
    `The database could not be started: could not map memory. The whole of it stands in ${log}.`,
  );
  writeFileSync(log, '2026-01-02 PANIC:  could not write to file "pg_wal/xlogtemp.1": No space left on device\n');
  expect(told(error)).toMatch(/^The disk that holds/);
  rmSync(folder, { recursive: true });
});

test('a sentence stays as it is, and a fault of ours is none', () => {
  expect(told(new Told('Wait a moment.'))).toBe('Wait a moment.');
  expect(told(new TypeError('x is not a function'))).toBeUndefined();
});
