import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { compute, type JobResult } from '../core/src/compute/compute.ts';
import { type CutKindName, kindOf } from '../core/src/cuts/kinds.ts';
import { lateStrip } from '../core/src/cuts/laser-fill/late-strip.ts';
import { laserTestGrid } from '../core/src/cuts/laser-fill/test-grid.ts';
import type { TestSquares } from '../core/src/cuts/laser-fill/test-squares.ts';
import { newCut } from '../core/src/cuts/new-cut.ts';
import { newJob } from '../core/src/document/new-job.ts';
import { type CutJob, JobSchema } from '../core/src/job/job.ts';
import { BenchSchema } from '../core/src/machines/bench-schema.ts';
import type { PlasmaBench } from '../core/src/machines/plasma/bench.ts';
import type { Beam } from '../core/src/tools/beam/fields.ts';
import type { Nozzle } from '../core/src/tools/nozzle/fields.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const benches = (JSON.parse(readFileSync(new URL('../demo/benches.json', import.meta.url), 'utf8')) as unknown[]).map((one) => BenchSchema.parse(one)); // prettier-ignore
const benchOf = (kind: string) => benches.find((bench) => bench.kind === kind)!;
const ASSET = 'a'.repeat(64);

async function computed(job: CutJob, svg: string): Promise<JobResult> {
  const resources = await resourcesFromDisk((hash) => (hash === ASSET ? new TextEncoder().encode(svg) : undefined));
  return compute(JobSchema.parse(job), resources, await clipperFromDisk());
}

const row = { material: 'birch plywood', thickness: 3, cutPower: 90, cutFeed: 480, cutPasses: 1, scorePower: 30, scoreFeed: 2400, fillPower: 35, fillFeed: 6000, fillLines: 0 }; // prettier-ignore
const beam: Beam = { id: 'b', name: 'Beam', kind: 'beam', diameter: 0.2, shank: 30, focus: 50, presets: [row] };
const charted = { material: 'mild steel', thickness: 3, kerf: 1.4, feed: 2400, pierceHeight: 3.8, pierceDelay: 0.4, cutHeight: 1.5, volts: 120 }; // prettier-ignore
const nozzle: Nozzle = { id: 'n', name: 'Nozzle', kind: 'nozzle', diameter: 12, shank: 32, amps: 45, presets: [charted, { ...charted, thickness: 6, kerf: 1.8 }] }; // prettier-ignore
const fine: Nozzle = { ...nozzle, id: 'fine', name: 'Fine', presets: [{ ...charted, kerf: 0.8 }] };

interface Given {
  fields?: object;
  stock?: object;
  nozzles?: Nozzle[];
  bench?: object;
}

/** A cut of all that is drawn, on a sheet of 200 by 150 mm. */
async function made(
  kind: CutKindName,
  body: string,
  { fields, stock, nozzles = [], bench }: Given,
): Promise<JobResult> {
  const torch = kind === 'plasma';
  const on = { ...benchOf(torch ? 'plasma' : 'laser'), ...bench };
  const job = newJob('job', 'mm', [torch ? nozzle : beam, ...nozzles], on) as CutJob;
  Object.assign(job.stock, {
    length: 200,
    width: 150,
    material: torch ? 'mild steel' : 'birch plywood',
    corners: [3, 3.02, 3, 2.97],
    ...stock,
  });
  job.artwork = [{ kind: 'drawing', id: 'art', name: 'Art', asset: ASSET, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false, refit: 0 }]; // prettier-ignore
  job.cuts = [{ ...newCut(job, kind, 'c')!, targets: [{ item: 'art', shapes: 'all' }], ...fields }];
  return computed(job, `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="150mm" viewBox="0 0 200 150">${body}</svg>`); // prettier-ignore
}

/** What is said of it, without the name of the cut behind it. */
async function said(kind: CutKindName, body: string, given: Given = {}) {
  const { remarks } = await made(kind, body, given);
  return remarks.filter(({ cut }) => cut === 'c').map(({ id, weight, text, remedies }) => ({ id: id.replace(/-c$/, ''), weight, text, remedies: remedies.map(({ label }) => label) })); // prettier-ignore
}

