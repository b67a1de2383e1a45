import { expect, test } from 'vitest';
import { BlockWriter } from './block-writer.ts';

test.each([
  [0, '0'],
  [1, '0.001'],
  [-250, '-0.25'],
  [1500, '1.5'],
  [12_000, '12'],
  [-12_340, '-12.34'],
  [999_999, '999.999'],
  [1_000_000, '1000'],
  [2_000_000_007, '2000000.007'],
])('%i thousandths are written as short as they may be: %s', (scaled, text) => {
  const block = new BlockWriter(3);
  block.number(88, scaled);
  block.end();
  expect(block.take()).toEqual({ text: `X${text}`, lines: 1 });
});

test('as many lines as there are, and nothing of those that were taken', () => {
  const block = new BlockWriter(0);
  for (let k = 0; k < 40_000; k++) {
    block.word('G1');
    block.number(83, k);
    block.end();
  }
  const { text, lines } = block.take();
  expect(lines).toBe(40_000);
  expect(text.split('\n')).toHaveLength(40_000);
  expect(text.endsWith('G1S39999')).toBe(true);
  expect(block.take()).toEqual({ text: '', lines: 0 });
});
