import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { drawnFigures } from './figures.ts';
import { ROOT } from './paths.ts';

test('docs/figures holds what the code draws; ./kerbe figures writes it', async () => {
  const folder = `${ROOT}/docs/figures`;
  const drawn = await drawnFigures();
  expect(readdirSync(folder).sort()).toEqual([...drawn.keys()].map((name) => `${name}.svg`).sort());
  // Not compared by the test runner, which would print them whole.
  const stale = [...drawn].filter(([name, text]) => readFileSync(`${folder}/${name}.svg`, 'utf8') !== text);
  expect(stale.map(([name]) => name)).toEqual([]);
});
