import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { ROOT } from './paths.ts';
import { safetyTables, withTables } from './safety-tables.ts';

test('docs/safety.md holds the tables that the runner goes by; ./kerbe figures writes them', () => {
  const text = readFileSync(`${ROOT}/docs/safety.md`, 'utf8');
  for (const name of Object.keys(safetyTables())) expect(text).toContain(`<!-- table: ${name} -->`);
  expect(withTables(text)).toBe(text);
});
