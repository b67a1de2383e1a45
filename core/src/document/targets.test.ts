import { describe, expect, test } from 'vitest';
import { TargetSchema } from './cut.ts';
import { chooseLayer, chooseShapes, chosenOf, settled } from './targets.ts';

/** In where it is out, and out where it is in. */
const toggled: (
  ...of: [Parameters<typeof chooseShapes>[0], string, number, Parameters<typeof chooseShapes>[4]]
) => ReturnType<typeof chooseShapes> = (targets, item, shape, shapes) =>
  chooseShapes(targets, item, [shape], !chosenOf(targets, item, shapes).numbers.has(shape), shapes);

const shapes = ['p', 'q', 'r'].map((mark) => ({ mark }));
const numbers = (marks: string[], of: { mark: string; layer?: string }[]) => {
  const { numbers, lost } = chosenOf([{ item: 'a', shapes: marks }], 'a', of);
  return { numbers: [...numbers].sort(), lost };
};

test('shapes are added and taken out, and a full item counts as whole', () => {
  const one = toggled([], 'a', 2, shapes);
  expect(one).toEqual([{ item: 'a', shapes: ['r'] }]);
  const two = toggled(one, 'a', 0, shapes);
  expect(two).toEqual([{ item: 'a', shapes: ['p', 'r'] }]);
  const all = toggled(two, 'a', 1, shapes);
  expect(all).toEqual([{ item: 'a', shapes: 'all' }]);
  expect(toggled(all, 'a', 1, shapes)).toEqual(two);
  expect(toggled(one, 'a', 2, shapes)).toEqual([]);
  expect(toggled([{ item: 'b', shapes: ['p'] }], 'a', 0, [{ mark: 'p' }])).toHaveLength(2);
});
test('a whole item takes in every shape, another item none', () => {
  expect(chosenOf([{ item: 'a', shapes: 'all' }], 'a', shapes).numbers.size).toBe(3);
  expect(chosenOf([{ item: 'b', shapes: 'all' }], 'a', shapes).numbers.size).toBe(0);
});

describe('when artwork changes', () => {
  test('marks follow their shapes to other numbers', () => {
    expect(numbers(['r', 'p'], [{ mark: 'new' }, { mark: 'r' }, { mark: 'q' }, { mark: 'p' }])).toEqual({ numbers: [1, 3], lost: [] }); // prettier-ignore
  });
  test('a shape that moved is found by its size, and one that grew by its place; each of them once', () => {
    const now = [{ mark: 'at:9,5;2x2' }, { mark: 'at:40,5;2x2' }, { mark: 'at:70,5;8x8' }];
    expect(numbers(['at:5,5;2x2'], now)).toEqual({ numbers: [0], lost: [] });
    expect(numbers(['at:70,5;3x3'], now)).toEqual({ numbers: [2], lost: [] });
    expect(numbers(['at:5,5;2x2', 'at:9,5;2x2', 'at:44,5;2x2'], now)).toEqual({
      numbers: [0, 1],
      lost: ['at:44,5;2x2'],
    });
  });
  test('what was found by size or place only is told apart', () => {
    const now = [{ mark: 'at:9,5;2x2' }, { mark: 'at:70,5;8x8' }];
    const { guessed } = chosenOf([{ item: 'a', shapes: ['at:9,5;2x2', 'at:70,5;3x3'] }], 'a', now);
    expect(guessed).toEqual([1]);
  });
  test('long names, and signs of two halves, are kept in part', () => {
    const layer = '🜨'.repeat(200);
    const [{ shapes: marks }] = chooseLayer([], 'a', layer, true, [{ mark: 'p', layer }, { mark: 'q' }]);
    expect(TargetSchema.safeParse({ item: 'a', shapes: marks }).success).toBe(true);
    expect([...chosenOf([{ item: 'a', shapes: marks }], 'a', [{ mark: 'p', layer }, { mark: 'q' }]).numbers]).toEqual([
      0,
    ]);
  });
  test('what is gone is lost: an id is never guessed', () => {
    expect(numbers(['id:moon', 'at:5,5;3x3'], [{ mark: 'id:sun' }, { mark: 'at:5,9;2x2' }])).toEqual({
      numbers: [],
      lost: ['id:moon', 'at:5,5;3x3'],
    });
  });
  test('a layer takes in what comes to lie in it, and stays one while all of it is chosen', () => {
    const before = [{ mark: 'p', layer: 'cut' }, { mark: 'q', layer: 'cut' }, { mark: 'r', layer: 'score' }, { mark: 's' }]; // prettier-ignore
    const chosen = chooseLayer([], 'a', 'cut', true, before);
    expect(chosen).toEqual([{ item: 'a', shapes: ['layer:cut'] }]);
    const after = [...before, { mark: 't', layer: 'cut' }];
    expect([...chosenOf(chosen, 'a', after).numbers]).toEqual([0, 1, 4]);
    expect(chooseShapes(chosen, 'a', [2], true, after)).toEqual([{ item: 'a', shapes: ['layer:cut', 'r'] }]);
    expect(chooseShapes(chosen, 'a', [1], false, after)).toEqual([{ item: 'a', shapes: ['p', 't'] }]);
    expect(chooseLayer(chosen, 'a', 'cut', false, after)).toEqual([]);
    expect(chosenOf(chosen, 'a', [{ mark: 's' }]).lost).toEqual(['layer:cut']);
  });
  test('numbers of older documents are settled to marks; what is beyond the drawing stays as it is', () => {
    const old = [
      { item: 'a', shapes: ['nth:2', 'nth:7'] },
      { item: 'b', shapes: ['nth:0'] },
    ];
    expect(settled(old, 'a', shapes)).toEqual([{ item: 'a', shapes: ['r', 'nth:7'] }, old[1]]);
    expect(numbers(['nth:2', 'nth:3'], shapes)).toEqual({ numbers: [2], lost: ['nth:3'] });
  });
});
