import { basename, extname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));

/**
 * What a process of Kerbe's own is called once it is bundled into one file: of `machine/src/runner/main.ts`
 * `machine-src-runner-main.mjs`.
 * @param file its source.
 */
export function bundleName(file: URL): string {
  const path = relative(ROOT, fileURLToPath(file));
  return `${path.slice(0, -extname(path).length).replace(/[\\/]/g, '-')}.mjs`;
}

/** The file to start a process from: its bundle where `KERBE_BUNDLES` names a folder of them, else its source. */
export function processFile(file: URL): string {
  const { KERBE_BUNDLES } = process.env;
  return KERBE_BUNDLES ? join(KERBE_BUNDLES, bundleName(file)) : fileURLToPath(file);
}

/** What Node.js is called with to start a process: its file, and before it what reads TypeScript where it is a source. */
export function processArguments(file: URL): string[] {
  const started = processFile(file);
  return basename(started).endsWith('.ts') ? ['--import', 'tsx', started] : [started];
}
