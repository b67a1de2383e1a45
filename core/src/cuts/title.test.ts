import { unknownSettings } from './settings-origin.ts';
import { describe, expect, test } from 'vitest';
import type { Preset } from '../tools/turned.ts';
import { ToolSchema } from '../tools/tool-schema.ts';
import type { Cut } from './kinds.ts';
import { CutSchema } from './cut-schema.ts';
import type { Job } from '../document/job.ts';
import { JobSchema } from '../job/job.ts';
import { CUT_KINDS } from './kinds.ts';
import { newCut } from './new-cut.ts';
import { newJob } from '../document/new-job.ts';
import { titleOf, worksOn } from './title.ts';

const preset = { material: 'oak', feed: 1800, plunge: 700, speed: 15000, depthPerPass: 4 };
const bits = [
  ToolSchema.parse({ id: 'p', name: 'Diamond', kind: 'drag', diameter: 6, shank: 6, width: 0.3, presets: [{ material: 'oak', feed: 900, pressed: 2 }] }), // prettier-ignore
  ToolSchema.parse({
    id: 'v',
    name: 'V',
    kind: 'v',
    diameter: 12.7,
    angle: 60,
    flute: 11,
    shank: 6,
    presets: [preset],
  }),
  ToolSchema.parse({ id: 'e', name: 'E', kind: 'end', diameter: 6, flute: 25, shank: 6, presets: [preset] }),
  ToolSchema.parse({ id: 'n', name: 'N', kind: 'nozzle', diameter: 12, shank: 32, amps: 45, presets: [{ material: 'mild steel', thickness: 20, kerf: 2, feed: 700, pierceHeight: 4, pierceDelay: 1, cutHeight: 2, volts: 130 }] }), // prettier-ignore
  ToolSchema.parse({ id: 'd', name: 'D', kind: 'drill', diameter: 3, flute: 30, shank: 3, presets: [] }),
  ToolSchema.parse({ id: 'l', name: 'L', kind: 'beam', diameter: 0.1, shank: 30, presets: [] }),
];
const bench = {
  id: 'b',
  kind: 'router',
  park: null,
  name: 'Bench',
  link: 'file' as const,
  pins: 'none' as const,
  travel: { x: 800, y: 500, z: 100 },
  limits: { speed: { x: 6000, y: 5400, z: 2400 }, acceleration: { x: 400, y: 320, z: 250 }, cornerStep: 300 },
  spindle: { min: 6000, max: 24000 },
  plate: { thickness: 10, side: 5, size: 50 },
  setter: null,
  dialect: 'plain' as const,
  spindleAfter: 20,
  bitChangeMinutes: 2,
};
const job: Job = {
  ...newJob('Board', 'mm', bits, bench),
  artwork: [
    {
      id: 'art',
      kind: 'drawing',
      name: 'Stars',
      asset: 'a'.repeat(64),
      x: 0,
      y: 0,
      rotation: 0,
      scaleX: 1,
      scaleY: 1,
      closeOpen: false,
      refit: 0,
    },
  ],
};

describe('a new job and its cuts', () => {
  test('an empty job is a whole document', () => {
    expect(JobSchema.parse(newJob('Board', 'in', bits, bench)).stock.corners).toEqual([19.05, 19.05, 19.05, 19.05]);
  });
  test.each(Object.keys(CUT_KINDS) as Cut['kind'][])(
    'a new %s takes a fitting bit and its settings for the wood',
    (kind) => {
      const cut = newCut(job, kind, 'cut-1')!;
      expect(CutSchema.parse(cut)).toEqual(cut);
      const bit = bits.find(({ id }) => id === cut.bit)!;
      expect(CUT_KINDS[kind].bits).toContain(bit.kind);
      // A beam has a feed for each of what it does; a nozzle has no row for wood, and its numbers are not known.
      const row = bit.presets.find(({ material }) => material === job.stock.material) as Preset | undefined;
      if (row && bit.kind !== 'beam') expect(cut.feed).toBe(row.feed);
      else expect(cut.feed).toBeGreaterThan(100);
      expect(unknownSettings(job, cut).length > 0).toBe(!row);
      if (cut.kind === 'pocket') expect([cut.step, cut.slots]).toEqual([2.4, false]);
      if (cut.kind === 'profile') expect(cut.depth).toBe(20.5);
    },
  );
  test('with zero on the board a cut-out goes a hair past the stock', () => {
    const onBoard = { ...job, stock: { ...job.stock, zeroZ: 'spoilboard' as const } };
    expect(newCut(onBoard, 'profile', 'c')).toMatchObject({ depth: 20.05 });
    const taped = { ...job, stock: { ...job.stock, holdDown: 'tape' as const } };
    expect(newCut(taped, 'profile', 'c')).toMatchObject({ tabs: { count: 0 } });
  });
  test('without a bit for it there is no cut', () => {
    expect(newCut({ ...job, bits: [bits[3]] }, 'v-carve', 'c')).toBeUndefined();
    expect(newCut({ ...job, bits: [bits[2]] }, 'drill', 'c')?.bit).toBe('e');
  });
});

describe('what a cut is called', () => {
  const cut = newCut(job, 'pocket', 'c')!;
  const items = [
    { id: 'art', shapes: ['sun', 'moon', 'mars', 'vega', 'rigel'].map((name) => ({ name, mark: `id:${name}` })) },
  ];
  const on = (shapes: string[] | 'all'): Cut => ({ ...cut, targets: [{ item: 'art', shapes }] });
  test('after what it works on', () => {
    expect(worksOn(cut, job)).toBe('nothing yet');
    expect(worksOn(on('all'), job, items)).toBe('Stars');
    expect(worksOn(on(['id:moon', 'id:vega']), job, items)).toBe('moon, vega');
    expect(worksOn(on(['id:sun', 'id:moon', 'id:mars', 'nth:3']), job, items)).toBe('4 shapes of Stars');
    expect(worksOn(on(['id:gone']), job, items)).toBe('nothing of Stars');
  });
  test('with its verb; a bit that clears for it is told apart', () => {
    expect(titleOf(on('all'), job)).toBe('Pocket Stars');
    expect(titleOf(on('all'), job, { id: 'c.1' })).toBe('Clear for Stars');
    expect(titleOf(on('all'), job, { id: 'c', works: 'moon' })).toBe('Pocket moon');
    const inlay = newCut(job, 'inlay', 'i') as Extract<Cut, { kind: 'inlay' }>;
    expect(titleOf({ ...inlay, role: 'part', targets: on('all').targets }, job)).toBe('Inlay part of Stars');
  });
});
