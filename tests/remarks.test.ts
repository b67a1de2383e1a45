/* eslint max-lines: off -- one set of cases about one thing */
import { readFileSync } from 'node:fs';
import jsonPatch from 'fast-json-patch';
import { describe, expect, test } from 'vitest';
import type { Cut } from '../core/src/cuts/kinds.ts';
import { MACHINE_KINDS } from '../core/src/machines/kinds.ts';
import { ofKinds } from '../core/src/tools/kinds.ts';
import type { VBit } from '../core/src/tools/v/fields.ts';
import { compute, ComputeCache, type JobResult } from '../core/src/compute/compute.ts';
import type { CutJob as Job } from '../core/src/job/job.ts';
import { JobSchema } from '../core/src/job/job.ts';
import type { ProfileCut } from '../core/src/cuts/profile/fields.ts';
import type { VCarveCut } from '../core/src/cuts/v-carve/fields.ts';
import { bytesFromBase64, readJobFile, writeJobFile } from '../core/src/job/job-file.ts';
import { scaledArtwork } from '../core/src/artwork/artwork-scale.ts';
import { judgeKinds } from '../core/src/remarks/kinds.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';
import { demoJob } from './demo-job.ts';

const open = '<svg width="60mm" height="60mm" viewBox="0 0 60 60"><path d="M5 5H50V50H5"/></svg>';
const { file, resources, run, changed } = await demoJob('comet-marker', { ['f'.repeat(64)]: open });
const carve = (job: Job) => job.cuts.find((cut): cut is VCarveCut => cut.kind === 'v-carve')!;
const bit = (job: Job, id: string) => job.bits.find((b) => b.id === id) as VBit;
const out = (job: Job) => job.cuts.find((cut): cut is ProfileCut => cut.kind === 'profile')!;

test('the demo job has nothing that must be mended', async () => {
  expect((await run(file.job)).remarks.filter((remark) => remark.weight === 'wrong')).toEqual([]);
});

test('what must be mended is said before what is advised, and nothing of outlines where nothing is drawn', async () => {
  const weights = async (change: (job: Job) => void) => (await run(changed(change))).remarks.map(({ weight }) => weight); // prettier-ignore
  const both = await weights((job) => {
    // Of corners that differ is remarked early, of a clamp in the way late.
    job.stock.corners = [12, 12, 12, 12.9];
    job.stock.keepOuts.push({ ...job.stock.keepOuts[0], id: 'in-the-way', x: 60, y: 60 });
  });
  expect(new Set(both).size).toBe(2);
  expect(both.lastIndexOf('wrong')).toBeLessThan(both.indexOf('advice'));
  const bare = await run(
    changed((job) => {
      job.artwork = [];
      for (const cut of job.cuts) cut.targets = [];
    }),
  );
  expect(bare.remarks.map(({ id }) => id).filter((id) => id.startsWith('no-outlines'))).toEqual([]);
});

test('a bench just as long as its job reaches it, one a hundredth shorter does not', async () => {
  const { cuts } = await run(file.job);
  const xs = cuts.flatMap(({ path: { xyz } }) => [...xyz].filter((_, k) => k % 3 === 0));
  const span = Math.max(...xs) - Math.min(...xs);
  const reaches = async (x: number) => {
    const { remarks } = await run(changed((job) => (job.bench.travel = { ...job.bench.travel, x })));
    return !remarks.some(({ id }) => id === 'reach');
  };
  expect([await reaches(span), await reaches(span - 0.01)]).toEqual([true, false]);
});

