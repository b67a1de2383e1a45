import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Font } from 'opentype.js';
import { readFace } from '@kerbe/core/artwork/lettering';
import type { Resources } from '@kerbe/core/artwork/place';
import type { Drawing } from '@kerbe/core/artwork/shape';
import { importArtwork } from '@kerbe/core/artwork/formats/formats';
import { type Clipper, loadClipper } from '@kerbe/core/geometry/clipper';
import { FACE_FILES } from '@kerbe/core/artwork/faces';
import type { Face } from '@kerbe/core/document/item';

const require = createRequire(import.meta.url);

let clipper: Promise<Clipper> | undefined;
const faces = new Map<Face, Font>();

/** The geometry library, read from disk once. */
export function clipperFromDisk(): Promise<Clipper> {
  clipper ??= loadClipper(readFileSync(require.resolve('clipper2-wasm/dist/es/clipper2z.wasm')));
  return clipper;
}

/** Faces from disk, and drawings from the bytes that `asset` returns for their hash. */
export async function resourcesFromDisk(asset: (hash: string) => Uint8Array | undefined): Promise<Resources> {
  const library = await clipperFromDisk();
  const drawings = new Map<string, Drawing>();
  return {
    clipper: library,
    drawing(hash) {
      const bytes = drawings.has(hash) ? undefined : asset(hash);
      if (bytes) drawings.set(hash, importArtwork(bytes, library));
      return drawings.get(hash);
    },
    face(name) {
      const known = faces.get(name);
      if (known) return known;
      const font = readFace(readFileSync(require.resolve(FACE_FILES[name])));
      faces.set(name, font);
      return font;
    },
  };
}
