import { fileURLToPath } from 'node:url';
import { afterEach, expect, test, vi } from 'vitest';
import { bundleName, processArguments, processFile } from './process-file.ts';

const MAIN = new URL('runner/main.ts', import.meta.url);
afterEach(() => vi.unstubAllEnvs());

test('a process starts from its bundle where there are bundles, else from its source', () => {
  vi.stubEnv('KERBE_BUNDLES', undefined);
  expect(processFile(MAIN)).toBe(fileURLToPath(MAIN));
  expect(processArguments(MAIN)).toEqual(['--import', 'tsx', fileURLToPath(MAIN)]);
  vi.stubEnv('KERBE_BUNDLES', '/built');
  expect(processArguments(MAIN)).toEqual(['/built/machine-src-runner-main.mjs']);
});

test('each source has a name of its own', () => {
  const kinds = ['router', 'plasma', 'laser'].map((kind) => new URL(`kinds/${kind}/stand-in/main.ts`, import.meta.url));
  expect(new Set(kinds.map(bundleName)).size).toBe(3);
});
