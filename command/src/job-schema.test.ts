import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { jobSchemaText } from './job-schema.ts';
import { ROOT } from './paths.ts';

test('docs/job.schema.json is the schema the code checks job files with', () => {
  expect(readFileSync(`${ROOT}/docs/job.schema.json`, 'utf8')).toBe(jobSchemaText());
});