const plate = (inner = '') => `<path fill-rule="evenodd" d="M20 20H120V100H20Z${inner}"/>`;
const hole = (x: number, y: number, r: number) => `M${x - r} ${y}A${r} ${r} 0 0 0 ${x + r} ${y}A${r} ${r} 0 0 0 ${x - r} ${y}Z`; // prettier-ignore
/** A hole of two squares with a passage of 0.15 mm between them. */
const DUMBBELL = 'M40 50V60H50V55.15H60V60H70V50H60V55H50V50Z';
/** A plate and another on its right, half as high. */
const TWO = `${plate()}<rect x="120" y="30" width="40" height="40"/>`;
const IDS: [kind: CutKindName, what: string, says: string[], body: string, given?: Given][] = [
  ['laser-cut', 'a plate', [], plate()],
  ['laser-cut', 'a hole near an edge', ['near-edge'], plate(hole(25, 60, 3))],
  ['laser-cut', 'a hole further in', [], plate(hole(40, 60, 3))],
  ['laser-cut', 'a slot narrower than the kerf', ['closes'], plate('M50 50H80V50.1H50Z')],
  ['laser-cut', 'plates that overlap', ['closes', 'overlap'], `${plate()}<rect x="90" y="60" width="60" height="60"/>`],
  ['laser-cut', 'plates that touch', ['touching'], TWO],
  ['laser-cut', 'plates that touch, on their lines', ['touching'], TWO, { fields: { side: 'on' } }],
  [
    'laser-cut',
    'plates that touch at a corner',
    [],
    `${plate()}<rect x="120" y="100" width="40" height="40"/>`,
    { fields: { side: 'on' } },
  ],
  ['laser-cut', 'a plate drawn twice', ['overlap'], plate() + plate(), { fields: { side: 'outside' } }],
  ['laser-cut', 'a plate drawn twice, each in the other', [], plate() + plate()],
  ['laser-cut', 'plates nearer than the kerf', ['closes'], `${plate()}<rect x="120.1" y="30" width="40" height="40"/>`],
  [
    'laser-cut',
    'a hole that falls in two while another closes',
    ['closes', 'near-edge'],
    plate(`${DUMBBELL}M100 50H110V50.1H100Z`),
  ],
  ['laser-cut', 'a hole that falls in two', ['closes', 'near-edge'], plate(DUMBBELL)],
  ['laser-cut', 'a line of one point', ['empty'], `${plate()}<path fill="none" stroke="black" d="M150 20L150.02 20"/>`],
  ['laser-cut', 'stock of another thickness', ['settings'], plate(), { stock: { corners: [5, 5.02, 5, 4.97] } }],
  ['laser-cut', 'stock of another material', ['settings'], plate(), { stock: { material: 'card' } }],
  ['laser-score', 'stock of another material', ['settings'], plate(), { stock: { material: 'card' } }],
  ['laser-fill', 'a plate', [], plate()],
  ['laser-fill', 'stock of another thickness', ['settings'], plate(), { stock: { corners: [5, 5.02, 5, 4.97] } }],
  ['laser-fill', 'lines that lie over each other', ['lines'], plate(), { fields: { lines: 13 } }],
  ['laser-fill', 'lines just not too near', [], plate(), { fields: { lines: 12 } }],
  ['laser-fill', 'lines that leave stripes', ['lines'], plate(), { fields: { lines: 2.5 } }],
  ['laser-fill', 'lines just not too far', [], plate(), { fields: { lines: 3.5 } }],
  [
    'laser-fill',
    'a part narrower than the spot',
    ['thin'],
    `${plate()}<rect x="140" y="20" width="0.15" height="30"/>`,
  ],
  ['plasma', 'a plate', [], plate()],
  ['plasma', 'a slot narrower than the kerf', ['narrow'], plate('M50 50H80V51H50Z')],
  ['plasma', 'a web of two kerfs', ['fine'], plate('M50 50H80V60H50Z M82 50H110V60H82Z')],
  ['plasma', 'a notch with a sharp inner corner', ['narrow'], '<path d="M20 20H120V100H74L70 40L66 100H20Z"/>'],
  [
    'plasma',
    'a hole small for the sheet',
    ['small', 'lead'],
    plate(hole(60, 60, 2)),
    { stock: { corners: [6, 6.02, 6, 5.97] } },
  ],
  ['plasma', 'plates that overlap', ['narrow', 'overlap'], `${plate()}<rect x="90" y="60" width="60" height="60"/>`],
  ['plasma', 'plates that touch', ['touching'], TWO],
  ['plasma', 'plates that touch, inside', ['touching'], TWO, { fields: { side: 'inside' } }],
  ['plasma', 'beside the sheet', ['sheet'], '<rect x="0" y="20" width="60" height="60"/>'],
  ['plasma', 'settings of one’s own', ['settings', 'chart'], plate(), { fields: { feed: 2000 } }],
  ['plasma', 'a sheet between two rows', ['chart'], plate(), { stock: { corners: [4.5, 4.52, 4.5, 4.47] } }],
  ['plasma', 'a sheet beyond the chart', ['chart'], plate(), { stock: { corners: [12, 12.02, 12, 11.97] } }],
  ['plasma', 'a sheet that the chart does not know', ['settings', 'chart'], plate(), { stock: { material: 'brass' } }],
];

