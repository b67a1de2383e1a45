import { describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { compute } from '@kerbe/core/compute/compute';
import type { CutJob } from '@kerbe/core/job/job';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/machines/programs';
import { checkProgram } from '@kerbe/core/program/check';
import { readProgram } from '@kerbe/core/program/read';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { areaOf, buffered, cutLines, difference, swept } from './reference.ts';

const clipper = await clipperFromDisk();
const { job: demo, assets } = readJobFile(
  readFileSync(new URL('../demo/jobs/instrument-labels.kerbe.json', import.meta.url), 'utf8'),
);
const given = (hash: string) => (assets[hash] ? bytesFromBase64(assets[hash].base64) : undefined);

/** A job with one drawing and one drag engraving of all of it. */
async function drawn(svg: string, fields: object, change: (job: CutJob) => void = () => {}) {
  const job = structuredClone(demo);
  const item = job.artwork.find(({ kind }) => kind === 'drawing')!;
  job.artwork = [item];
  job.cuts = [{ ...job.cuts[0], targets: [{ item: item.id, shapes: 'all' }], ...fields } as (typeof job.cuts)[number]];
  change(job);
  const bytes = new TextEncoder().encode(svg);
  const result = await compute(job, await resourcesFromDisk(() => bytes), clipper);
  return { job, result, made: result.cuts[0] };
}
const page = (art: string) => `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">${art}</svg>`; // prettier-ignore
const STAR = Array.from({ length: 10 }, (_, k) => {
  const r = k % 2 ? 6 : 16;
  return [30 + r * Math.sin((k * Math.PI) / 5), 20 + r * Math.cos((k * Math.PI) / 5)];
});

// JSTS is a general-purpose geometry library that Kerbe itself does not use.
describe('what is to be solid, against JSTS', () => {
  test.each([
    ['hatch', 0.28],
    ['cross', 0.3],
    ['rings', 0.3],
  ] as const)(
    '%s at %f mm: no place of a star left that the point can cover, and nothing beyond it',
    async (pattern, step) => {
      const star = STAR.map(([x, y]) => `${x},${y}`).join(' ');
      const { made } = await drawn(page(`<polygon points="${star}"/>`), { pattern, step, fill: 'solid' });
      expect(made.problem).toBeUndefined();
      const area = areaOf(STAR.flatMap(([x, y]) => [x, 40 - y]));
      const covered = swept(cutLines(made.path), 0.15);
      // Beyond the outline no more than rounding and the chords of both.
      expect(difference(covered, buffered(area, 0.012)).getArea()).toBeLessThan(1e-3);
      const reached = buffered(buffered(area, -0.15), 0.15);
      const left = difference(reached, buffered(covered, 0.012));
      expect(left.getArea()).toBeLessThan(1e-3 * reached.getArea());
    },
  );
});

test('lines as far apart as they are wide leave no stripes, a hundredth more does', async () => {
  const remarks = async (step: number) => {
    const { result } = await drawn(page('<rect x="10" y="10" width="20" height="10"/>'), { pattern: 'hatch', step, fill: 'solid' }); // prettier-ignore
    return result.remarks.map(({ id }) => id).filter((id) => id.startsWith('stripes'));
  };
  const { width } = demo.bits.find(({ id }) => id === demo.cuts[0].bit) as unknown as { width: number };
  expect(await remarks(width)).toEqual([]);
  expect(await remarks(width + 0.01)).toHaveLength(1);
});

describe('a point has no depth', () => {
  test('plate of 0.5 mm that it is pressed 2.5 mm on is not cut through, neither here nor in the program', async () => {
    const thin = (job: CutJob) => (job.stock.corners = [0.5, 0.5, 0.5, 0.5]);
    const { job, result, made } = await drawn(page('<path d="M5 5H55" fill="none" stroke="black"/>'), { pattern: 'outline' }, thin); // prettier-ignore
    expect([made.depth, made.pressed]).toEqual([0, 2.5]);
    expect(result.remarks.map(({ text }) => text).join()).not.toMatch(/deep|through|spoilboard/);
    const [{ text }] = programsFor(job, result, { revision: '1', date: '2026-11-26' });
    expect(text).toMatch(/Diamond 0\.3, 2\.5 mm pressed, feed 1500 mm\/min, spindle off/);
    expect(text).not.toMatch(/mm deep/);
    expect(text).not.toMatch(/\bM0*[34]\b/);
  });
  test('uneven stock that is lower by more than it is pressed is a remark, with how far to press it', async () => {
    const uneven = (job: CutJob) => (job.stock.corners = [1.5, 1.5, 0.9, 1.5]);
    const { result } = await drawn(page('<path d="M5 5H55" fill="none" stroke="black"/>'), { pattern: 'outline', pressed: 0.5 }, uneven); // prettier-ignore
    const [remark] = result.remarks.filter(({ id }) => id.startsWith('touch-'));
    expect(remark.text).toMatch(/up to 0\.6 mm lower at a corner, and the point is pressed 0\.5 mm/);
    expect(remark.remedies[0].patch[0]).toMatchObject({ value: 1.1 });
  });
});

describe('a program that turns the spindle while a point is in', () => {
  const found = (text: string, change: (job: CutJob) => void = () => {}) => {
    const job = structuredClone(demo);
    change(job);
    return checkProgram(readProgram(text), job).findings.filter((finding) => /turn/.test(finding));
  };
  const moves = 'G0 X10 Y10\nG1 Z-2.5 F900\nG1 X20\nG0 Z5\nM30';
  const mill = (job: CutJob) =>
    job.bits.unshift({ id: 'm', name: 'End 3', kind: 'end', diameter: 3, shank: 3, flute: 9, presets: [] } as never);
  test.each([
    ['from anywhere, without a tool', `G21 G90\nS12000 M3\n${moves}`, /nothing says which bit is in/],
    [
      'by its number',
      `G21 G90\nT1 M6\nS12000 M3\n${moves}`,
      /Line 3 has the spindle turn while “Diamond 0.3” \(bit 1\)/,
    ],
    ['counter-clockwise', `G21 G90\nT1 M6\nS12000 M4\n${moves}`, /must never be turned/],
    ['changed in while it turns', `G21 G90\nS900 M3\nT1 M6\n${moves}`, /Line 2 has the spindle turn/],
  ])('%s', (_, text, sentence) => {
    expect(found(text).join()).toMatch(sentence);
  });
  test('a cutter in the same job may turn; the point after it not', () => {
    expect(found(`G21 G90\nT1 M6\nS9000 M3\n${moves}`, mill)).toEqual([]);
    expect(found(`G21 G90\nT1 M6\nS9000 M3\nG1 X5 F100\nT2 M6\n${moves}`, mill).join()).toMatch(/bit 2/);
    expect(found(`G21 G90\nT1 M6\nS9000 M3\nG1 X5 F100\nM5\nT2 M6\n${moves}`, mill)).toEqual([]);
  });
  test('and its own program passes: on plate of 0.5 mm it goes into no board', async () => {
    const thin = structuredClone(demo);
    thin.stock.corners = [0.5, 0.5, 0.5, 0.5];
    const result = await compute(thin, await resourcesFromDisk(given), clipper);
    const [{ text }] = programsFor(thin, result, { revision: '1', date: '2026-11-26' });
    expect(checkProgram(readProgram(text), thin)).toMatchObject({ findings: [], deepest: 0 });
    // A cutter that goes as deep does.
    const cutter = structuredClone(thin);
    cutter.bits = [
      { id: 'diamond', name: 'End 3', kind: 'end', diameter: 3, shank: 3, flute: 9, presets: [] } as never,
    ];
    expect(checkProgram(readProgram(text), cutter).findings.join()).toMatch(/2 mm into the spoilboard/);
  });
});
