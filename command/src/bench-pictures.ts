import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { encode } from 'fast-png';
import { mulberry } from '@kerbe/machine/stand-in/random';
import { ROOT } from './paths.ts';

/** Pixels along and across, and how wide they are burnt, mm: 4 million dots at 10 a millimetre. */
const PIXELS = 2000;
const WIDE = 200;
/** Samples of the triangulation that the target is told by. */
const SAMPLES = 97_700;
const ROUNDS = 3;

/** Kinds of picture: none that the code was made for, and each hard in its own way. */
function greysOf(): Record<string, (x: number, y: number) => number> {
  const random = mulberry(7);
  return {
    waves: (x, y) => 127 + 100 * Math.sin(x / 97) * Math.cos(y / 131),
    noise: () => 255 * random(),
    'a light sky': (x, y) => (Math.hypot(x - 900, y - 1100) < 350 ? 60 + ((x * y) % 90) : 225 + 20 * Math.sin(x / 300)),
    'line art': (x, y) => (((x >> 5) + (y >> 5)) % 2 && Math.hypot(x - 1000, y - 1000) < 900 ? 0 : 255),
  };
}

/**
 * Pictures from their files to their programs, each in a fresh process: how many triangulations that takes, and the most memory.
 * @param perSample what a triangulation takes now for each of its samples, ms.
 */
export async function* pictureFigures(
  folder: string,
  perSample: () => number,
): AsyncGenerator<{ name: string; times: number; mb: number }> {
  for (const [kind, grey] of Object.entries(greysOf())) {
    const data = Uint8Array.from({ length: PIXELS * PIXELS }, (_, k) => grey(k % PIXELS, Math.floor(k / PIXELS)));
    const file = `${folder}/picture.png`;
    writeFileSync(file, encode({ width: PIXELS, height: PIXELS, data, channels: 1, depth: 8 }));
    for (const dither of ['floyd-steinberg', 'none']) {
      const took: number[] = [];
      let mb = 0;
      for (let round = 0; round < ROUNDS; round++) {
        const reference = perSample() * SAMPLES;
        const args = ['--import', 'tsx', `${ROOT}/command/src/bench-picture.ts`, file, dither, String(WIDE)];
        const { stdout } = spawnSync(process.execPath, args, { cwd: ROOT, encoding: 'utf8' });
        const said = JSON.parse(stdout) as { ms: number; mb: number };
        took.push(said.ms / reference);
        mb = Math.max(mb, said.mb);
      }
      const name = `Picture of 4 million dots, ${kind}, in ${dither === 'none' ? 'greys' : 'dots'}, to a program`;
      yield { name, times: took.toSorted((a, b) => a - b)[ROUNDS >> 1], mb };
    }
  }
}
