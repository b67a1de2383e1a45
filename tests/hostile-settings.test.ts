import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { compute } from '@kerbe/core/compute/compute';
import type { Cut } from '@kerbe/core/cuts/kinds';
import type { CutJob as Job } from '@kerbe/core/job/job';
import { JobSchema } from '@kerbe/core/job/job';

/** A job with one cut of a drawing, whatever that cut says. */
async function outcome(drawing: string, cut: object, bit: object = {}): Promise<{ problem?: string; moves: number }> {
  const demo = JSON.parse(readFileSync(new URL('../demo/jobs/entrance-board.kerbe.json', import.meta.url), 'utf8')) as {
    job: Job;
  };
  const asset = '0'.repeat(64);
  const job = JobSchema.parse({
    ...demo.job,
    artwork: [
      { id: 'a', name: 'a', kind: 'drawing', asset, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false },
    ],
    bits: [
      { id: 'b', name: 'b', kind: 'end', diameter: 6, tip: 0, flute: 30, shank: 6, presets: [], ...bit },
      { id: 'v', name: 'v', kind: 'v', diameter: 12, angle: 60, tip: 0, flute: 30, shank: 6, presets: [] },
    ],
    cuts: [
      {
        id: 'c',
        targets: [{ item: 'a', shapes: 'all' }],
        bit: 'b',
        feed: 2000,
        plunge: 500,
        speed: 18000,
        depth: 6,
        depthPerPass: 2,
        step: 2,
        pattern: 'rings',
        climb: true,
        entry: { kind: 'plunge', angle: 5 },
        tabs: { count: 0, length: 6, height: 2 },
        side: 'outside',
        depthLimit: 6,
        floorStep: 0.5,
        peck: 2,
        retract: 'full',
        dwell: 0,
        role: 'recess',
        otherDiameter: 6,
        allowance: 0.1,
        shift: { x: 0, y: 0 },
        ...cut,
      } as never as Cut,
    ],
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="900mm" height="900mm" viewBox="0 0 900 900">${drawing}</svg>`;
  const resources = await resourcesFromDisk(() => new TextEncoder().encode(svg));
  const { cuts } = await compute(job, resources, await clipperFromDisk(), { unjudged: true });
  return { problem: cuts[0].problem, moves: cuts.reduce((sum, { path }) => sum + path.feed.length, 0) };
}

const SQUARE = '<rect x="50" y="50" width="800" height="800"/>';
const SMALL = '<rect x="50" y="50" width="9" height="9"/>';
const GRID = `<path d="${Array.from({ length: 2500 }, (_, k) => `M${(k % 50) * 18} ${Math.floor(k / 50) * 18}h9v9h-9z`).join('')}"/>`;

describe('a setting that asks for more than any machine would do', () => {
  it.each([
    ['a pocket’s step', SQUARE, { kind: 'pocket', step: 1e-4 }, /step/],
    ['a pocket’s step of next to nothing', SQUARE, { kind: 'pocket', step: 1e-12 }, /step/],
    [
      'a step that is only small, in many passes',
      SQUARE,
      { kind: 'pocket', step: 0.01, depth: 100, depthPerPass: 0.1 },
      /step/,
    ],
    ['lines too near each other', SQUARE, { kind: 'pocket', pattern: 'lines', step: 1e-5 }, /step/],
    ['lines over many outlines', GRID, { kind: 'pocket', pattern: 'lines', step: 1e-5, depthPerPass: 6 }, /step/],
    ['a pocket’s depth per pass', SQUARE, { kind: 'pocket', depthPerPass: 1e-9 }, /depth per pass/],
    ['a profile’s depth per pass', SQUARE, { kind: 'profile', depthPerPass: 1e-9 }, /depth per pass/],
    ['a profile’s ramp', SMALL, { kind: 'profile', ramp: 1e-7 }, /ramp/],
    ['a pocket’s ramp', SQUARE, { kind: 'pocket', entry: { kind: 'ramp', angle: 1e-7 } }, /ramp/],
    ['a helix', SQUARE, { kind: 'pocket', entry: { kind: 'helix', angle: 1e-4 } }, /ramp/],
    ['a V-carve’s floor step', SQUARE, { kind: 'v-carve', bit: 'v', floorStep: 1e-6 }, /step/],
    ['a V-carve’s depth per pass', SQUARE, { kind: 'v-carve', bit: 'v', depthPerPass: 1e-9 }, /depth per pass/],
    ['a V-bit without an angle', SQUARE, { kind: 'v-carve' }, /angle/, { kind: 'v' }],
    ['an inlay’s step', SQUARE, { kind: 'inlay', step: 1e-6 }, /step/],
    ['a peck', '<circle cx="99" cy="99" r="3"/>', { kind: 'drill', peck: 1e-6 }, /peck/],
  ])('%s is named and refused', async (_, drawing, cut, words, bit: object = {}) => {
    const { problem, moves } = await outcome(drawing, cut, bit);
    expect(problem).toMatch(words);
    expect(moves).toBe(0);
  });
  it.each([
    ['an overlap of many turns', SMALL, { kind: 'profile', overlap: 100 }],
    ['fine rings over a large board', SQUARE, { kind: 'pocket', step: 0.2, depthPerPass: 6 }],
    ['2,500 squares', GRID, { kind: 'profile' }],
    ['2,500 squares carved', GRID, { kind: 'v-carve', bit: 'v' }],
  ])('%s is only much work', async (_, drawing, cut) => {
    const { problem, moves } = await outcome(drawing, cut);
    expect(problem).toBeUndefined();
    expect(moves).toBeGreaterThan(3);
  });
});
