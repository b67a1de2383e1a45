import { describe, expect, test } from 'vitest';
import { OwnFault } from '../schema/own-fault.ts';
import { checkRows } from './checked-rows.ts';

const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const row = (v: number, at: number[], power = at.slice(1).map(() => 1)) => ({
  v,
  at: Float64Array.from(at),
  power: Float32Array.from(power),
});
const area = [box(0, 0, 20, 10)];
const RADIUS = 0.1;

describe('lines of a scan against the outline', () => {
  test('as near as the radius they pass', () => {
    const rows = [0.1, 5, 9.9].map((v) => row(v, [0.1, 19.9]));
    expect(() => checkRows(rows, 0, area, RADIUS)).not.toThrow();
  });

  test('where nothing is on, a line may go over what is left out', () => {
    const holed = [...area, box(8, 4, 4, 2)];
    expect(() => checkRows([row(5, [0.1, 7.9, 12.1, 19.9], [1, 0, 1])], 0, holed, RADIUS)).not.toThrow();
    expect(() => checkRows([row(5, [0.1, 7.9, 12.1, 19.9], [1, 1, 1])], 0, holed, RADIUS)).toThrow(OwnFault);
  });

  test.each([
    ['nearer to a side than the radius', row(9.95, [5, 15]), 0.05],
    ['with an end nearer than that', row(5, [0.04, 15]), 0.06],
    ['outside', row(11, [5, 15]), 0.1],
    ['over the edge at its end', row(5, [5, 20.5]), 0.1],
  ])('a line that is %s is Kerbe’s fault', (_, wrong, by) => {
    const rows = [row(1, [1, 19]), wrong].sort((a, b) => a.v - b.v);
    expect(() => checkRows(rows, 0, area, RADIUS)).toThrow(OwnFault);
    expect(() => checkRows(rows, 0, area, RADIUS)).toThrow(`${by.toFixed(2)} mm past the outline`);
  });

  test('also by a corner that points at it, and between two areas', () => {
    const pointed = [Float64Array.of(0, 0, 20, 0, 20, 10, 10, 5, 0, 10)];
    expect(() => checkRows([row(4.85, [1, 19])], 0, pointed, RADIUS)).not.toThrow();
    expect(() => checkRows([row(4.95, [1, 19])], 0, pointed, RADIUS)).toThrow(/0\.05 mm past the outline near 10\.0/);
    expect(() => checkRows([row(5, [1, 29])], 0, [box(0, 0, 19, 10), box(20, 0, 10, 10)], RADIUS)).toThrow(OwnFault);
  });

  test('at any angle', () => {
    // Along y: heights run against x.
    expect(() => checkRows([row(-19.9, [0.1, 9.9]), row(-0.1, [0.1, 9.9])], Math.PI / 2, area, RADIUS)).not.toThrow();
    expect(() => checkRows([row(-0.05, [0.1, 9.9])], Math.PI / 2, area, RADIUS)).toThrow(/near 0\.1, /);
  });
});
