import { expect, test } from 'vitest';
import { lookOfMaterial } from './material-look.ts';
import { stepsOf } from './steps.ts';

test.each([
  ['walnut', 'wood'],
  ['birch plywood', 'wood'],
  ['brass', 'metal'],
  ['galvanised steel', 'metal'],
  ['cast acrylic', 'plain'],
  ['', 'plain'],
] as const)('%s is drawn as %s', (material, look) => {
  expect(lookOfMaterial(material)).toBe(look);
});

test('steps are what stands between semicolons, if anything does', () => {
  expect(stepsOf(' cover it ;; let it settle; ')).toEqual(['cover it', 'let it settle']);
  expect(stepsOf(undefined)).toEqual([]);
});