describe('parts cut out beside each other, a bit of 6.35 mm between them', () => {
  const TOUCH = 'Shapes touch along 20 mm of their lines: they are one part there, and that line is not cut. Move them apart by more than the cut is wide.'; // prettier-ignore
  test.each([
    ['far enough apart', 'M5 5H20V50H5Z', 'M30 10H50V30H30Z', []],
    [
      'nearer than the bit is wide',
      'M5 5H25V50H5Z',
      'M26 10H50V30H26Z',
      [
        'End mill 6.35 does not fit between one of the outlines and another, and they would come out as one; move them apart by more than it is wide, or take a finer one.',
      ],
    ],
    ['touching', 'M5 5H25V50H5Z', 'M25 10H50V30H25Z', [TOUCH]],
    ['overlapping, as letters of a script do', 'M5 5H25V50H5Z', 'M20 10H50V30H20Z', []],
    [
      'and a hole with a neck',
      'M5 5H50V50H5Z M10 10V20H20V17H30V20H45V10H30V13H20V10Z',
      '',
      [
        'End mill 6.35 does not fit through a narrow place of one of the outlines, and what lies there would stay; take a finer one.',
      ],
    ],
    [
      'and a hole that the bit does not fit into',
      'M5 5H50V50H5Z M20 20H25V25H20Z',
      '',
      ['End mill 6.35 does not fit into one of the outlines, which would be left out.'],
    ],
  ])('%s', async (_, one, other, texts) => {
    const svg = `<svg width="60mm" height="60mm" viewBox="0 0 60 60"><path fill-rule="evenodd" d="${one}"/><path d="${other}"/></svg>`;
    const own = await resourcesFromDisk((hash) =>
      hash === 'd'.repeat(64) ? new TextEncoder().encode(svg) : undefined,
    );
    const job = changed((draft) => {
      Object.assign(draft.artwork[0], { asset: 'd'.repeat(64) });
      draft.cuts = [{ ...out(draft), targets: [{ item: 'marker', shapes: 'all' }] }];
    });
    const { remarks } = await compute(JobSchema.parse(job), own, await clipperFromDisk());
    const said = remarks.filter(({ id }) => /^(grown|neck|narrow|touching)/.test(id));
    expect(said.map(({ text }) => text)).toEqual(texts);
  });
});

describe('every rule speaks, and its remedy mends what it speaks of', () => {
  const cases: [id: string, change: (job: Job) => void][] = [
    [
      'open-carve',
      (job) => {
        Object.assign(job.artwork[0], { asset: 'f'.repeat(64) });
        carve(job).targets = [{ item: 'marker', shapes: 'all' }];
        job.cuts = [carve(job)];
      },
    ],
    ['off-stock-number', (job) => (job.artwork[1].x = 196)],
    ['lost-carve', (job) => carve(job).targets.push({ item: 'marker', shapes: ['id:gone'] })],
    ['no-outlines-carve', (job) => (carve(job).targets = [])],
    ['problem-carve', (job) => (carve(job).bit = 'e6')],
    [
      'deeper-carve',
      (job) => {
        job.stock.corners = [3, 3, 3, 3];
        carve(job).depthLimit = 6;
      },
    ],
    ['spoilboard-cut-out', (job) => (out(job).depth = 12)],
    ['not-through-cut-out', (job) => (out(job).depth = 8.5)],
    ['flute-cut-out', (job) => (bit(job, 'e6').flute = 5)],
    [
      'pass-carve',
      (job) => (bit(job, 'v90').presets.find((p) => p.material === job.stock.material)!.depthPerPass = 1.5),
    ],
    ['pass-cut-out', (job) => (out(job).depthPerPass = 9)],
    ['narrow-carve', (job) => (bit(job, 'v90').tip = 5)],
    ['wide-carve', (job) => (carve(job).bit = 'v60')],
    ['tabs-cut-out', (job) => (out(job).tabs.count = 0)],
    ['large-tabs-cut-out', (job) => Object.assign(out(job).tabs, { count: 4, length: 40 })],
    ['keep-out-cut-out-screw-1', (job) => Object.assign(job.stock.keepOuts[0], { x: 96, y: 8 })],
    ['reach', (job) => (job.bench.travel = { x: 150, y: 400, z: 100 })],
    ['reach-z', (job) => Object.assign(job.stock, { lift: 60, keepOuts: [] }) && (job.bench.travel.z = 60)],
    ['limit-carve', (job) => (carve(job).feed = 9000)],
    ['spindle-carve', (job) => (carve(job).speed = 30_000)],
    ['uneven-stock', (job) => (job.stock.corners = [9, 7.5, 9, 9])],
    [
      'travel',
      (job) => {
        job.bench.travel = { x: 190, y: 400, z: 100 };
      },
    ],
  ];
  test.each(cases)('%s', async (id, change) => {
    const job = changed(change);
    const remark = (await run(job)).remarks.find((r) => r.id === id);
    expect(remark?.text).toMatch(/[.!]$/);
    expect(remark!.remedies.length).toBeGreaterThan(0);
    for (const remedy of remark!.remedies) {
      const mended = jsonPatch.applyPatch(structuredClone(job), remedy.patch).newDocument;
      const left = (await run(mended)).remarks.map((r) => r.id);
      // A wider bit makes the floor smaller; it need not make it vanish.
      if (id !== 'wide-carve') expect(left).not.toContain(id);
    }
  });
});

