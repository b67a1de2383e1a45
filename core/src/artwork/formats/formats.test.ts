import { describe, expect, test } from 'vitest';
import { crc32, deflateSync } from 'node:zlib';
import jpeg from 'jpeg-js';
import { clipper } from '../../geometry/clipper-for-tests.ts';
import { importArtwork, pageOfArtwork } from './formats.ts';

const read = (bytes: Uint8Array) => {
  const { width, height, shapes, notes } = importArtwork(bytes, clipper);
  return { width, height, notes, grey: shapes[0].greys!.grey };
};
const u32 = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];

function chunk(name: string, data: readonly number[] | Uint8Array): Uint8Array {
  const body = Uint8Array.of(...[...name].map((c) => c.charCodeAt(0)), ...data);
  return Uint8Array.of(...u32(data.length), ...body, ...u32(crc32(body)));
}
/** A PNG by ISO/IEC 15948: rows with their filter byte. */
function png(width: number, height: number, depth: number, colour: number, rows: number[][], more: Uint8Array[] = []) {
  const parts = [
    Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10),
    chunk('IHDR', [...u32(width), ...u32(height), depth, colour, 0, 0, 0]),
    ...more,
    chunk('IDAT', deflateSync(Uint8Array.from(rows.flatMap((row) => [0, ...row])))),
    chunk('IEND', []),
  ];
  return Uint8Array.from(parts.flatMap((part) => [...part]));
}

describe('PNG', () => {
  test('greys of 1, 2, 4, 8 and 16 bits', () => {
    expect([...read(png(9, 1, 1, 0, [[0b10100101, 0b10000000]])).grey.greys]).toEqual([
      255, 0, 255, 0, 0, 255, 0, 255, 255,
    ]);
    expect([...read(png(4, 1, 2, 0, [[0b00011011]])).grey.greys]).toEqual([0, 85, 170, 255]);
    expect([...read(png(2, 1, 4, 0, [[0x0f]])).grey.greys]).toEqual([0, 255]);
    expect([...read(png(2, 1, 8, 0, [[7, 250]])).grey.greys]).toEqual([7, 250]);
    expect([...read(png(2, 1, 16, 0, [[0, 0, 0x80, 0x00]])).grey.greys]).toEqual([0, 128]);
  });

  test('colours by their luma (BT.601), what is clear as white, and palettes', () => {
    expect([...read(png(3, 1, 8, 2, [[255, 0, 0, 0, 255, 0, 0, 0, 255]])).grey.greys]).toEqual([76, 150, 29]);
    expect([...read(png(2, 1, 8, 6, [[0, 0, 0, 255, 0, 0, 0, 0]])).grey.greys]).toEqual([0, 255]);
    expect([...read(png(2, 1, 8, 4, [[0, 128, 100, 255]])).grey.greys]).toEqual([127, 100]);
    const palette = [chunk('PLTE', [10, 10, 10, 200, 200, 200])];
    expect([...read(png(2, 1, 8, 3, [[1, 0]], palette)).grey.greys]).toEqual([200, 10]);
    const clear = [...palette, chunk('tRNS', [0])];
    expect([...read(png(2, 1, 8, 3, [[1, 0]], clear)).grey.greys]).toEqual([200, 255]);
  });

  test('true size by pHYs (11.3.5.3), in metres only; without it 96 an inch, and said', () => {
    const grey = [[1, 2, 3, 4]];
    const by = (x: number, y: number, unit: number) => read(png(4, 1, 8, 0, grey, [chunk('pHYs', [...u32(x), ...u32(y), unit])])); // prettier-ignore
    expect(by(10_000, 5000, 1)).toMatchObject({ width: 0.4, height: 0.2, notes: [] });
    expect(by(10_000, 5000, 0).width).toBeCloseTo((4 * 25.4) / 96, 9);
    expect(read(png(4, 1, 8, 0, grey)).notes[0]).toContain('does not say how large it is');
    expect(pageOfArtwork(png(4, 1, 8, 0, grey, [chunk('pHYs', [...u32(10_000), ...u32(5000), 1])]))).toEqual({ width: 0.4, height: 0.2 }); // prettier-ignore
  });

  test('one pixel is a picture; a broken one and one of 200 million pixels are said', () => {
    expect([...read(png(1, 1, 8, 0, [[9]])).grey.greys]).toEqual([9]);
    const good = png(4, 4, 8, 0, [[1, 2, 3, 4], [1, 2, 3, 4], [1, 2, 3, 4], [1, 2, 3, 4]]); // prettier-ignore
    for (const length of [20, 40, 50]) expect(() => read(good.slice(0, length))).toThrow(/PNG is broken/);
    const bent = good.slice();
    bent[45] ^= 255;
    expect(() => read(bent)).toThrow(/PNG is broken/);
    const huge = png(20_000, 10_000, 8, 0, [[0]]);
    expect(() => read(huge)).toThrow(/200 million pixels, and 100 million are the most; make it smaller/);
    expect(() => read(png(0, 1, 8, 0, [[]]))).toThrow(/no size/);
  });
});

