import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { LengthBook } from './length-book.ts';
import type { BitShape } from './zero.ts';

let folder: string;
beforeEach(() => (folder = mkdtempSync(`${tmpdir()}/kerbe-lengths-`)));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const v60 = { id: 'v', name: 'V', diameter: 12.7, angle: 60, tip: 0.2 } as BitShape;

test('the last five readings of a bit are kept, over a restart, and those of another shape are another’s', () => {
  const file = `${folder}/deep/lengths.json`;
  const book = new LengthBook(file);
  for (let k = 1; k <= 7; k++) book.add(v60, -k);
  book.add({ ...v60, angle: 90 }, -50);
  expect(book.of(v60)).toEqual([-3, -4, -5, -6, -7]);
  const again = new LengthBook(file);
  expect([again.of(v60), again.of({ ...v60, angle: 90 }), again.of({ ...v60, id: 'w' })]).toEqual([[-3, -4, -5, -6, -7], [-50], []]); // prettier-ignore
});

test('a file that is damaged is begun anew', () => {
  writeFileSync(`${folder}/lengths.json`, '{"v": "long"}');
  expect(new LengthBook(`${folder}/lengths.json`).of(v60)).toEqual([]);
});