describe('said of what is burnt, where there is cause and nowhere else', () => {
  test.each(IDS)('%s: %s', async (kind, _, says, body, given) => {
    expect((await said(kind, body, given)).map(({ id }) => id)).toEqual(says);
  });

  test('with numbers that can be measured in the drawing, and remedies that fit', async () => {
    const [near] = await said('laser-cut', plate(hole(25, 60, 3)));
    expect(near.text).toMatch(/^A hole lies nearer to an edge than it is wide \(6 mm wide, 2 mm from the edge\)/);
    const [two] = await said('laser-cut', plate(`${hole(25, 40, 3)}${hole(26, 70, 3)}`));
    expect(two.text).toMatch(/^2 holes lie nearer to an edge than they are wide \(6 mm wide, 2 mm from the edge\)/);
    const [touching] = await said('laser-cut', TWO, { fields: { side: 'on' } });
    expect(touching.text).toMatch(
      /^Shapes touch along 40 mm of their lines: .* or draw it once more as an open line\.$/,
    );
    const [beside] = await said('plasma', '<rect x="0" y="20" width="60" height="60"/>', {
      fields: { lead: { kind: 'none', length: 3 }, out: 0 },
    });
    expect(beside).toMatchObject({ weight: 'wrong', remedies: [] });
    expect(beside.text).toContain('0.7 mm beside the sheet');
    const [right] = await said('plasma', '<rect x="150" y="20" width="50" height="60"/>');
    expect(right.remedies).toEqual([expect.stringMatching(/^Lay a sheet of \d+ mm × 150 mm$/)]);
    const [small] = await said('plasma', plate(hole(60, 60, 2)), { stock: { corners: [6, 6.02, 6, 5.97] } });
    expect(small.text).toMatch(/^A hole of 4 mm is small for 6\.02 mm of sheet/);
    expect(
      await said('plasma', plate(hole(60, 60, 2)), {
        fields: { tooSmall: 'mark' },
        stock: { corners: [6, 6.02, 6, 5.97] },
      }),
    ).toEqual([]);
    const [unsaid, own] = await said('plasma', plate(), { fields: { feed: 2000, cutHeight: 2 } });
    expect(unsaid.remedies[0]).toMatch(/^Take .*feed 2000 mm\/min/);
    expect(own.text).toMatch(/: a feed of 2400 mm a minute, cutting 1\.5 mm high\.$/);
    expect(own.remedies).toEqual(['Use what the chart says']);
  });

  test('a kerf that is taken off twice, or by nobody', async () => {
    const by = async (kerfBy: string, cut: string) =>
      said('plasma', plate(), { fields: { by: cut }, bench: { kerfBy } });
    expect([await by('here', 'here'), await by('controller', 'controller')]).toEqual([[], []]);
    const [twice] = await by('controller', 'here');
    expect(twice).toMatchObject({ id: 'kerf', weight: 'wrong', remedies: ['Leave the kerf to the controller'] });
    expect(twice.text).toContain('a kerf too large, and holes too small');
    const [none] = await by('here', 'controller');
    expect(none).toMatchObject({ id: 'kerf', weight: 'wrong', remedies: ['Take the kerf off here'] });
    expect(none.text).toContain('a kerf too small, and holes too large');
  });

  test('a finer nozzle is offered where there is one that has a row for the sheet', async () => {
    const slot = plate('M50 50H80V51H50Z');
    expect((await said('plasma', slot, { nozzles: [fine] }))[0].remedies).toEqual(['Use Fine']);
    expect((await said('plasma', slot, { nozzles: [{ ...fine, presets: [charted] }] }))[0].remedies).toEqual([]);
    expect((await said('plasma', slot, { nozzles: [{ ...fine, presets: [] }] }))[0].remedies).toEqual([]);
  });
});

