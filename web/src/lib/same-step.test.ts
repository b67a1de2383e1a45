import { expect, test } from 'vitest';
import { sameStep } from './same-step';

const job = (depths: number[], stock = { length: 300, width: 150 }, words = 'Moon') => ({
  stock,
  artwork: [{ words, x: 0, y: 0 }],
  cuts: depths.map((depth) => ({ depth })),
});

test.each([
  ['the same field twice', job([4]), job([5]), job([6]), true],
  ['a field changed back', job([4]), job([5]), job([4]), true],
  ['words typed on', job([]), job([], undefined, 'Moo'), job([], undefined, 'Mo'), true],
  ['nothing', job([4]), job([5]), job([5]), true],
  ['another field', job([]), job([], { length: 310, width: 150 }), job([], { length: 310, width: 160 }), false],
  ['a field of another cut', job([4, 4]), job([5, 4]), job([5, 5]), false],
  ['a cut added after a field', job([4]), job([5]), job([5, 4]), false],
  ['a field after its cut was added', job([4]), job([4, 4]), job([4, 5]), false],
  ['two cuts added', job([4]), job([4, 4]), job([4, 4, 4]), false],
  ['a cut deleted after a field', job([4, 4]), job([4, 5]), job([4]), false],
])('%s', (_, first, second, third, same) => {
  expect(sameStep(first, second, third)).toBe(same);
});

test('a thing dragged along x and then along y as well is one step, for all that lies in one part', () => {
  const at = (x: number, y: number) => ({ artwork: [{ x, y }] });
  expect(sameStep(at(0, 0), at(5, 0), at(6, 1))).toBe(true);
});

test('a setting that was none before is no list', () => {
  expect(sameStep({ cuts: [{}] }, { cuts: [{ finish: 0.2 }] }, { cuts: [{ finish: 0.3 }] })).toBe(true);
});
