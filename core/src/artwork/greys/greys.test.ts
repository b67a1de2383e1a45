import { describe, expect, test } from 'vitest';
import { dither, DITHERS } from './dither.ts';
import { sampled } from './sampled.ts';
import { toneTable } from './tone.ts';

const all = (n: number) => new Uint8Array(n).fill(1);
const WHOLE = { left: 0, top: 0, right: 0, bottom: 0 };

describe('dots of greys', () => {
  test('Floyd and Steinberg by hand, 2 by 2', () => {
    // 100 is burnt: its 100 go right (43.75), down (31.25) and beyond (6.25). 243.75 stays: −11.25 go down left (−2.11) and
    // down (−3.52). 79.14 is burnt: 34.62 go right. 187.36 stays.
    expect([...dither(Uint8Array.of(100, 200, 50, 150), all(4), 2, 'floyd-steinberg')]).toEqual([1, 0, 1, 0]);
  });

  test('Jarvis, Judice and Ninke by hand, one line', () => {
    // 120 is burnt and gives 7/48 (17.5) and 5/48 (12.5) on: 137.5 stays and gives −117.5 · 7/48 = −17.14; 115.4 is burnt.
    expect([...dither(Uint8Array.of(120, 120, 120), all(3), 3, 'jarvis')]).toEqual([1, 0, 1]);
  });

  test('Atkinson by hand, one line', () => {
    // 100 is burnt and gives an eighth (12.5) to the next two: 140.5 and 140.5 − 14.3 = 126.2.
    expect([...dither(Uint8Array.of(100, 128, 128), all(3), 3, 'atkinson')]).toEqual([1, 0, 1]);
  });

  test.each(DITHERS.filter((by) => by !== 'threshold' && by !== 'atkinson'))(
    '%s keeps the mean grey within 0.5 %%',
    (by) => {
      const columns = 400;
      for (const kind of ['flat', 'ramp', 'waves']) {
        const greys = Uint8Array.from({ length: columns * 400 }, (_, k) => {
          const [x, y] = [k % columns, Math.floor(k / columns)];
          return kind === 'flat'
            ? 77
            : kind === 'ramp'
              ? (255 * x) / columns
              : 127 + 100 * Math.sin(x / 23) * Math.cos(y / 31);
        });
        const dots = dither(greys, all(greys.length), columns, by);
        const meant = greys.reduce((sum, grey) => sum + (255 - grey), 0) / 255 / greys.length;
        const burnt = dots.reduce((sum, dot) => sum + dot, 0) / dots.length;
        expect(Math.abs(burnt - meant), kind).toBeLessThan(0.005);
      }
    },
  );

  test('what is not taken stays blank, and the threshold is the middle grey', () => {
    expect([...dither(Uint8Array.of(0, 0), Uint8Array.of(0, 1), 2, 'floyd-steinberg')]).toEqual([0, 1]);
    expect([...dither(Uint8Array.of(127, 128), all(2), 2, 'threshold')]).toEqual([1, 0]);
  });

  test('the pattern has a dot more for each grey that is darker', () => {
    const shares = Array.from({ length: 256 }, (_, grey) =>
      dither(new Uint8Array(256).fill(grey), all(256), 16, 'ordered').reduce((sum, dot) => sum + dot, 0),
    );
    expect(shares).toEqual(Array.from({ length: 256 }, (_, grey) => 255 - grey));
  });
});

describe('a picture on dots', () => {
  const grey = { width: 4, height: 2, greys: Uint8Array.of(0, 50, 100, 150, 200, 210, 220, 230) };

  test('pixels as large as dots come out as they are, from the top', () => {
    const got = sampled({ grey, map: [0.1, 0, 0, -0.1, 5, 7] }, WHOLE, 0.1, 0, () => {});
    expect([got.columns, got.rows, ...got.greys]).toEqual([4, 2, ...grey.greys]);
    expect(got.u).toBeCloseTo(5, 9);
    expect(got.v).toBeCloseTo(6.8, 9);
  });

  test('turned by a quarter, its lines run along its columns', () => {
    const got = sampled({ grey, map: [0.1, 0, 0, -0.1, 0, 0.2] }, WHOLE, 0.1, Math.PI / 2, () => {});
    // Along y now: each row of dots is a column of pixels, from its foot; the topmost is the leftmost.
    expect([got.columns, got.rows]).toEqual([2, 4]);
    expect([...got.greys]).toEqual([200, 0, 210, 50, 220, 100, 230, 150]);
  });

  test('finer pictures are meant, and cut off where asked', () => {
    const got = sampled({ grey, map: [0.05, 0, 0, -0.05, 0, 0.1] }, WHOLE, 0.1, 0, () => {});
    expect([...got.greys]).toEqual([115, 175]);
    const right = sampled({ grey, map: [0.1, 0, 0, -0.1, 0, 0.2] }, { ...WHOLE, left: 0.5 }, 0.1, 0, () => {});
    expect([...right.greys]).toEqual([100, 150, 220, 230]);
  });

  test('the mean of a large picture is kept when it is made a twentieth as large', () => {
    const large = { width: 2000, height: 1000, greys: Uint8Array.from({ length: 2e6 }, (_, k) => (k * 7919) % 256) };
    const got = sampled({ grey: large, map: [0.005, 0, 0, -0.005, 0, 5] }, WHOLE, 0.1, 0, () => {});
    expect([got.columns, got.rows]).toEqual([100, 50]);
    const mean = (greys: Uint8Array) => greys.reduce((sum, v) => sum + v, 0) / greys.length;
    expect(Math.abs(mean(got.greys) - mean(large.greys))).toBeLessThan(1);
  });

  test('aslant, dots beside the picture are blank', () => {
    const oblong = { width: 20, height: 5, greys: new Uint8Array(100) };
    const got = sampled({ grey: oblong, map: [1, 0, 0, -1, 0, 5] }, WHOLE, 0.5, Math.PI / 4, () => {});
    const inside = got.inside.reduce((sum, v) => sum + v, 0);
    // 100 mm² in dots of a quarter.
    expect(Math.abs(inside - 400)).toBeLessThan(12);
    expect(got.greys.every((v, k) => v === (got.inside[k] ? 0 : 255))).toBe(true);
  });
});

test('tones: brightness by share of white, contrast about the middle, gamma between the ends', () => {
  const plain = { brightness: 0, contrast: 0, gamma: 1, inverted: false };
  expect([...toneTable(plain)]).toEqual(Array.from({ length: 256 }, (_, k) => k));
  expect(toneTable({ ...plain, brightness: 20 })[100]).toBe(151);
  expect(toneTable({ ...plain, contrast: -50 })[0]).toBe(64);
  expect(toneTable({ ...plain, contrast: 100 })[160]).toBe(255);
  const gamma = toneTable({ ...plain, gamma: 2 });
  expect([gamma[0], gamma[64], gamma[255]]).toEqual([0, Math.round(255 * Math.sqrt(64 / 255)), 255]);
});
