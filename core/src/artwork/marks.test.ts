import { expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { importSvg } from './svg.ts';

const marks = (inside: string) =>
  importSvg(
    new TextEncoder().encode(`<svg width="90mm" height="90mm" viewBox="0 0 90 90">${inside}</svg>`),
    clipper,
  ).shapes.map(({ mark }) => mark);

test('a shape is known by its element’s id, or by its place and size', () => {
  expect(marks('<rect id="sky" width="9" height="9"/><rect x="1" y="84" width="3" height="4"/>')).toEqual([
    'id:sky',
    'at:2.5,4;3x4',
  ]);
});
test('an id that several shapes have tells none of them, and shapes in one place are told apart', () => {
  const twice = '<rect id="a" width="3" height="4" y="86"/><rect id="a" x="9" y="86" width="3" height="4"/>';
  expect(marks(twice)).toEqual(['at:1.5,2;3x4', 'at:10.5,2;3x4']);
  const square = '<path d="M7 79h4v4h-4z"/>';
  expect(marks(square + square)).toEqual(['at:9,9;4x4', 'at:9,9;4x4~2']);
});
test('what lies around a shape does not change its mark, nor does its order', () => {
  const [moon, sun] = ['<circle cx="9" cy="9" r="2"/>', '<circle cx="30" cy="9" r="5"/>'];
  expect(marks(moon + sun).toReversed()).toEqual(marks(sun + moon));
  expect(marks(`<rect width="5" height="5"/>${moon}`)[1]).toBe(marks(moon)[0]);
});
