import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { loadClipper } from './clipper.ts';

/** The geometry library for tests of the core, which reads no files itself. */
export const clipper = await loadClipper(
  readFileSync(createRequire(import.meta.url).resolve('clipper2-wasm/dist/es/clipper2z.wasm')),
);