test('what a pierce takes is planned, each time: its delay, the arc’s, and down to the touch and up again', async () => {
  const { touch, transfer, limits } = benchOf('plasma') as PlasmaBench;
  const seconds = async (fields: object, bench: object) => {
    const { cuts } = await made('plasma', plate(hole(60, 60, 20)), { fields, bench });
    return 60 * cuts[0].minutes;
  };
  const once = await seconds({ pierceDelay: 0.4 }, {});
  expect((await seconds({ pierceDelay: 1.4 }, {})) - once).toBeCloseTo(2, 6);
  expect((await seconds({ pierceDelay: 0.4 }, { transfer: transfer + 0.5 })) - once).toBeCloseTo(1, 6);
  // Down at 1500 mm/min, or half of what the axis can, and up as fast as it can.
  const more = 60 * (3 / Math.min(1500, limits.speed.z / 2) + 3 / limits.speed.z);
  const further = { touch: { ...touch, offset: touch.offset + 3 } };
  expect((await seconds({ pierceDelay: 0.4 }, further)) - once).toBeCloseTo(2 * more, 6);
});

test('where a kerf is wider than all, a finer nozzle is offered with what its chart says, and the finest first', async () => {
  const finest: Nozzle = { ...nozzle, id: 'finest', name: 'Finest', presets: [{ ...charted, kerf: 0.5, feed: 1800 }] };
  const given = { fields: { side: 'inside' }, nozzles: [fine, finest] };
  const { remarks } = await made('plasma', '<rect x="20" y="20" width="1.2" height="60"/>', given);
  const [{ label, patch }] = remarks.find(({ id }) => id === 'problem-c')!.remedies;
  expect(label).toBe('Use Finest');
  expect(patch).toContainEqual({ op: 'replace', path: '/cuts/0/kerf', value: 0.5 });
  expect(patch).toContainEqual({ op: 'replace', path: '/cuts/0/feed', value: 1800 });
});

test('an open line is burnt there and back, as often as it has passes; a closed one round and round', async () => {
  const way = async (body: string, passes: number) => {
    const { cuts } = await made('laser-cut', body, { fields: { passes, side: 'on', overburn: 0 } });
    const { xyz, power } = cuts[0].path;
    const at = (i: number) => [Math.round(xyz[3 * i] * 1000) / 1000, Math.round(xyz[3 * i + 1] * 1000) / 1000];
    const begin = power.findIndex((p) => p > 0) - 1;
    return Array.from({ length: power.length - begin }, (_, k) => at(begin + k));
  };
  // Heights are from the sheet’s lower edge.
  const there = [[20, 50], [60, 50], [60, 80]]; // prettier-ignore
  const open = await way('<path fill="none" stroke="black" d="M20 100H60V70"/>', 3);
  const back = there.toReversed();
  expect(open).toEqual([...there, ...back.slice(1), ...there.slice(1)]);
  const [first, ...round] = await way('<path d="M20 100H60V70Z"/>', 2);
  expect(round).toHaveLength(6);
  expect(round.slice(0, 3)).toEqual(round.slice(3));
  expect(round[2]).toEqual(first);
});

test('a hole near an edge is marked as wide as it is and what burns round it; a beam has no plunge and no speed', async () => {
  const { cuts } = await made('laser-cut', plate(hole(25, 60, 3)), { fields: { kerf: 0.2 } });
  const [mark] = kindOf({ kind: 'laser-cut' }).marks!(cuts[0] as never);
  expect(mark.circles).toEqual([
    { x: expect.closeTo(25, 1), y: expect.closeTo(90, 1), radius: expect.closeTo(3.2, 1) },
  ]);
  expect(cuts[0]).toMatchObject({ plunge: 0, speed: 0 });
});