describe('rules about pockets, holes and inlays speak, and their remedies mend', () => {
  const plate = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
  const own = resourcesFromDisk((hash) => plate.assets[hash] && bytesFromBase64(plate.assets[hash].base64));
  const kept = new ComputeCache();
  const result = async (job: Job) => compute(JobSchema.parse(job), await own, await clipperFromDisk(), { cache: kept });
  const cut = <K extends Job['cuts'][number]['kind']>(job: Job, kind: K) =>
    job.cuts.find((c): c is Extract<Job['cuts'][number], { kind: K }> => c.kind === kind)!;
  test('the plate itself has nothing that must be mended', async () => {
    expect((await result(plate.job)).remarks.filter((remark) => remark.weight === 'wrong')).toEqual([]);
  });
  const cases: [id: string, change: (job: Job) => void][] = [
    ['corners-moon', (job) => Object.assign(cut(job, 'pocket'), { bit: 'e6', step: 2.5, clearBits: [] })],
    ['deeper-moon', (job) => (cut(job, 'pocket').depth = 12)],
    ['through-board-lights', (job) => (cut(job, 'drill').depth = 33)],
    [
      'drawn-larger-lights',
      (job) => (job.artwork[0].kind === 'drawing' ? Object.assign(job.artwork[0], { scaleX: 3, scaleY: 3 }) : 0),
    ],
    [
      'drawn-smaller-lights',
      (job) => {
        job.bits.push({ ...job.bits.find(({ id }) => id === 'd3')!, id: 'd8', name: 'Drill 8', diameter: 8 });
        cut(job, 'drill').bit = 'd8';
      },
    ],
    ['spoilboard-lights', (job) => (cut(job, 'drill').depth = 20)],
    [
      'flute-moon.1',
      (job) => {
        const { clearBits } = cut(job, 'pocket');
        if (clearBits.length === 0) clearBits.push('e6');
        // Just too short.
        bit(job, clearBits[0]).flute = 4.5;
      },
    ],
    ['flute-lights', (job) => (bit(job, 'd3').flute = 8)],
    ['deeper-star', (job) => (cut(job, 'inlay').depth = 12.05)],
    [
      'pair-half',
      (job) => job.cuts.push({ ...structuredClone(cut(job, 'inlay')), id: 'half', role: 'part', allowance: -0.04 }),
    ],
    [
      'pair-half',
      (job) => job.cuts.push({ ...structuredClone(cut(job, 'inlay')), id: 'half', role: 'part', allowance: 0.2 }),
    ],
    [
      'corners-of-half',
      (job) => {
        job.cuts.push({ ...structuredClone(cut(job, 'inlay')), id: 'half', role: 'part' });
        cut(job, 'inlay').bit = 'e6';
      },
    ],
    [
      'corners-of-half',
      (job) => job.cuts.push({ ...structuredClone(cut(job, 'inlay')), id: 'half', role: 'part', otherDiameter: 9 }),
    ],
    ['problem-moon', (job) => (cut(job, 'pocket').step = 5)],
    ['problem-edge', (job) => (cut(job, 'profile').finish = 5)],
    // A usual step does not help a bit that is too wide for every place.
    [
      'problem-moon',
      (job) => {
        job.bits.push({ ...job.bits.find(({ id }) => id === 'e6')!, id: 'e80', name: 'End mill 80', diameter: 80 });
        Object.assign(cut(job, 'pocket'), { bit: 'e80', step: 90, clearBits: [] });
      },
    ],
    [
      'order',
      (job) => {
        job.cuts.reverse();
        job.ownOrder = true;
      },
    ],
  ];
  test.each(cases)('%s', async (id, change) => {
    const job = structuredClone(plate.job);
    change(job);
    const remark = (await result(job)).remarks.find((r) => r.id === id);
    expect(remark?.text).toMatch(/[.!]$/);
    for (const remedy of remark!.remedies) {
      const mended = jsonPatch.applyPatch(structuredClone(job), remedy.patch).newDocument;
      expect((await result(mended)).remarks.map((r) => r.id)).not.toContain(id);
    }
  });
});

