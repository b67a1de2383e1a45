import { describe, expect, test } from 'vitest';
import { PathBuilder } from '../motion/path.ts';
import { seamOf } from './seam.ts';

/** Pierced at 0, along x to 40 mm by moves of 1 mm at 2400 mm/min, up, and over to the next. */
const builder = new PathBuilder();
builder.rapid(0, 0, 10);
builder.to(0, 0, 0, 1500, 0);
builder.rapid(0, 0, 3.8);
builder.to(0, 0, 1.5, 1500, 1);
for (let x = 1; x <= 40; x++) builder.to(x, 0, 1.5, 2400, 1);
builder.rapid(40, 0, 10);
builder.rapid(60, 20, 10);
const along = builder.done();
/** The point at so many mm. */
const at = (x: number) => 3 + x;
/** 40 mm/s: within 2 mm it stands. */
const ACCELERATION = 400;

describe('where a stroke stopped', () => {
  test('on a long arc of the program, far on from the last point that was reached', () => {
    const seam = seamOf(along, { point: at(4), towards: at(36), at: { x: 31.4, y: 0 }, acceleration: ACCELERATION });
    expect(seam).toEqual({ x: 31.4, y: 0, point: at(32), ways: [{ dx: 1, dy: 0 }] });
  });

  test('before the last point that was reached: it went on until it stood', () => {
    const seam = seamOf(along, {
      point: at(20),
      towards: at(21),
      at: { x: 18.3, y: 0.01 },
      acceleration: ACCELERATION,
    });
    expect(seam).toMatchObject({ x: 18.3, y: 0, point: at(19) });
    // It cannot have gone on so far.
    const far = seamOf(along, { point: at(20), towards: at(21), at: { x: 10.3, y: 0 }, acceleration: ACCELERATION });
    expect(far!.x).toBeGreaterThan(16);
  });

  test('at the end of a stroke it stopped between two, and before it in that one', () => {
    const ended = { point: at(40), towards: at(40) + 2, acceleration: ACCELERATION };
    expect(seamOf(along, { ...ended, at: { x: 40, y: 0 } })).toBeUndefined();
    expect(seamOf(along, ended)).toBeUndefined();
    expect(seamOf(along, { ...ended, at: { x: 39.2, y: 0 } })).toMatchObject({ x: 39.2, point: at(40) });
    expect(seamOf(along, { ...ended, point: at(40) + 1, at: { x: 40, y: 0 } })).toBeUndefined();
  });

  test('where it is not known, it is the last point that was reached', () => {
    expect(seamOf(along, { point: at(7), towards: at(9), acceleration: ACCELERATION })).toMatchObject({ x: 7, y: 0, point: at(8) }); // prettier-ignore
  });

  test('the last point that was reached, across and up', () => {
    const rising = new PathBuilder();
    rising.rapid(3, 7, 5);
    rising.to(3, 7, 1.5, 1500, 1);
    for (let k = 1; k < 9; k++) rising.to(3 + k, 7 + 2 * k, 1.5, 2400, 1);
    expect(seamOf(rising.done(), { point: 5, towards: 7, acceleration: ACCELERATION })).toMatchObject({ x: 7, y: 15, point: 6 }); // prettier-ignore
  });

  test('at its very beginning there is one direction: the way down has none', () => {
    const seam = seamOf(along, { point: 3, towards: at(2), at: { x: 0, y: 0 }, acceleration: ACCELERATION });
    expect(seam).toEqual({ x: 0, y: 0, point: at(1), ways: [{ dx: 1, dy: 0 }] });
  });

  test('of two turns over one place it is the one that was under way', () => {
    const round = new PathBuilder();
    round.rapid(10, 0, 5);
    round.to(10, 0, 1.5, 1500, 1);
    // Once round and a little further, a degree at a time.
    for (let k = 1; k <= 370; k++) round.to(10 * Math.cos((k * Math.PI) / 180), 10 * Math.sin((k * Math.PI) / 180), 1.5, 2400, 1); // prettier-ignore
    const path = round.done();
    const place = { x: 10 * Math.cos(0.05), y: 10 * Math.sin(0.05) };
    const first = seamOf(path, { point: 2, towards: 182, at: place, acceleration: ACCELERATION });
    const second = seamOf(path, { point: 300, towards: 371, at: place, acceleration: ACCELERATION });
    expect([first!.point, second!.point]).toEqual([4, 364]);
    // A moment later still, all of it being reached.
    const late = seamOf(path, { point: 365, towards: 371, at: place, acceleration: ACCELERATION });
    expect(late!.point).toBe(364);
  });

  test('at a corner both ways are told', () => {
    const turning = new PathBuilder();
    turning.rapid(0, 0, 5);
    turning.to(0, 0, 1.5, 1500, 1);
    turning.to(10, 0, 1.5, 2400, 1);
    turning.to(10, 10, 1.5, 2400, 1);
    const { ways } = seamOf(turning.done(), {
      point: 1,
      towards: 3,
      at: { x: 10, y: 0.01 },
      acceleration: ACCELERATION,
    })!;
    expect(ways).toEqual([
      { dx: 1, dy: 0 },
      { dx: 0, dy: 1 },
    ]);
  });
});
