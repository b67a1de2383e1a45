import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { time } from '../command/src/time.ts';
import { view } from '../command/src/view.ts';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-time-`);
  writeFileSync(
    `${folder}/foreign.ngc`,
    '%\n(made elsewhere)\nG20 G90\nT4 M6\nS9000 M3\nG0 X0 Y0 Z1\nG1 Z-0.1 F20\nG1 X4 F60\nG4 P1.5\nG0 Z1\nG28\nM2\n%\n',
  );
  writeFileSync(`${folder}/none.nc`, '(nothing at all)\n');
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function printed(work: () => void): Record<string, unknown> {
  const log = vi.spyOn(console, 'log').mockImplementation(() => {});
  try {
    work();
    return JSON.parse(String(log.mock.calls[0][0])) as Record<string, unknown>;
  } finally {
    log.mockRestore();
  }
}

describe('./kerbe time', () => {
  test('an inch program from elsewhere: lengths in mm, its dwell, its bit, and what could not be followed', () => {
    const report = printed(() => time([`${folder}/foreign.ngc`]));
    expect(report).toMatchObject({ deepest: 2.54, bits: [4], lifts: 0 });
    // Down 1.1 in and along 4 in.
    expect(report.cut_mm).toBeCloseTo(1.1 * 25.4 + 4 * 25.4, 2);
    // At 20 and 60 in/min, with speeding up and slowing down, 1.5 s of waiting and the way up.
    const cutting = (1.1 / 20 + 4 / 60) * 60;
    expect(report.seconds).toBeGreaterThan(cutting + 1.5);
    expect(report.seconds).toBeLessThan(cutting + 1.5 + 2.5);
    expect((report.notes as string[]).join(' ')).toMatch(/G28/);
  });
  test.each([
    [[], /Use: \.\/kerbe time/],
    [['/nowhere.nc'], /There is no file/],
    [['none'], /holds no moves/],
  ])('%j: one sentence', (args, sentence) => {
    expect(() => time(args.map((a) => (a === 'none' ? `${folder}/none.nc` : a)))).toThrow(sentence);
  });
});

describe('./kerbe view', () => {
  test('a PNG of the program comes out', async () => {
    await view([`${folder}/foreign.ngc`, '--png', `${folder}/seen.png`]);
    const png = readFileSync(`${folder}/seen.png`);
    // The PNG signature (ISO/IEC 15948, 5.2) and more than an empty page.
    expect([...png.subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
    expect(png.length).toBeGreaterThan(1000);
  });
  test('bad use ends with exit code 2 and a sentence', () => {
    const { status, stderr } = spawnSync('./kerbe', ['view', `${folder}/foreign.ngc`], { encoding: 'utf8' });
    expect(status).toBe(2);
    expect(
      stderr
        .trim()
        .split('\n')
        .filter((line) => !/npm warn/.test(line)),
    ).toHaveLength(1);
  });
});
