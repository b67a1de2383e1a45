import { expect, test } from 'vitest';
import type { ItemView } from '../workers/job-view.ts';
import { outlineTree, rowsOf } from './outline-tree.ts';

const item = (id: string, shapes: object[]) => ({ id, shapes }) as unknown as ItemView;
const letters = item('words', [
  { name: 'M', line: 0, word: 0 },
  { name: 'i', line: 0, word: 0 },
  { name: 't', line: 0, word: 1 },
  { name: 'O', line: 1, word: 2 },
]);
const drawing = item('sky', [
  { name: 'star 1', layer: 'stars' },
  { name: 'house' },
  { name: 'star 2', layer: 'stars' },
  ...Array.from({ length: 130 }, (_, k) => ({ name: `dot ${k + 1}` })),
]);
const tree = outlineTree([letters, drawing], (id) => `The ${id}`);

test('lettering is listed by lines and letters, a drawing by layers and shapes, long runs in hundreds', () => {
  const told = (open: string[]) =>
    rowsOf(tree, new Set(open)).map(({ node, level }) => `${level} ${node.label} ${node.shapes.length}`);
  expect(told([])).toEqual(['1 The words 4', '1 The sky 133']);
  expect(told(['words', 'words/line-0'])).toEqual([
    '1 The words 4',
    '2 Mi t 3',
    '3 M 1',
    '3 i 1',
    '3 t 1',
    '2 O 1',
    '1 The sky 133',
  ]);
  expect(told(['sky'])).toEqual(['1 The words 4', '1 The sky 133', '2 Layer stars 2', '2 1 to 100 100', '2 101 to 131 31']); // prettier-ignore
});

test('a row knows what it belongs to, and a layer that it is one', () => {
  const [, sky, stars, star] = rowsOf(tree, new Set(['sky', 'sky/layer-stars']));
  expect([stars.parent, star.parent]).toEqual([sky.node.id, stars.node.id]);
  expect([stars.node.layer, star.node.layer]).toEqual(['stars', undefined]);
});