describe('JPEG', () => {
  const pixels = (w: number, h: number, grey: (x: number, y: number) => number) => {
    const data = new Uint8Array(4 * w * h);
    for (let k = 0; k < w * h; k++)
      data.fill(grey(k % w, Math.floor(k / w)), 4 * k, 4 * k + 3).fill(255, 4 * k + 3, 4 * k + 4);
    return Uint8Array.from(jpeg.encode({ width: w, height: h, data }, 95).data);
  };
  /** The same with JFIF's density changed (ITU-T T.871: units at byte 7 of the segment's body, then X and Y). */
  const dense = (bytes: Uint8Array, unit: number, x: number, y: number) => {
    const out = bytes.slice();
    expect(String.fromCharCode(...out.subarray(6, 10))).toBe('JFIF');
    out.set([unit, x >> 8, x & 255, y >> 8, y & 255], 13);
    return out;
  };
  const half = pixels(32, 16, (x) => (x < 16 ? 20 : 230));

  test('greys, and its size by dots an inch or a centimetre; without a unit 96 an inch', () => {
    const { grey } = read(half);
    expect(Math.abs(grey.greys[3 * 32 + 4] - 20)).toBeLessThan(4);
    expect(Math.abs(grey.greys[3 * 32 + 28] - 230)).toBeLessThan(4);
    expect(read(dense(half, 1, 127, 254))).toMatchObject({ width: 6.4, height: 1.6 });
    expect(read(dense(half, 2, 100, 100))).toMatchObject({ width: 3.2, height: 1.6 });
    expect(read(dense(half, 0, 1, 1)).width).toBeCloseTo((32 * 25.4) / 96, 9);
  });

  test('turned upright as its Exif says', () => {
    /** An Exif segment with an orientation, in the order of bytes of either kind of camera. */
    const held = (orientation: number) => {
      const body = [0x45, 0x78, 0x69, 0x66, 0, 0, 0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0, 0, 0, 0, 0]; // prettier-ignore
      return Uint8Array.of(...half.subarray(0, 2), 0xff, 0xe1, 0, body.length + 2, ...body, ...half.subarray(2));
    };
    const dark = (orientation: number) => {
      const { width, greys } = read(held(orientation)).grey;
      const at = (x: number, y: number) => (greys[y * width + x] < 128 ? 1 : 0);
      return width === 32 ? [width, at(4, 8), at(28, 8)] : [width, at(8, 4), at(8, 28)];
    };
    expect(dark(1)).toEqual([32, 1, 0]);
    expect(dark(2)).toEqual([32, 0, 1]);
    expect(dark(3)).toEqual([32, 0, 1]);
    expect(dark(4)).toEqual([32, 1, 0]);
    // Turned by a quarter clockwise, what was on the left is above.
    expect(dark(6)).toEqual([16, 1, 0]);
    expect(dark(8)).toEqual([16, 0, 1]);
  });

  test('inks of a press, twelve bits, cut off files and too many pixels are said', () => {
    const frame = half.findIndex((byte, k) => byte === 0xff && half[k + 1] === 0xc0);
    const changed = (at: number, ...bytes: number[]) => {
      const out = half.slice();
      out.set(bytes, frame + at);
      return out;
    };
    expect(() => read(changed(9, 4))).toThrow(/CMYK.*save it in RGB/);
    expect(() => read(changed(4, 12))).toThrow(/12 bits a sample/);
    expect(() => read(changed(5, 0xff, 0xff, 0xff, 0xff))).toThrow(/million pixels/);
    expect(() => read(half.slice(0, frame + 3))).toThrow(/JPEG is broken/);
    expect(() => read(half.slice(0, 30))).toThrow(/JPEG is broken/);
  });
});