test.each([
  [3, 'One of the tabs has no place where it would stand, and only 3 hold the part.'],
  [2, '2 of the tabs have no place where they would stand, and only 2 hold the part.'],
  [0, '4 of the tabs have no place where they would stand, and none is left.'],
])('of four tabs %i stand: those without a place are told by number', async (stand, text) => {
  const job = JobSchema.parse(changed((j) => Object.assign(out(j).tabs, { at: [], count: 4 })));
  const { cuts, items } = await run(job);
  const found = async (most: number) => {
    const fewer = cuts.map((cut) => ({ ...cut, tabs: cut.tabs.slice(0, most), tabsMissing: 4 - most }));
    const remarks = await judgeKinds({ job, items, cuts: fewer, tryCut: async () => [] });
    return remarks.find(({ id }) => id.startsWith('fewer-tabs'));
  };
  expect(await found(4)).toBeUndefined();
  expect((await found(stand))?.text).toBe(text);
});

test('drills go by pecks, whatever a pass of theirs would be', async () => {
  const plate = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
  const own = await resourcesFromDisk((hash) => plate.assets[hash] && bytesFromBase64(plate.assets[hash].base64));
  const job = structuredClone(plate.job);
  for (const bit of job.bits) for (const preset of bit.presets) if (bit.id === 'd3') Object.assign(preset, { depthPerPass: 1, material: job.stock.material });
  const { remarks } = await compute(JobSchema.parse(job), own, await clipperFromDisk());
  expect(remarks.map(({ id }) => id)).not.toContain('pass-lights');
  // Circles drawn larger: cut out from within, down a ramp, and nothing is left to hold a slug by.
  const wide = structuredClone(plate.job);
  if (wide.artwork[0].kind === 'drawing') Object.assign(wide.artwork[0], { scaleX: 3, scaleY: 3 });
  const drill = wide.cuts.find((cut) => cut.kind === 'drill')!;
  for (const [depth, label] of [[Math.min(...wide.stock.corners), /^Cut them out/], [5, /^Clear them/]] as const) {
    drill.depth = depth;
    const found = (await compute(JobSchema.parse(wide), own, await clipperFromDisk())).remarks.find(({ id }) => id === 'drawn-larger-lights')!;
    expect(found.remedies[0].label).toMatch(label);
    const value = (found.remedies[0].patch[0] as unknown as { value: Record<string, unknown> }).value;
    expect(value).toMatchObject({ depth, targets: drill.targets });
    if (depth > 5) expect(value).toMatchObject({ kind: 'profile', side: 'inside', ramp: 5, tabs: { count: 0 } });
    else expect(value).toMatchObject({ kind: 'pocket' });
  }
}); // prettier-ignore

