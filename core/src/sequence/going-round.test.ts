import { describe, expect, test } from 'vitest';
import { PathBuilder } from '../motion/path.ts';
import type { CutResult } from './cut-result.ts';
import { dryCuts } from './dry-cuts.ts';
import { framingCut } from './framing-cut.ts';

/** A burnt triangle, come to from far off. */
const builder = new PathBuilder();
builder.rapid(-50, -50, 5);
builder.rapid(10, 10, 5);
builder.to(10, 10, -1, 300, 1);
builder.to(40, 10, -1, 1000, 1);
builder.to(10, 30, -1, 1000, 1);
builder.to(10, 10, -1, 1000, 1);
builder.rapid(10, 10, 5);
const cut = { id: 'a', path: builder.done(), power: 0.8, air: true } as unknown as CutResult;
const places = ({ path: { xyz } }: CutResult) => Array.from({ length: xyz.length / 3 }, (_, k) => [...xyz.slice(3 * k, 3 * k + 3)]); // prettier-ignore

describe('gone round with nothing on', () => {
  test('by its paths: as high as what it is come to over, or as it goes itself, the spot where the tool would be', () => {
    for (const [approach, high] of [
      [undefined, 5],
      [3, 5],
      [20, 20],
    ] as const) {
      const [dry] = dryCuts([{ ...cut, approach }], { x: 2, y: -7 });
      expect(places(dry)).toEqual(places(cut).map(([x, y]) => [x - 2, y + 7, high]));
      expect(dry.path.power.every((power) => power === 0)).toBe(true);
      expect([dry.power, dry.air, dry.pierce]).toEqual([0, false, undefined]);
    }
    const [plain] = dryCuts([{ ...cut, power: undefined, air: undefined }], { x: 0, y: 0 });
    expect('power' in plain && plain.power !== undefined).toBe(false);
  });

  test('by its box or its hull: on the surface, once round and back, at a quarter of what the slower axis does', () => {
    const round = (frame: 'box' | 'hull') => framingCut([cut], frame, { x: 6000, y: 4000 })[0];
    const box = [[10, 10, 0], [40, 10, 0], [40, 30, 0], [10, 30, 0], [10, 10, 0]]; // prettier-ignore
    expect(places(round('box'))).toEqual(box);
    const hull = places(round('hull'));
    expect(hull).toHaveLength(4);
    expect(hull[3]).toEqual(hull[0]);
    expect(hull.slice(1).sort()).toEqual([box[0], box[1], box[3]].sort());
    for (const frame of ['box', 'hull'] as const) {
      const { feed, power, rapid } = round(frame).path;
      expect([...feed.slice(1)].every((f) => f === 1000)).toBe(true);
      expect([...power].every((p) => p === 0)).toBe(true);
      expect([...rapid].slice(1).every((r) => r === 0)).toBe(true);
    }
    expect(framingCut([{ ...cut, path: { ...cut.path, power: new Float32Array(7) } }], 'box', { x: 1, y: 1 })).toEqual([]); // prettier-ignore
  });
});
