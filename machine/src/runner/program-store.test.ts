import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ProgramFolder } from './program-store.ts';

let folder: string;
let programs: ProgramFolder;
beforeAll(() => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-programs-`);
  programs = new ProgramFolder(folder);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const never = new AbortController().signal;
function keep(text: string): string {
  const hash = createHash('sha256').update(text).digest('hex');
  writeFileSync(`${folder}/${hash}.nc`, text);
  return hash;
}

describe('programs in a folder', () => {
  test('one of 500,000 lines is looked through while this process goes on with its own', async () => {
    const lines = ['G17 G21 G90 G94 G54', 'G0 Z5', 'G0 X0 Y0', 'G1 Z-1 F300'];
    for (let k = 0; k < 500_000; k++) lines.push(`X${(k % 3000) / 10} Y${(k % 700) / 10}`);
    lines.push('G53 G0 Z0', 'M30');
    const hash = keep(lines.join('\n'));
    let turns = 0;
    const timer = setInterval(() => turns++, 20);
    const facts = await programs.facts(hash, never);
    clearInterval(timer);
    expect(facts).toMatchObject({ hash, lines: lines.length, refused: [], ends: true });
    expect(facts.reach.max).toEqual({ x: 299.9, y: 69.9, z: 5 });
    expect(facts.direct).toMatchObject({ min: { z: 0 }, max: { z: 0 } });
    // It took a while, and this process was free meanwhile.
    expect(turns).toBeGreaterThan(20);
    let seen = 0;
    for await (const line of programs.lines(hash, 499_999)) {
      if (seen === 0) expect(line).toBe(lines[499_999]);
      seen++;
    }
    expect(seen).toBe(lines.length - 499_999);
  });
  test('what holds before a line: units, plane, distances, feed, spindle and place', async () => {
    const text = [
      'G17 G20 G90 G94 G54',
      'T1 M6',
      'S9000 M3',
      'G0 Z0.2',
      'G0 X1 Y2',
      'G1 Z-0.1 F20',
      'X3',
      'G2 X4 Y3 I0 J1',
      'X5 Y2 I1 J0',
      'G0 Z0.2',
      'G98 G81 X1 Y1 Z-0.3 R0.1 F10',
      'X2',
      'X3',
      'G80',
      'M5',
      'M30',
    ];
    const hash = keep(text.join('\n'));
    const place = await programs.place(hash, 7, never);
    expect(place).toMatchObject({ line: 7, spindle: 9000, known: true, prompted: false });
    expect(place.modes).toMatchObject({ inch: true, incremental: false, motion: 1, bit: 1 });
    expect(place.modes.feed).toBeCloseTo(508, 9);
    expect(place.modes.at.x).toBeCloseTo(76.2, 9);
    expect(place.modes.at.z).toBeCloseTo(-2.54, 9);
    // In the middle of a drilling cycle it is taken up at the cycle's first hole.
    expect((await programs.place(hash, 12, never)).line).toBe(10);
    expect((await programs.place(hash, 2, never)).known).toBe(false);
  });
  test('a name that is no hash is not looked for', async () => {
    await expect(programs.facts('../../etc/passwd', never)).rejects.toThrow();
    await expect(programs.facts('a'.repeat(64), never)).rejects.toThrow();
  });
  test('giving up ends the process', async () => {
    const cancel = new AbortController();
    const asked = programs.facts(keep('G21\nG0 X1\nM30'), cancel.signal);
    cancel.abort();
    await expect(asked).rejects.toThrow();
  });
});
