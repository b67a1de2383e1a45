import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { afterEach, expect, test } from 'vitest';
import { bundleName } from '@kerbe/machine/process-file';
import { bundleProcesses } from './bundles.ts';
import { DATA, ROOT } from './paths.ts';

let folder: string;
afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('what is bundled holds our own sources, starts without a reader of TypeScript and says what it misses', async () => {
  mkdirSync(DATA, { recursive: true });
  folder = mkdtempSync(`${DATA}/bundles-`);
  await bundleProcesses(folder);
  const runner = `${folder}/${bundleName(pathToFileURL(`${ROOT}/machine/src/runner/main.ts`))}`;
  expect(readFileSync(runner, 'utf8')).not.toMatch(/from "@kerbe\//);
  const { stderr, status } = spawnSync(process.execPath, [runner], {
    encoding: 'utf8',
    env: { ...process.env, KERBE_RUNNER_TOKEN: '' },
  });
  expect(status).toBe(1);
  expect(stderr).toMatch(/KERBE_RUNNER_TOKEN is missing/);
});
