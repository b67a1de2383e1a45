import { describe, expect, test } from 'vitest';
import { atAnEnd, besideBit, figureStretch, nameWidth } from './section-labels.ts';

const NAME = 'V 60° 12.7';

describe('the name of the bit', () => {
  test('stands to its right', () => {
    expect(besideBit(NAME, { x: 400, half: 8 }, 900)).toEqual({ x: 416, anchor: 'start', clear: true });
  });

  test('stands to its left where the picture ends, or a dimension stands to its right', () => {
    expect(besideBit(NAME, { x: 860, half: 8 }, 900)).toEqual({ x: 844, anchor: 'end', clear: true });
    const dimension = figureStretch('12.4 mm', 440, 470);
    expect(besideBit(NAME, { x: 400, half: 8 }, 900, dimension)).toEqual({ x: 384, anchor: 'end', clear: true });
  });

  test('a dimension over the bit, or on both its sides, is left out', () => {
    expect(besideBit(NAME, { x: 400, half: 8 }, 900, figureStretch('12.4 mm', 395, 425)).clear).toBe(false);
    expect(besideBit(NAME, { x: 400, half: 2 }, 900, figureStretch('212.4 mm', 100, 700)).clear).toBe(false);
  });

  test('a long one stays in a narrow picture', () => {
    const name = 'Fibre beam 0.12, pressed 0.05 mm';
    const { x, anchor, clear } = besideBit(name, { x: 150, half: 10 }, 300, figureStretch('3 mm', 10, 20));
    expect([x + nameWidth(name), anchor, clear]).toEqual([300, 'start', false]);
  });

  test.each(Array.from({ length: 40 }, (_, k) => k))('lies over nothing that is said to be clear, place %i', (k) => {
    const bit = { x: 44 + 19.3 * k, half: 3 + (k % 5) * 6 };
    for (let from = 40; from < 820; from += 13) {
      const dimension = figureStretch('41.2 mm', from, from + 5 + (from % 60));
      const { x, anchor, clear } = besideBit(NAME, bit, 900, dimension);
      const [a, b] = anchor === 'start' ? [x, x + nameWidth(NAME)] : [x - nameWidth(NAME), x];
      expect(a).toBeGreaterThanOrEqual(0);
      expect(b).toBeLessThanOrEqual(900);
      // Never over the bit itself.
      expect(b <= bit.x - bit.half || a >= bit.x + bit.half).toBe(true);
      if (clear) expect(b <= dimension.from || a >= dimension.to).toBe(true);
    }
  });
});

describe('what lies under the stock', () => {
  const stock = { from: 60, to: 760 };
  test('is written at its left, at its right where a depth is written there, and not where both ends are taken', () => {
    expect(atAnEnd('spoilboard 18 mm', stock)).toEqual({ x: 68, anchor: 'start' });
    expect(atAnEnd('spoilboard 18 mm', stock, figureStretch('6.5 mm deep', 120, 120))).toEqual({
      x: 752,
      anchor: 'end',
    });
    expect(atAnEnd('spoilboard 18 mm', { from: 60, to: 220 }, figureStretch('6.5 mm deep', 140, 140))).toBeUndefined();
  });
});
