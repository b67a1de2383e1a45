import { existsSync, readdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { dirname, relative, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, type Plugin } from 'esbuild';
import { bundleName } from '@kerbe/machine/process-file';
import { ROOT } from './paths.ts';

/** Where processes lie that are bundled into one file each: they start in a third of the time that their sources take. */
export const BUNDLES = `${ROOT}/web/build/processes`;

/** All that a shop starts as processes of their own; a kind of machine may have a stand-in. */
function processes(): string[] {
  return [
    'web/serve.ts',
    'web/src/lib/server/heavy/worker.ts',
    'machine/src/runner/main.ts',
    'machine/src/runner/read-program.ts',
    ...readdirSync(`${ROOT}/machine/src/kinds`)
      .map((kind) => `machine/src/kinds/${kind}/stand-in/main.ts`)
      .filter((path) => existsSync(`${ROOT}/${path}`)),
  ];
}

/** Our own packages are bundled, and a file still finds what lies beside its source. */
const ours = (folder: string): Plugin => ({
  name: 'ours',
  setup({ onResolve, onLoad }) {
    onResolve({ filter: /^@kerbe\// }, ({ path }) => {
      const [, workspace, ...rest] = path.split('/');
      return { path: `${ROOT}/${workspace}/src/${rest.join('/')}.ts` };
    });
    onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' ? undefined : { path, external: true },
    );
    onLoad({ filter: /\.ts$/ }, async ({ path }) => {
      const source = `new URL(${JSON.stringify(relative(folder, path))}, import.meta.url).href`;
      const text = await readFile(path, 'utf8');
      return { contents: text.replaceAll('import.meta.url', source), loader: 'ts', resolveDir: dirname(path) };
    });
  },
});

/**
 * Bundles each process into a file.
 * @param folder within this project, so that the packages are found from it.
 * @throws what esbuild says of a source that it cannot read.
 */
export async function bundleProcesses(folder = BUNDLES): Promise<void> {
  const entryPoints = processes().map((path) => ({
    in: `${ROOT}/${path}`,
    out: bundleName(pathToFileURL(resolve(ROOT, path))).replace(/\.mjs$/, ''),
  }));
  await build({
    entryPoints,
    outdir: folder,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'silent',
    plugins: [ours(folder)],
  });
}
