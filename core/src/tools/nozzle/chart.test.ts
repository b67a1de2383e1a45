import fc from 'fast-check';
import { expect, test } from 'vitest';
import { fromChart } from './chart.ts';
import type { ChartRow } from './fields.ts';

const row = (thickness: number, material = 'mild steel'): ChartRow => ({
  material,
  thickness,
  kerf: 1 + thickness / 10,
  feed: 6000 / thickness,
  pierceHeight: 3.5 + thickness / 20,
  pierceDelay: thickness / 10,
  cutHeight: 1.5 + thickness / 40,
  volts: 110 + thickness,
});
const nozzle = { presets: [row(6), row(1.5), row(3), row(3, 'aluminium')] };
const found = (thick: number, material = 'mild steel') => fromChart(nozzle, material, thick);

test.each([
  [1.42, 1.5],
  [1.58, 1.5],
  [2.87, 3],
  [3.13, 3],
  [5.75, 6],
  [6.25, 6],
])('a sheet of %d mm as it was measured is the row of %d mm', (thick, of) => {
  expect(found(thick)).toEqual({ row: row(of), by: 'row', of: [of] });
});

test('beyond the chart, and of another material, it is said to be so', () => {
  expect([found(1.3)?.by, found(6.5)?.by, found(3, 'copper')?.by]).toEqual(['beyond', 'beyond', 'other']);
  expect([found(1.3)?.of, found(6.5)?.of]).toEqual([[1.5], [6]]);
  expect(fromChart({ presets: [] }, 'mild steel', 3)).toBeUndefined();
});

test('between two rows all lies evenly between theirs, to what a chart is fine to', () => {
  fc.assert(
    fc.property(fc.double({ min: 3.16, max: 5.69, noNaN: true }), (thick) => {
      const { row: got, by, of } = found(thick)!;
      expect([by, of]).toEqual(['between', [3, 6]]);
      const t = (thick - 3) / 3;
      const even = (name: Exclude<keyof ChartRow, 'material'>) => (1 - t) * row(3)[name] + t * row(6)[name];
      for (const name of ['kerf', 'pierceHeight', 'pierceDelay', 'cutHeight'] as const)
        expect(Math.abs(got[name] - even(name))).toBeLessThan(0.0051);
      for (const name of ['feed', 'volts'] as const) expect(Math.abs(got[name] - even(name))).toBeLessThan(0.51);
      expect(got.thickness).toBe(thick);
    }),
  );
});
