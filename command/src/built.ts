import { createHash } from 'node:crypto';
import {
  accessSync,
  constants,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { bundleProcesses } from './bundles.ts';
import { Misuse } from './misuse.ts';
import { printedBy } from './run-to-end.ts';
import { DATA, ROOT } from './paths.ts';

const SOURCES = [
  'core/src',
  'machine/src',
  'web/src',
  'web/serve.ts',
  'web/static',
  'web/vite.config.ts',
  'web/svelte.config.js',
  'command/src/bundles.ts',
  'package-lock.json',
];
const MARK = `${ROOT}/web/build/.fingerprint`;

function fingerprint(): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(`${path}/${name}`);
    else hash.update(path).update(readFileSync(path));
  };
  for (const source of SOURCES) visit(`${ROOT}/${source}`);
  return hash.digest('hex');
}

/**
 * Builds the web application and bundles its processes where sources changed since they were built.
 * @throws {Misuse}; the signal's reason
 */
export async function ensureBuilt(signal?: AbortSignal): Promise<void> {
  const now = fingerprint();
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === now) return;
  try {
    accessSync(`${ROOT}/web`, constants.W_OK);
  } catch {
    throw new Misuse(
      `The web application has to be built, and this account may not write ${ROOT}/web; run ./kerbe start once as one that may.`,
    );
  }
  console.log('Building the web application …');
  mkdirSync(DATA, { recursive: true });
  await printedBy('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: `${ROOT}/web`, signal });
  await bundleProcesses();
  writeFileSync(MARK, now);
}
