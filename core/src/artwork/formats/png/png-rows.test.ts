import { convertIndexedToRgb, decode } from 'fast-png';
import { crc32, createDeflate, deflateSync } from 'node:zlib';
import { expect, test } from 'vitest';
import { random } from '../../../../../tests/faults/random.ts';
import { clipper } from '../../../geometry/clipper-for-tests.ts';
import { greysFrom } from '../../greys/grey-map.ts';
import { importArtwork } from '../formats.ts';
import { SAMPLES } from './png-rows.ts';

const u32 = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];
function chunk(name: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(name, 'latin1'), data]);
  return Buffer.concat([Buffer.from(u32(data.length)), body, Buffer.from(u32(crc32(body)))]);
}
interface Made {
  width: number;
  height: number;
  depth: number;
  colour: number;
  interlaced?: boolean;
}
const file = ({ width, height, depth, colour, interlaced = false }: Made, data: Uint8Array, more: Buffer[] = []) =>
  Buffer.concat([
    Buffer.of(137, 80, 78, 71, 13, 10, 26, 10),
    chunk('IHDR', Buffer.from([...u32(width), ...u32(height), depth, colour, 0, 0, Number(interlaced)])),
    ...more,
    chunk('IDAT', data),
    chunk('IEND', Buffer.alloc(0)),
  ]);
const greysOf = (bytes: Uint8Array) => importArtwork(bytes, clipper).shapes[0].greys!.grey;

/** How many rows and pixels each pass of a picture has (ISO/IEC 15948, 8.2). */
const passes = ({ width, height, interlaced }: Made): [number, number][] =>
  (interlaced ? ['0 0 8 8', '4 0 8 8', '0 4 4 8', '2 0 4 4', '0 2 2 4', '1 0 2 2', '0 1 1 2'] : ['0 0 1 1'])
    .map((text) => text.split(' ').map(Number))
    .map(([x, y, dx, dy]): [number, number] => [Math.ceil((width - x) / dx), Math.ceil((height - y) / dy)])
    .filter(([columns, rows]) => columns > 0 && rows > 0);

/** Rows of any bytes, each behind the number of any filter. */
function anyRows(made: Made, dice: () => number, most = 256): Buffer {
  const out: number[] = [];
  for (const [columns, rows] of passes(made))
    for (let y = 0; y < rows; y++) {
      out.push(most < 256 ? 0 : Math.floor(dice() * 5));
      const length = Math.ceil((columns * SAMPLES[made.colour] * made.depth) / 8);
      for (let k = 0; k < length; k++) out.push(Math.floor(dice() * most));
    }
  return Buffer.from(out);
}

const KINDS = [
  [0, 8],
  [0, 16],
  [2, 8],
  [2, 16],
  [3, 8],
  [4, 8],
  [4, 16],
  [6, 8],
  [6, 16],
] as const;

test.each(KINDS)(
  'colour type %i of %i bits: any bytes under any filter, as another reader has them',
  (colour, depth) => {
    const dice = random(100 * colour + depth);
    for (const interlaced of colour === 3 ? [false] : [false, true])
      for (let k = 0; k < 12; k++) {
        const made = {
          width: 1 + Math.floor(dice() * 40),
          height: 1 + Math.floor(dice() * 30),
          depth,
          colour,
          interlaced,
        };
        const palette = chunk('PLTE', Buffer.from(Array.from({ length: 192 }, () => Math.floor(dice() * 256))));
        const rows = anyRows(made, dice, colour === 3 ? 64 : 256);
        const bytes = file(made, deflateSync(rows), colour === 3 ? [palette] : []);
        const other = decode(bytes);
        const data = other.palette ? convertIndexedToRgb(other) : other.data;
        const channels = other.palette ? other.palette[0].length : other.channels;
        const wanted = greysFrom(data, made.width, made.height, channels, other.depth === 16 ? 65_535 : 255);
        expect([...greysOf(bytes).greys]).toEqual([...wanted.greys]);
      }
  },
);

test('a small picture whose data inflate to 600 MB takes the memory of a small picture', async () => {
  const deflating = createDeflate({ level: 9 });
  const parts: Buffer[] = [];
  deflating.on('data', (part: Buffer) => parts.push(part));
  const ended = new Promise((resolve) => deflating.on('end', resolve));
  const zeros = Buffer.alloc(6_000_000);
  for (let k = 0; k < 100; k++)
    if (!deflating.write(zeros)) await new Promise((resolve) => deflating.once('drain', resolve));
  deflating.end();
  await ended;
  const bytes = file({ width: 50, height: 40, depth: 8, colour: 0 }, Buffer.concat(parts));
  const before = process.memoryUsage().rss;
  const { greys } = greysOf(bytes);
  expect(greys).toHaveLength(2000);
  expect(process.memoryUsage().rss - before).toBeLessThan(150e6);
});

test('a picture that ends early, has a filter or a colour that there is not, is broken', () => {
  const made = { width: 3, height: 5, depth: 8, colour: 0 };
  const whole = deflateSync(Buffer.alloc(20));
  expect(greysOf(file(made, whole)).greys).toHaveLength(15);
  for (const bytes of [
    file(made, deflateSync(Buffer.alloc(19))),
    file(made, whole.subarray(0, 5)),
    file(made, deflateSync(Buffer.alloc(20, 7))),
    file({ ...made, colour: 5 }, whole),
    file({ ...made, depth: 3 }, whole),
    file({ ...made, colour: 3 }, whole),
    file({ ...made, colour: 3 }, deflateSync(Buffer.from([0, 9, 9, 9, 9])), [chunk('PLTE', Buffer.alloc(3))]),
    file(made, whole).subarray(0, 45),
  ])
    expect(() => greysOf(bytes)).toThrow(/broken/);
});
