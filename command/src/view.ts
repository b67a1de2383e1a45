import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { parseArgs } from 'node:util';
import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import type { Path } from '@kerbe/core/motion/path';
import { scaleLinear } from 'd3-scale';
import { readFileSync } from 'node:fs';
import { Misuse } from './misuse.ts';
import { programFrom } from './time.ts';

const WIDTH = 1280;
const HEIGHT = 800;
const MARGIN = 60;

/** `./kerbe view PROGRAM.nc --png FILE`: draws any RS-274 program from above, darker where it is deeper. */
export function view(args: string[]): void {
  let parsed;
  try {
    parsed = parseArgs({ args, allowPositionals: true, options: { png: { type: 'string' } } });
  } catch (error) {
    throw new Misuse(`${(error as Error).message} Use: ./kerbe view PROGRAM.nc --png FILE`);
  }
  const { png } = parsed.values;
  if (parsed.positionals.length !== 1 || !png) throw new Misuse('Use: ./kerbe view PROGRAM.nc --png FILE');
  const { path, notes } = programFrom(parsed.positionals[0]);
  writeFileSync(png, drawPath(path));
  for (const note of notes) console.error(note);
  console.log(`Drew ${path.feed.length - 1} moves to ${png}.`);
}

function drawPath({ xyz, rapid }: Path): Buffer {
  const require = createRequire(import.meta.url);
  const font = readFileSync(
    require.resolve('@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff2'),
  );
  GlobalFonts.register(font, 'Mono');
  let [minX, minY, maxX, maxY, lowest] = [Infinity, Infinity, -Infinity, -Infinity, 0];
  for (let i = 0; i < xyz.length; i += 3) {
    minX = Math.min(minX, xyz[i]);
    maxX = Math.max(maxX, xyz[i]);
    minY = Math.min(minY, xyz[i + 1]);
    maxY = Math.max(maxY, xyz[i + 1]);
    lowest = Math.min(lowest, xyz[i + 2]);
  }
  const k = Math.min(
    (WIDTH - 2 * MARGIN) / Math.max(1e-3, maxX - minX),
    (HEIGHT - 2 * MARGIN) / Math.max(1e-3, maxY - minY),
  );
  const sx = (x: number) => MARGIN + (x - minX) * k;
  const sy = (y: number) => HEIGHT - MARGIN - (y - minY) * k;
  const canvas = createCanvas(WIDTH, HEIGHT);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#f3efe2';
  pen.fillRect(0, 0, WIDTH, HEIGHT);
  pen.lineCap = 'round';
  for (let i = 1; i < rapid.length; i++) {
    const depth = lowest < 0 ? Math.min(0, xyz[3 * i + 2]) / lowest : 0;
    pen.strokeStyle = rapid[i]
      ? '#b8351f'
      : `rgb(${[60, 43, 26].map((v, c) => Math.round(v + (1 - depth) * ([170, 140, 100][c] - v))).join()})`;
    pen.lineWidth = rapid[i] ? 0.6 : 1.4;
    pen.setLineDash(rapid ? [1, 4] : []);
    pen.beginPath();
    pen.moveTo(sx(xyz[3 * i - 3]), sy(xyz[3 * i - 2]));
    pen.lineTo(sx(xyz[3 * i]), sy(xyz[3 * i + 1]));
    pen.stroke();
  }
  pen.setLineDash([]);
  pen.fillStyle = '#22282d';
  pen.strokeStyle = '#6b6a61';
  pen.lineWidth = 1;
  pen.font = '14px Mono';
  const ruler = (from: number, to: number, horizontal: boolean) => {
    for (const at of scaleLinear().domain([from, to]).ticks(10)) {
      pen.beginPath();
      if (horizontal) {
        pen.moveTo(sx(at), HEIGHT - 34);
        pen.lineTo(sx(at), HEIGHT - 28);
        pen.textAlign = 'center';
        pen.fillText(String(at), sx(at), HEIGHT - 12);
      } else {
        pen.moveTo(34, sy(at));
        pen.lineTo(40, sy(at));
        pen.textAlign = 'right';
        pen.fillText(String(at), 32, sy(at) + 5);
      }
      pen.stroke();
    }
  };
  ruler(minX, maxX, true);
  ruler(minY, maxY, false);
  pen.textAlign = 'left';
  pen.fillText(`mm from zero; deepest ${(-lowest).toFixed(2)} mm; dotted: lifted`, MARGIN, 24);
  return canvas.toBuffer('image/png');
}
