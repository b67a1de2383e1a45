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
import { Misuse } from './misuse.ts';
import { printedBy } from './run-to-end.ts';
import { DATA, ROOT } from './paths.ts';

const SOURCES = [
  'core/src',
  'machine/src',
  'web/src',
  'web/static',
  'web/vite.config.ts',
  'web/svelte.config.js',
  'package-lock.json',
];

function fingerprint(): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(`${path}/${name}`);
    else hash.update(path).update(readFileSync(path));
  };
  for (const source of SOURCES) visit(`${ROOT}/${source}`);
  return hash.digest('hex');
}

/** Builds the web application where its sources changed since it was built. @throws {Misuse}; the signal's reason */
export async function ensureBuilt(signal?: AbortSignal): Promise<void> {
  const mark = `${ROOT}/web/build/.fingerprint`;
  const now = fingerprint();
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return;
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
  writeFileSync(mark, now);
}
