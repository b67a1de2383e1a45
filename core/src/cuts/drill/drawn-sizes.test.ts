import { expect, test } from 'vitest';
import { drawnSizes, drawnWords } from './drawn-sizes.ts';

const bit = { name: 'Drill 4', diameter: 4 };
const facts = (...diameters: (number | undefined)[]) => ({ holes: diameters.map((diameter) => ({ x: 0, y: 0, diameter })), lost: 0 }); // prettier-ignore

test('circles as wide as the bit, to a tenth, and points are as drawn', () => {
  expect(drawnSizes(facts(4, 4.1, 3.9, undefined, 0, 0.19), bit)).toEqual({ larger: [], smaller: [] });
  expect(drawnSizes(facts(6, 4, 3.8, 4.2, 2), bit)).toEqual({ larger: [4.2, 6], smaller: [2, 3.8] });
  expect(drawnSizes(undefined, bit)).toEqual({ larger: [], smaller: [] });
});

test('how wide they are drawn, and how wide they come out', () => {
  expect(drawnWords([2], bit, 'mm')).toBe('One circle is drawn 2 mm wide, and Drill 4 makes holes of 4 mm.');
  expect(drawnWords([2, 2], bit, 'mm')).toBe('2 circles are drawn 2 mm wide, and Drill 4 makes holes of 4 mm.');
  expect(drawnWords([2, 3.8], bit, 'in')).toBe('2 circles are drawn 0.079 in to 0.15 in wide, and Drill 4 makes holes of 0.157 in.'); // prettier-ignore
});
