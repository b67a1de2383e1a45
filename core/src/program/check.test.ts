import { describe, expect, test } from 'vitest';
import type { RouterBench } from '../machines/router/bench.ts';
import type { Job } from '../document/job.ts';
import { newJob } from '../document/new-job.ts';
import { checkProgram } from './check.ts';
import { readProgram } from './read.ts';

const bench: RouterBench = {
  kind: 'router',
  id: 'bench',
  name: 'Test bench',
  link: 'file',
  pins: 'none',
  warmUp: 0,
  dustBoot: true,
  spindleStart: 3,
  travel: { x: 400, y: 300, z: 80 },
  limits: { speed: { x: 3000, y: 2700, z: 1200 }, acceleration: { x: 400, y: 320, z: 250 }, cornerStep: 300 },
  spindle: { min: 6000, max: 24000 },
  plate: { thickness: 10, side: 5, size: 50 },
  setter: null,
  stop: null,
  dialect: 'plain',
  park: null,
  spindleAfter: 20,
  bitChangeMinutes: 2,
};
const job = (change: (job: Job) => void = () => {}): Job => {
  const made = newJob('Board', 'mm', [], bench);
  change(made);
  return made;
};
const check = (text: string, change?: (job: Job) => void) => checkProgram(readProgram(`G21 G90\n${text}`), job(change));

describe('a program from elsewhere on a job’s stock', () => {
  test('what keeps to stock and bench has nothing to see to', () => {
    const { findings, deepest, path } = check('G0 Z5\nG0 X20 Y20\nG1 Z-3 F300\nG1 X120 F1500\nG0 Z5');
    expect(findings).toEqual([]);
    expect(deepest).toBe(3);
    // Zero is the lower left corner: the sheet's own.
    expect(Array.from(path.xyz.slice(-3))).toEqual([120, 20, 5]);
  });
  test('it is laid by the job’s zero', () => {
    const centred = check('G0 Z5\nG0 X0 Y0', (j) => (j.stock.zeroXY = 'centre')).path;
    expect(Array.from(centred.xyz.slice(-3))).toEqual([150, 75, 5]);
    const onBoard = check('G0 Z25\nG0 X10 Y10\nG1 Z17 F300', (j) => (j.stock.zeroZ = 'spoilboard'));
    expect(onBoard.deepest).toBe(3);
  });
  test('it is timed on the job’s bench: s/v + v/a from rest to rest, and its dwells', () => {
    // 100 mm at 1200 mm/min on 400 mm/s²: 5 s + 20/400 s; and 2 s of waiting.
    const { minutes } = check('G0 X0 Y0 Z0\nG1 X100 F1200\nG4 P2');
    expect(minutes * 60).toBeCloseTo(5.05 + 2, 6);
  });
  test.each([
    ['into the spoilboard', 'G0 X10 Y10 Z5\nG1 Z-21.5 F300', 'It goes 1.5 mm into the spoilboard.'],
    [
      'through the spoilboard',
      'G0 X10 Y10 Z5\nG1 Z-50 F300',
      'It goes 50 mm deep: through the stock and right through the spoilboard.',
    ],
    ['beside the stock', 'G0 X10 Y10 Z5\nG1 Z-2 F300\nG1 X312', 'It cuts up to 12 mm beside the stock.'],
    ['beside it across', 'G0 X10 Y10 Z5\nG1 Z-2 F300\nG1 Y157', 'It cuts up to 7 mm beside the stock.'],
    ['plunging by a rapid move', 'G0 X10 Y10 Z5\nG0 Z-2', 'It goes down into the wood by a rapid move.'],
    ['beyond the reach', 'G0 X-50 Y10 Z5\nG0 X400', 'It spans 450 mm along X, and Test bench reaches 400 mm.'],
    ['too high for the Z axis', 'G0 Z70\nG1 Z-15 F300', 'It spans 85 mm along Z, and Test bench reaches 80 mm.'],
    [
      'faster than the bench',
      'G0 X0 Y0 Z5\nG1 X50 F9000',
      'It asks for 9000 mm/min where Test bench does 3000 mm/min; the time here reckons with that.',
    ],
    [
      'faster than its weaker axis',
      'G1 X50 F3000\nG1 Y50',
      'It asks for 3000 mm/min where Test bench does 2700 mm/min; the time here reckons with that.',
    ],
    [
      'down faster than its Z axis',
      'G0 Z5\nG1 Z-2 F2000',
      'It asks for 2000 mm/min where Test bench does 1200 mm/min; the time here reckons with that.',
    ],
  ])('%s', (_, text, sentence) => {
    expect(check(text).findings).toEqual([sentence]);
  });
  test('a rapid move that stays as deep as it was, or comes up, does not plunge', () => {
    expect(check('G0 X10 Y10 Z5\nG1 Z-2 F300\nG1 X40\nG0 X10\nG0 Z-1\nG0 Z5').findings).toEqual([]);
  });
  test('a clamp in the way of the bit’s middle', () => {
    const clamp = { id: 'c', kind: 'clamp' as const, x: 50, y: 0, length: 20, width: 30, height: 8 };
    const text = 'G0 X10 Y10 Z5\nG0 X120';
    expect(check(text, (j) => j.stock.keepOuts.push(clamp)).findings.join(' ')).toMatch(
      /meets the clamp at 50 mm, 0 mm/,
    );
    expect(check(text, (j) => j.stock.keepOuts.push({ ...clamp, height: 4 })).findings).toEqual([]);
  });
});