describe('BMP', () => {
  /** Rows of bytes as they stand in the file, each filled up to four. */
  function bmp(width: number, height: number, bits: number, rows: number[][], palette: number[][] = [], perMetre = 0) {
    const head = new DataView(new ArrayBuffer(54));
    const pixels = 54 + 4 * palette.length;
    head.setUint16(0, 0x424d);
    head.setUint32(10, pixels, true);
    head.setUint32(14, 40, true);
    head.setInt32(18, width, true);
    head.setInt32(22, height, true);
    head.setUint16(26, 1, true);
    head.setUint16(28, bits, true);
    head.setInt32(38, perMetre, true);
    head.setInt32(42, perMetre, true);
    head.setUint32(46, palette.length, true);
    const filled = rows.flatMap((row) => [...row, ...new Array<number>((4 - (row.length % 4)) % 4).fill(0)]);
    return Uint8Array.of(...new Uint8Array(head.buffer), ...palette.flatMap(([r, g, b]) => [b, g, r, 0]), ...filled);
  }

  test('from the bottom up and from the top down, by palette and in colour', () => {
    expect([...read(bmp(1, 2, 24, [[1, 1, 1], [9, 9, 9]])).grey.greys]).toEqual([9, 1]); // prettier-ignore
    expect([...read(bmp(1, -2, 24, [[1, 1, 1], [9, 9, 9]])).grey.greys]).toEqual([1, 9]); // prettier-ignore
    expect([...read(bmp(2, 1, 24, [[0, 0, 255, 255, 0, 0]])).grey.greys]).toEqual([76, 29]);
    const two = [[10, 10, 10], [240, 240, 240]]; // prettier-ignore
    expect([...read(bmp(3, 1, 1, [[0b10100000]], two)).grey.greys]).toEqual([240, 10, 240]);
    expect([...read(bmp(3, 1, 4, [[0x10, 0x10]], two)).grey.greys]).toEqual([240, 10, 240]);
    expect([...read(bmp(3, 1, 8, [[0, 1, 0]], two)).grey.greys]).toEqual([10, 240, 10]);
    expect(read(bmp(2, 1, 24, [[0, 0, 0, 0, 0, 0]], [], 10_000)).width).toBeCloseTo(0.2, 9);
  });

  test('packed and cut off ones are said', () => {
    const packed = bmp(2, 1, 8, [[0, 1]], [[0, 0, 0]]);
    packed[30] = 1;
    expect(() => read(packed)).toThrow(/packed.*save it as PNG/);
    expect(() => read(bmp(20, 20, 24, [[0, 0, 0]]))).toThrow(/BMP is broken/);
    expect(() => read(bmp(30_000, 30_000, 24, [[0]]))).toThrow(/million pixels/);
  });
});

test('what is none of them is said as for a drawing', () => {
  expect(() => read(Uint8Array.of(1, 2, 3))).toThrow();
});