test('a finer drill or mill is offered with its own settings, and a drill only where it makes all as drawn', async () => {
  const plate = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
  const circle = (x: number, r: number) => `<circle cx="${x}" cy="20" r="${r}"/>`;
  const set = { material: plate.job.stock.material, feed: 411, plunge: 77, speed: 9000, depthPerPass: 0.7 };
  const offered = async (kind: string, id: string, body: string, bits: object[], fields: object) => {
    const resources = await resourcesFromDisk(() => new TextEncoder().encode(`<svg width="60mm" height="40mm" viewBox="0 0 60 40">${body}</svg>`)); // prettier-ignore
    const job = structuredClone(plate.job);
    job.artwork = job.artwork.filter((item) => item.kind === 'drawing').slice(0, 1);
    const cut = { ...job.cuts.find((one) => one.kind === kind)!, ...fields, targets: [{ item: job.artwork[0].id, shapes: 'all' }] }; // prettier-ignore
    job.cuts = [cut as Cut];
    job.bits = [...job.bits, ...bits] as Job['bits'];
    const { remarks } = await compute(JobSchema.parse(job), resources, await clipperFromDisk());
    const [remedy] = remarks.find((one) => one.id === `${id}-${cut.id}`)!.remedies;
    return remedy && [remedy.label, ...remedy.patch.map((op) => (op as { value: unknown }).value)];
  };
  const drill = (id: string, diameter: number) => ({ ...plate.job.bits.find((one) => one.id === 'd3')!, id, name: `Drill ${diameter}`, diameter, presets: [set] }); // prettier-ignore
  const small = (body: string) =>
    offered('drill', 'drawn-smaller', body, [drill('d8', 8), drill('d5', 5)], { bit: 'd8' });
  expect(await small(circle(10, 2.5) + circle(30, 2.5))).toEqual(['Use Drill 5', 'd5', 411, 77, 9000]);
  expect(await small(circle(10, 2.5) + circle(30, 1.5))).toBeUndefined();
  expect(await small(circle(10, 1) + circle(30, 1))).toBeUndefined();
  const fine = { ...plate.job.bits.find((one) => one.id === 'e3')!, id: 'e1', name: 'End mill 1', diameter: 1, flute: 20, presets: [set] }; // prettier-ignore
  const hole = 'M5 5H55V35H5ZM20 15V17H40V15Z';
  const out = await offered('profile', 'narrow', `<path fill-rule="evenodd" d="${hole}"/>`, [fine], { side: 'outside', bit: 'e3' }); // prettier-ignore
  expect(out).toEqual(['Use End mill 1', 'e1', 411, 77, 9000, 0.7]);
});