test('what a kerf closes up between parts is marked, and said to be marked only where it is', async () => {
  const two = (apart: number) => `<rect x="20" y="20" width="40" height="30"/><rect x="${60 + apart}" y="20" width="40" height="30"/>`; // prettier-ignore
  const narrow = async (apart: number) => {
    const { cuts, remarks } = await made('plasma', two(apart), {});
    const { word, outlines } = kindOf({ kind: 'plasma' }).marks!(cuts[0] as never).at(-1)!;
    return { text: remarks.find(({ id }) => id === 'narrow-c')?.text, marked: word === 'narrower than the kerf' ? outlines.length : 0 }; // prettier-ignore
  };
  const near = await narrow(1);
  expect(near.text).toMatch(/closes up or is left out; it is marked on the sheet\. Draw/);
  expect(near.marked).toBe(1);
  // A crack in which hardly anything lies.
  const crack = await narrow(0.02);
  expect(crack.text).toMatch(/closes up or is left out\. Draw/);
  expect(crack.marked).toBe(0);
  expect(await narrow(2)).toEqual({ text: undefined, marked: 0 });
});

/** Boxes round what each cut burns, mm, and the power and feed it burns at. */
async function burnt({ job, svg }: TestSquares) {
  const { cuts } = await computed(job(ASSET) as CutJob, svg);
  return cuts.map(({ id, path: { xyz, power, feed } }) => {
    const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
    let [most, fed] = [0, 0];
    for (let i = 1; i < power.length; i++) {
      if (power[i] === 0) continue;
      [most, fed] = [Math.max(most, power[i]), feed[i]];
      for (const k of [i - 1, i]) {
        const [x, y] = [xyz[3 * k], xyz[3 * k + 1]];
        Object.assign(box, { x0: Math.min(box.x0, x), y0: Math.min(box.y0, y), x1: Math.max(box.x1, x), y1: Math.max(box.y1, y) }); // prettier-ignore
      }
    }
    return { id, ...box, power: most, feed: fed };
  });
}

describe('squares to try', () => {
  const bench = { ...benchOf('laser'), lag: 0 };

  test('each lies where its row and its column say, with its own power and feed, and its labels beside', async () => {
    const grid = laserTestGrid(beam, bench, 'birch plywood', 3, 'mm');
    const all = await burnt(grid);
    const [r, lines] = [beam.diameter / 2, 5];
    for (const [rowOf, power] of grid.powers.entries())
      for (const [column, feed] of grid.feeds.entries()) {
        const square = all.find(({ id }) => id === `p${power}-f${feed}`)!;
        expect([square.power, square.feed]).toEqual([expect.closeTo(power / 100, 5), feed]);
        const [x, y] = [22 + 13 * column, 12 + 13 * rowOf];
        expect([square.x0, square.x1]).toEqual([expect.closeTo(x + r, 2), expect.closeTo(x + 10 - r, 2)]);
        expect(Math.abs(square.y0 - y - r)).toBeLessThan(1 / lines);
        expect(Math.abs(square.y1 - y - 10 + r)).toBeLessThan(1 / lines);
      }
    const job = grid.job(ASSET);
    const label = (text: string) => job.artwork.find(({ name }) => name === text)!;
    // To the left of its row; under its column.
    expect(label('49 %')).toMatchObject({ x: 19, y: 12 + 13 * 3 + 3.5, align: 'right' });
    expect(label('4500')).toMatchObject({ x: 22 + 13 + 5, y: 6, align: 'centre' });
    expect(label('lines')).toMatchObject({ x: 19, y: 12 + 13 * 5 - 3 + 8 + 3.5 });
    // All of it is on the sheet.
    for (const { x0, y0, x1, y1 } of all) expect(Math.min(x0, y0, job.stock.length - x1, job.stock.width - y1)).toBeGreaterThan(1); // prettier-ignore
  });

  test('of a strip, each is told by its time earlier, and two steps are seen', async () => {
    const strip = lateStrip(beam, { ...bench, lag: 0.0008 }, 'birch plywood', 3, 'mm');
    // As far from the last square to the sheet’s edge as from the first: 6 mm.
    expect(strip.job(ASSET).stock.length).toBe(6 + 15 * 7 + 10 + 6);
    expect(strip.late).toEqual([0, 0.4, 0.8, 1.2, 1.6, 2, 2.4, 2.8]);
    const all = await burnt(strip);
    for (const [k, time] of strip.late.entries()) {
      const { x0, x1, feed } = all[k];
      // To and fro, both ends are told so much before they are come to.
      const by = (feed / 60_000) * time;
      const x = 6 + 15 * k + beam.diameter / 2;
      expect([x0, x1]).toEqual([expect.closeTo(x - by, 3), expect.closeTo(x + 10 - beam.diameter + by, 3)]);
    }
  });
});
