import { expect, test } from 'vitest';
import { upgraded } from './older-job.ts';

const cut = (fields: object) => (upgraded({ cuts: [fields] }) as { cuts: object[] }).cuts[0];

test.each([
  [{ start: null }, { start: [] }],
  [{ start: { x: 1, y: 2 } }, { start: [{ x: 1, y: 2 }] }],
  [{ start: [{ x: 1, y: 2 }] }, { start: [{ x: 1, y: 2 }] }],
  [{ ramp: 40 }, { ramp: 30 }],
  [{ ramp: 30 }, { ramp: 30 }],
  [{ entry: { kind: 'ramp', angle: 45 } }, { entry: { kind: 'ramp', angle: 30 } }],
  // What no version wrote is left for the schema to refuse.
  [{ ramp: 46 }, { ramp: 46 }],
  [{ ramp: '40' }, { ramp: '40' }],
  [{ entry: 7 }, { entry: 7 }],
])('%j is now %j', (before, after) => expect(cut(before)).toEqual(after));

test('what is no job comes back as it is, and a list beyond all measure is not gone through', () => {
  const cuts = Array.from({ length: 2000 }, () => ({ start: null }));
  for (const odd of [null, 7, 'x', [], { cuts: 3 }, { cuts }]) expect(upgraded(odd)).toBe(odd);
  expect(upgraded({ cuts: [null, 5] })).toEqual({ cuts: [null, 5] });
});

test('version 1 knew shapes by their numbers, and version 2 knows what they were', () => {
  const target = (shapes: unknown) => [{ item: 'a', shapes }];
  expect(upgraded({ version: 1, cuts: [{ targets: target([0, 3]) }, { targets: target('all') }] })).toEqual({
    version: 3,
    cuts: [{ targets: target(['nth:0', 'nth:3']) }, { targets: target('all') }],
  });
  // What no version wrote is left for the schema to refuse.
  expect(upgraded({ version: 1, cuts: [{ targets: target([-1, 0.5, 'x']) }, { targets: 5 }] })).toMatchObject({
    cuts: [{ targets: target([-1, 0.5, 'x']) }, { targets: 5 }],
  });
  expect(upgraded({ version: 2, cuts: [{ targets: target([0]) }] })).toMatchObject({
    cuts: [{ targets: target([0]) }],
  });
});

test('before version 3 every new clamp stood 4 mm high: where nobody has changed that, its height is not known', () => {
  const stock = (height: number | null, kind = 'clamp') => ({ keepOuts: [{ kind, height }] });
  const now = (version: number, before: object) =>
    (upgraded({ version, cuts: [], stock: before }) as { stock: object }).stock;
  for (const version of [1, 2]) {
    expect(now(version, stock(4))).toEqual(stock(null));
    expect(now(version, stock(4.5))).toEqual(stock(4.5));
    expect(now(version, stock(4, 'pin'))).toEqual(stock(4, 'pin'));
  }
  // Since then whoever writes 4 means it.
  expect(now(3, stock(4))).toEqual(stock(4));
  expect(now(2, { keepOuts: [7, null] })).toEqual({ keepOuts: [7, null] });
});
