import { describe, expect, test } from 'vitest';
import { betweenCuts } from './between-cuts.ts';
import { DIALECTS } from '../machines/router/dialects.ts';
import { pathForTests } from '../motion/path-for-tests.ts';

const limits = {
  speed: { x: 6000, y: 5400, z: 2400 },
  acceleration: { x: 400, y: 320, z: 250 },
  cornerStep: 0,
};
/** A cut from (x, 0) down at z 5 to (x + 10, 0), as a program begins and ends it. */
const cut = (x: number, bit = 'v', speed = 18_000) => ({
  path: pathForTests([x, 0, 5, x + 10, 0, 5], [0, 0]),
  bit,
  speed,
  turns: true,
});
/** Seconds of a move from rest to rest: s/v + v/a, or 2·√(s/a) where v is not reached. */
const move = (s: number, v: number, a: number) => (s < v ** 2 / a ? 2 * Math.sqrt(s / a) : s / v + v / a);
const up = move(15, 40, 250);
const seconds = (minutes: number) => minutes * 60;

describe('what a program spends beside its cuts', () => {
  test('from cut to cut: up, across and down, each from rest to rest', () => {
    const [first, second] = betweenCuts([cut(0), cut(310)], 20, DIALECTS.plain, limits);
    expect(seconds(first.before)).toBeCloseTo(3, 9);
    expect(first.after).toBe(0);
    expect(seconds(second.before)).toBeCloseTo(2 * up + move(300, 100, 400), 6);
    expect(seconds(second.after)).toBeCloseTo(up, 6);
  });
  test('another speed, or another bit, starts the spindle anew; the way after a change is the change’s', () => {
    const [, faster, other] = betweenCuts(
      [cut(0), cut(10, 'v', 20_000), cut(20, 'end', 20_000)],
      5,
      DIALECTS.plain,
      limits,
    );
    expect(seconds(faster.before)).toBeCloseTo(3, 6);
    expect(seconds(other.before)).toBeCloseTo(3, 9);
  });
  test('one program a bit: each goes up at its end, and the operator starts the spindle', () => {
    const [first, second] = betweenCuts([cut(0), cut(90, 'end')], 20, DIALECTS['operator-spindle'], limits);
    expect(first.before + second.before).toBe(0);
    expect(seconds(first.after)).toBeCloseTo(up, 6);
    expect(seconds(second.after)).toBeCloseTo(up, 6);
  });
});