test('where only some circles are drawn larger, only these are cut as drawn, and the others drilled', async () => {
  const plate = readJobFile(readFileSync(new URL('../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'));
  const circle = (x: number, r: number) => `<circle cx="${x}" cy="20" r="${r}"/>`;
  const svg = `<svg width="60mm" height="40mm" viewBox="0 0 60 40">${circle(10, 1.5)}${circle(25, 4)}${circle(40, 1.5)}${circle(50, 5)}</svg>`;
  const resources = await resourcesFromDisk(() => new TextEncoder().encode(svg));
  const job = structuredClone(plate.job);
  const drilled = structuredClone(job.cuts.find(({ kind }) => kind === 'drill')!);
  job.artwork = job.artwork.filter(({ kind }) => kind === 'drawing').slice(0, 1);
  drilled.targets = [{ item: job.artwork[0].id, shapes: 'all' }];
  job.cuts = [drilled];
  const { remarks } = await compute(JobSchema.parse(job), resources, await clipperFromDisk());
  const found = remarks.find(({ id }) => id === `drawn-larger-${drilled.id}`)!;
  expect(found.text).toMatch(/^2 circles are drawn 8 mm to 10 mm wide/);
  const mended = jsonPatch.applyPatch(structuredClone(job), found.remedies[0].patch).newDocument;
  const places = ({ targets: [{ shapes }] }: Cut) => [...shapes].map((mark) => Number(/^at:(\d+),20;/.exec(mark)![1]));
  expect(mended.cuts.map((cut) => [cut.id, places(cut)])).toEqual([
    [drilled.id, [10, 40]],
    [`${drilled.id}-2`, [25, 50]],
  ]);
  const after = await compute(JobSchema.parse(mended), resources, await clipperFromDisk());
  expect(after.cuts.map(({ problem }) => problem)).toEqual([undefined, undefined]);
  expect(after.remarks.filter(({ id }) => id.startsWith('drawn-larger'))).toEqual([]);
});

test('shapes that are found by size or place only are said, until someone has looked', async () => {
  // A square half a millimetre beside where this cut knows one.
  const svg = '<svg width="60mm" height="60mm" viewBox="0 0 60 60"><path d="M10 10h20v20h-20z"/></svg>';
  const own = await resourcesFromDisk(() => new TextEncoder().encode(svg));
  const job = changed((j) => {
    Object.assign(out(j), { targets: [{ item: j.artwork[0].id, shapes: ['at:20.5,40;20x20'] }] });
    Object.assign(j.artwork[0], { asset: 'f'.repeat(64) });
    j.cuts = [out(j)];
  });
  const judged = async (j: Job) => (await compute(JobSchema.parse(j), own, await clipperFromDisk())).remarks;
  const found = (await judged(job)).find(({ id }) => id === 'guessed-cut-out')!;
  expect(found.text).toMatch(/is not what it was: one shape of this cut was found by size or place only/);
  const mended = jsonPatch.applyPatch(structuredClone(job), found.remedies[0].patch).newDocument;
  expect(mended.cuts[0].targets).toEqual([{ item: job.artwork[0].id, shapes: 'all' }]);
  expect((await judged(mended)).some(({ id }) => id.startsWith('guessed'))).toBe(false);
});

test('where a drawing itself is missing, its shapes are not said to be lost as well', async () => {
  const { remarks } = await run(changed((job) => Object.assign(job.artwork[0], { asset: 'e'.repeat(64) })));
  expect(remarks.map(({ text }) => text).join()).toMatch(/file is missing/);
  expect(remarks.filter(({ id }) => id.startsWith('lost-'))).toEqual([]);
});

test('a tool that the bench’s machine does not hold is said', async () => {
  const { router } = MACHINE_KINDS;
  const { tools } = router;
  // As on a machine that holds mills only.
  router.tools = ['end'];
  try {
    const { remarks } = await run(file.job);
    const held = remarks.filter(({ withholds }) => withholds);
    expect(held.map(({ text }) => text)).toEqual([
      expect.stringMatching(/is a router, and does not hold a V-bit, which cut 1 takes; give the job to another bench/),
    ]);
  } finally {
    router.tools = tools;
  }
});

describe('a rule speaks where it should, and only there', () => {
  const ids = async (change: (job: Job) => void) => (await run(changed(change))).remarks.map(({ id }) => id);
  const remark = async (id: string, change: (job: Job) => void) =>
    (await run(changed(change))).remarks.find((r) => r.id === id);
  test('a cut-out goes a millimetre into the board with zero on top, and no further', async () => {
    const deep = (past: number) => (job: Job) => {
      job.stock.zeroZ = 'stock';
      out(job).depth = 9 + past;
    };
    expect(await ids(deep(0.9))).not.toContain('spoilboard-cut-out');
    expect(await ids(deep(1.4))).toContain('spoilboard-cut-out');
  });
  test('a bit is offered for a deep cut only if its own edges are long enough', async () => {
    const found = await remark('flute-cut-out', (job) => {
      for (const mill of ofKinds<VBit>(job.bits, ['end'])) mill.flute = mill.id === 'e6' ? 5 : 7;
    });
    expect(found?.remedies.map(({ label }) => label)).toEqual(['Go 5 mm deep']);
  });
  test('a carving deeper than the stock is offered what keeps wood under it', async () => {
    const deep = (corner: number) => (job: Job) => {
      Object.assign(carve(job), { depthLimit: 20, bit: 'v60', targets: [{ item: job.artwork[1].id, shapes: 'all' }] });
      job.stock.corners = [corner, corner, corner, corner];
    };
    for (const [corner, depth] of [[4, 2], [2.5, 1]]) {
      const found = await remark('deeper-carve', deep(corner));
      expect(found?.remedies[0].patch).toEqual([{ op: 'replace', path: '/cuts/0/depthLimit', value: depth }]);
      expect(found?.remedies[0].label).toBe(`Carve no deeper than ${depth} mm`);
    }
  }); // prettier-ignore
  test('how high the Z axis must reach goes by the highest lift, over clamps too', async () => {
    const reach = async (lift: number, travel: number) =>
      (await ids((job) => {
        Object.assign(job.stock, { lift, keepOuts: [] });
        job.bench.travel.z = travel;
      })).includes('reach-z'); // prettier-ignore
    const { cuts } = await run(changed(() => {}));
    const deepest = Math.max(...cuts.map(({ depth }) => depth));
    for (const lift of [5, 40]) {
      expect(await reach(lift, lift + deepest - 0.2)).toBe(true);
      expect(await reach(lift, lift + deepest + 0.2)).toBe(false);
    }
  });
  test('what cannot be cut for its finish alone is offered to be cut without it', async () => {
    const found = await remark('problem-cut-out', (job) => (out(job).finish = 5));
    expect(found?.remedies.map(({ label }) => label)).toEqual(['Cut without a finish allowance']);
  });
  test('artwork too large for the bench is made smaller about the middle of the stock', async () => {
    const job = changed(() => {});
    const { length, width } = job.stock;
    const patch = scaledArtwork(job, 0.5);
    const small = jsonPatch.applyPatch(structuredClone(job), patch).newDocument;
    job.artwork.forEach((item, k) => {
      expect(small.artwork[k].x - length / 2).toBeCloseTo((item.x - length / 2) / 2, 9);
      expect(small.artwork[k].y - width / 2).toBeCloseTo((item.y - width / 2) / 2, 9);
    });
  });
  test('a skin holds the part: no tabs are asked for', async () => {
    expect(
      await ids((job) => {
        out(job).tabs.count = 0;
        out(job).skin = 0.4;
      }),
    ).not.toContain('tabs-cut-out');
  });
  test('a clamp in the way is not moved onto another', async () => {
    const job = changed(({ stock }) => {
      const [clamp] = stock.keepOuts;
      stock.keepOuts = [{ ...clamp, x: 96, y: 8 }];
      // All round it, everywhere on the lower half.
      for (let k = 0; k < 20; k++)
        stock.keepOuts.push({ ...clamp, id: `other-${k}`, x: 92 + (k % 3) * 4, y: -20 - k, length: 4, width: 3 });
      stock.keepOuts.push({ ...clamp, id: 'board', x: 0, y: -400, length: 200, width: 399 });
    });
    const found = (await run(job)).remarks.find(({ id }) => id === 'keep-out-cut-out-screw-1')!;
    const { stock } = jsonPatch.applyPatch(structuredClone(job), found.remedies[0].patch).newDocument;
    const [moved, ...others] = stock.keepOuts;
    // Moved, not taken away.
    expect(stock.keepOuts).toHaveLength(job.stock.keepOuts.length);
    for (const k of others)
      expect(
          moved.x < k.x + k.length && moved.x + moved.length > k.x && moved.y < k.y + k.width && moved.y + moved.width > k.y,
        ).toBe(false); // prettier-ignore
  });
  test('what a wider bit saves counts the bits that clear before it', async () => {
    const job = changed((j) => {
      carve(j).bit = 'v60';
      carve(j).clearBits = ['e3'];
      carve(j).depthLimit = 3;
    });
    const before = await run(job);
    const found = before.remarks.find(({ id }) => id === 'wide-carve')!.remedies[0];
    const after = await run(jsonPatch.applyPatch(structuredClone(job), found.patch).newDocument);
    const of = ({ cuts }: JobResult) =>
      60 * cuts.filter(({ cut }) => cut === 'carve').reduce((sum, { minutes }) => sum + minutes, 0);
    const [, minutes = 0, seconds, way] = /(?:(\d+) min )?(\d+) s (sooner|later)$/.exec(found.label)!;
    const sooner = (60 * Number(minutes) + Number(seconds)) * (way === 'sooner' ? 1 : -1);
    expect(Math.abs(of(before) - of(after) - sooner)).toBeLessThan(0.51);
  });
  test('carving to a point is offered only as deep as the edges of the bit are long, and 2 mm of the stock stay', async () => {
    const labels = async (flute: number, thick = 12) =>
      (
        await remark('wide-carve', (job) => {
          carve(job).targets = [{ item: job.artwork[1].id, shapes: 'all' }];
          carve(job).depthLimit = 1;
          bit(job, 'v90').flute = flute;
          job.stock.corners = [thick, thick, thick, thick];
        })
      )?.remedies.map(({ label }) => label) ?? [];
    expect((await labels(20)).some((label) => label.startsWith('Carve '))).toBe(true);
    expect((await labels(1.2)).some((label) => label.startsWith('Carve '))).toBe(false);
    const needed = Number(/^Carve ([\d.]+) mm deep/.exec((await labels(20)).find((label) => label.startsWith('Carve '))!)![1]); // prettier-ignore
    expect((await labels(20, needed + 2.05)).some((label) => label.startsWith('Carve '))).toBe(true);
    expect((await labels(20, needed + 1.95)).some((label) => label.startsWith('Carve '))).toBe(false);
  });
  test('a bit that clears for the second carving of two is in its place', async () => {
    expect(
      await ids((job) => {
        carve(job).clearBits = ['e3'];
        job.cuts.splice(1, 0, { ...structuredClone(carve(job)), id: 'again' });
        job.ownOrder = true;
      }),
    ).not.toContain('order');
  });
});

test('the gain a remedy promises is the gain it brings', async () => {
  const job = changed((j) => (carve(j).bit = 'v60'));
  const before = await run(job);
  const remedy = before.remarks.find((r) => r.id === 'wide-carve')!.remedies[0];
  const promised = /(?:(\d+) min )?(\d+) s (sooner|later)$/.exec(remedy.label)!;
  const after = await run(jsonPatch.applyPatch(structuredClone(job), remedy.patch).newDocument);
  const of = (result: JobResult) => result.cuts.find((cut) => cut.id === 'carve')!.minutes * 60;
  const sooner = (Number(promised[1] ?? 0) * 60 + Number(promised[2])) * (promised[3] === 'sooner' ? 1 : -1);
  expect(Math.abs(of(before) - of(after) - sooner)).toBeLessThan(0.51);
});

describe('compute', () => {
  test('the same job gives the same result, with or without a cache', async () => {
    const fresh = await compute(file.job, resources, await clipperFromDisk());
    const again = await run(file.job);
    expect(again.minutes).toBe(fresh.minutes);
    expect(again.cuts.map((cut) => cut.path)).toEqual(fresh.cuts.map((cut) => cut.path));
  });
  test('only cuts whose inputs changed are computed again', async () => {
    const own = new ComputeCache();
    const clipper = await clipperFromDisk();
    const first = await compute(file.job, resources, clipper, { cache: own });
    const second = await compute(
      changed((job) => (out(job).depth = 9.1)),
      resources,
      clipper,
      { cache: own },
    );
    expect(second.cuts.find((cut) => cut.id === 'carve')).toBe(first.cuts.find((cut) => cut.id === 'carve'));
    expect(second.cuts.find((cut) => cut.id === 'cut-out')).not.toBe(first.cuts.find((cut) => cut.id === 'cut-out'));
  });
  test('it can be cancelled, and reports progress', async () => {
    const stop = new AbortController();
    const shares: number[] = [];
    const work = compute(file.job, resources, await clipperFromDisk(), {
      signal: stop.signal,
      progress: (share) => {
        shares.push(share);
        if (share > 0.1) stop.abort();
      },
    });
    await expect(work).rejects.toThrow(/abort/i);
    expect(shares.length).toBeGreaterThan(1);
  });
  test('carving comes before cutting out, whatever the list says', async () => {
    const result = await run(changed((job) => job.cuts.reverse()));
    expect(result.cuts.map((cut) => cut.id)).toEqual(['carve', 'cut-out']);
  });
});

describe('job files', () => {
  test('what is written is read back', () => {
    expect(readJobFile(writeJobFile(file.job, file.assets))).toEqual(file);
  });
  test.each([
    ['not json', /not JSON/],
    ['{}', /not a valid Kerbe job \(the job must be complete\)/],
    [writeJobFile({ ...file.job, unit: 'ell' as 'mm' }, {}), /unit/],
  ])('a wrong file gets a sentence', (text, sentence) => {
    expect(() => readJobFile(text)).toThrow(sentence);
  });
});
