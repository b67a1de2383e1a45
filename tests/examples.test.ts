import { readdirSync, readFileSync } from 'node:fs';
import { inspect } from 'node:util';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { largerShape } from '../core/src/artwork/larger-shape.ts';
import { unitedShapes } from '../core/src/artwork/united-shapes.ts';
import { intrusion } from '../core/src/carving/intrusion.ts';
import { sweptHeight } from '../core/src/carving/swept.ts';
import { toursAlong } from '../core/src/ways/axis-tours.ts';
import { drill } from '../core/src/ways/drill.ts';
import { tightPlaces } from '../core/src/ways/tight-places.ts';
import { shift } from '../core/src/geometry/affine.ts';
import { capsules } from '../core/src/geometry/capsules.ts';
import { stretchesOf } from '../core/src/geometry/stretches.ts';
import { JobSchema } from '../core/src/job/job.ts';
import { readJobFile } from '../core/src/job/job-file.ts';
import { planMotion } from '../core/src/motion/plan.ts';
import { flatTrack } from '../core/src/motion/track.ts';
import { sharedLines } from '../core/src/geometry/shared-lines.ts';
import { scaledArtwork } from '../core/src/artwork/artwork-scale.ts';
import { signedArea } from '../core/src/geometry/outline.ts';
import { bridged } from '../core/src/ways/bridges.ts';
import { Freed } from '../core/src/ways/freed.ts';
import { innerFirst } from '../core/src/ways/inner-first.ts';
import { kerfLoops } from '../core/src/ways/kerf-loops.ts';
import { scrapLeads } from '../core/src/ways/scrap-leads.ts';
import { tightArcs } from '../core/src/ways/tight-arcs.ts';
import { orderTracks } from '../core/src/ways/order-tracks.ts';
import { distanceToKeepOut } from '../core/src/stock/keep-out.ts';
import { PLACE } from '../core/src/cuts/fields/places.ts';
import { count, length } from '../core/src/fields/quantity-field.ts';
import { slotOf } from '../core/src/fields/slot.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { Misuse } from '../command/src/misuse.ts';
import { Refused } from '../web/src/lib/server/refusal.ts';
import { pathForTests } from '@kerbe/core/motion/path-for-tests';

// Examples of doc comments are run: code with its result as it stands there; those in words by what is written for them
// here, or by the test that is named. An example that is none of these fails.

const ROOT = new URL('../', import.meta.url).pathname;
const clipper = await clipperFromDisk();
const square = (x: number, y: number, size: number) =>
  Float64Array.of(x, y, x + size, y, x + size, y + size, x, y + size);
const { job } = readJobFile(readFileSync(`${ROOT}demo/jobs/entrance-board.kerbe.json`, 'utf8'));
const shape = (points: Float64Array) => ({ name: '', rule: 'nonzero' as const, outlines: [{ points, closed: true }] });

/** Names that examples use besides those of their own file. */
const NAMES = {
  z,
  JobSchema,
  clipper,
  shift,
  Refused,
  Misuse,
  utf8: (text: string) => new TextEncoder().encode(text),
  v60: { kind: 'v', diameter: 12.7, angle: 60, tip: 0 },
  drill: { kind: 'drill', id: 'drill-3', name: 'Drill 3', diameter: 3, shank: 3, flute: 20, turns: true },
  boxAt: (x: number) => ({ minX: x, minY: 0, maxX: x + 2, maxY: 2 }),
  jobWithADepthOf0: { ...job, cuts: job.cuts.map((cut, k) => (k === 1 ? { ...cut, depth: 0 } : cut)) },
  length,
  count,
  PLACE,
  step: slotOf(length('step', { above: 0, max: 9 }), 0.5, () => ({})),
  byId: new Map([['moon', 'the element whose id is moon']]),
};

/** Examples in words, by the files they stand in. */
const IN_WORDS: Record<string, (() => void) | [file: string, title: string]> = {
  'artwork/united-letter': ['core/src/artwork/united-letter.test.ts', 'two that overlap are gone round as one'],
  'program/arc-points': [
    'core/src/program/from-elsewhere.test.ts',
    'three turns of a helix are three times as long and go down evenly',
  ],
  'program/expression': ['core/src/program/from-elsewhere.test.ts', 'parameters and expressions (NISTIR 6556 §3.3.2)'],
  'stock/obstacles': [
    'tests/keep-outs.test.ts',
    'a clamp of no known height is asked for, keeps programs back, and is gone over as one of 25 mm',
  ],
  'stock/on-sheet': ['core/src/stock/on-sheet.test.ts', 'a place from zero on the sheet'],
  'ways/wall-rounds': [
    'core/src/ways/wall-rounds.test.ts',
    'over the middle of a side, as far from it as the allowance',
  ],
  'ways/cut-free': ['tests/cut-free.test.ts', 'stopped %f mm before it closes: %s'],
  'lib/same-step': ['web/src/lib/same-step.test.ts', 'a field after its cut was added'],
  'geometry/shared-lines': () => {
    const [a, b] = [Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10), Float64Array.of(10, 0, 20, 0, 20, 10, 10, 10)];
    expect(sharedLines([[a], [b]], clipper.union([a, b], 'nonzero'))).toBe(10);
  },
  'geometry/shared-by-pairs': ['core/src/ways/nested-area.test.ts', 'crossing, and another that touches'],
  'ways/moved-outlines': ['core/src/ways/moved-outlines.test.ts', 'squares 1 mm apart'],
  'geometry/capsules': () => expect(capsules([0, 0, 5, 0, 5, 5], 1)).toHaveLength(2),
  'ways/groove-route': ['core/src/sequence/sequence.test.ts', 'a T with a dear lift: one walk'],
  'ways/order-tracks': () => {
    const track = (from: number, to: number) => ({ ...flatTrack([from, 0, to, 0], 0, false), oneWay: false });
    expect(orderTracks([track(10, 20), track(0, 10)], { x: 0, y: 0 })).toEqual([
      { track: 1, reversed: false },
      { track: 0, reversed: false },
    ]);
  },
  'v-carve/narrow-places': ['core/src/cuts/v-carve/narrow-places.test.ts', 'a line that is narrow all along'],
  'carving/marks-along': ['core/src/carving/marks-along.test.ts', 'a line that is crossed square'],
  'ways/loop-bridges': [
    'core/src/ways/joined-lines.test.ts',
    'loops that come within the distance of each other are one run',
  ],
  'ways/crossed-lines': ['core/src/ways/crossed-lines.test.ts', 'a cross has a point in its middle'],
  'ways/lines-across': ['core/src/cuts/drag/drag.test.ts', 'lines across a stroke'],
  'artwork/larger-shape': () => {
    const [outline] = largerShape(shape(square(0, 0, 10)), 1.1).outlines;
    expect([Math.min(...outline.points), Math.max(...outline.points)]).toEqual([-0.5, 10.5]);
  },
  'sequence/fewest-changes': ['core/src/sequence/fewest-changes.test.ts', 'the bit that is in does all it can'],
  'sequence/clear-links': ['core/src/sequence/clear-links.test.ts', 'a long low clamp is gone over, 2 mm above it'],
  'program/timeline': ['core/src/program/round-trip.test.ts', 'it grows from nothing to the planned time'],
  'program/timeline-bytes': ['core/src/program/timeline-bytes.test.ts', 'read back as they were written'],
  'program/fit-arcs': ['core/src/program/round-trip.test.ts', 'a circle of chords becomes three arcs'],
  'program/between-cuts': ['core/src/program/between-cuts.test.ts', 'from cut to cut: up, across and down'],
  'geometry/refit': ['core/src/geometry/refit.test.ts', 'any wobbling shape stays within the tolerance'],
  'geometry/stretches': () => {
    const [stretch, ...more] = stretchesOf(square(0, 0, 10), [Float64Array.of(-1, -1, 11, -1, 11, 5, -1, 5)], true);
    expect([more.length, stretch.whole]).toEqual([0, false]);
    expect(Math.max(...stretch.points.filter((_, i) => i % 2))).toBeCloseTo(5, 2);
  },
  'geometry/medial-axis': ['core/src/geometry/medial-axis.test.ts', 'a rectangle: a middle line and four diagonals'],
  'artwork/round-places': ['core/src/artwork/place.test.ts', 'centres and diameters of circles'],
  'artwork/united-shapes': () => {
    const { pieces, places } = unitedShapes([shape(square(0, 0, 5)), shape(square(20, 0, 5))], clipper);
    expect([pieces.length, places.length]).toEqual([1, 2]);
  },
  'inlay/inlay-fit': ['tests/reference.test.ts', 'part and recess of a random shape fit everywhere'],
  'ways/tight-places': () => {
    const { tours, ways } = tightPlaces([square(0, 0, 10)], 0.2, 100);
    expect([tours.length, ways.length]).toEqual([4, 0]);
    for (const tour of tours) {
      let length = 0;
      for (let i = 2; i < tour.length; i += 2) length += Math.hypot(tour[i] - tour[i - 2], tour[i + 1] - tour[i - 1]);
      // There and back: the corner's √2 less 1, of the allowance.
      expect(length / 2).toBeCloseTo(0.2 * (Math.SQRT2 - 1), 2);
    }
  },
  'ways/axis-tours': () => {
    const lines = { x: [0, 1], y: [0, 0], edges: Uint32Array.of(0, 1) };
    expect(toursAlong(lines, (node) => node, 5).tours.map((tour) => [...tour])).toEqual([[0, 0, 1, 0, 0, 0]]);
  },
  'ways/opening': ['core/src/cuts/opening.test.ts', 'one loop a step, each half the bit’s radius wide'],
  'ways/drill': () => {
    const { path } = drill([{ x: 0, y: 0 }], { depth: 10, peck: 4, retract: 'full', dwell: 0, plunge: 100, lift: 5 });
    const bottoms = Array.from(path.feed, (feed, i) => (feed > 0 ? path.xyz[3 * i + 2] : 0)).filter((v) => v < 0);
    expect(bottoms).toEqual([-4, -8, -10]);
  },
  'motion/plan': () => {
    const limits = { speed: { x: 9e3, y: 8e3, z: 9e3 }, acceleration: { x: 100, y: 80, z: 100 }, cornerStep: 1 };
    const path = pathForTests([0, 0, 0, 100, 0, 0], [0, 1200]);
    expect(planMotion(path, limits).minutes * 60).toBeCloseTo(5.2, 9);
  },
  'carving/engagement': ['core/src/carving/engagement.test.ts', 'a line into solid wood is a slot all along'],
  'carving/swept': () => {
    const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 9 };
    expect(sweptHeight(bit, 0, 0, -5, 10, 0, -5, 5, 1)).toBeCloseTo(-3.27, 2);
  },
  'carving/intrusion': () => {
    const clamp = { id: 'c', kind: 'clamp' as const, x: 0, y: 6, length: 40, width: 20, height: 9 };
    const path = pathForTests([0, 5, -1, 40, 5, -1], [0, 900]);
    expect(intrusion(path, 3, clamp)).toBeCloseTo(2, 9);
  },
  'artwork/artwork-scale': () => {
    const [x] = scaledArtwork(job, 0.5);
    const middle = job.stock.length / 2;
    expect((x as { value: number }).value - middle).toBeCloseTo((job.artwork[0].x - middle) / 2, 9);
  },
  'stock/keep-out': () => {
    expect(distanceToKeepOut(0, 0, 10, 0, { x: 4, y: 3, length: 2, width: 1 })).toBe(3);
  },
  'nozzle/chart': ['tests/plasma.test.ts', 'between two what lies evenly'],
  'laser-fill/late-strip': ['machine/src/runner/laser-strip.test.ts', 'its best square becomes what the bench says'],
  'laser-fill/test-grid': ['tests/laser.test.ts', 'a test grid lies about what the beam is set to'],
  'sequence/framing-cut': ['tests/laser.test.ts', 'framed by its box and by its hull'],
  'ways/scrap-between': ['tests/plasma.test.ts', 'scrap between parts whose kerfs run together'],
  'laser-cut/near-edges': ['tests/laser.test.ts', 'a hole nearer to an edge than it is wide is found'],
  'ways/scan-rows': ['tests/laser.test.ts', 'run-out is v²/2a, along an axis and aslant'],
  'program/kerf-taken': ['core/src/program/kerf-taken.test.ts', 'beside the lines, for a kerf of 1.5 mm'],
  'sequence/taken-up': ['tests/plasma.test.ts', 'from a stroke on, over two cuts'],
  'sequence/turned-cuts': ['tests/plasma.test.ts', 'turned about a place, every point lies where a rotation has it'],
  'ways/bridges': () => {
    const ring = clipper.difference([square(0, 0, 60)], [square(20, 20, 20)]);
    expect(bridged(ring, 3, clipper)).toHaveLength(2);
  },
  'ways/freed': () => {
    const limits = { speed: { x: 9e3, y: 8e3, z: 9e3 }, acceleration: { x: 100, y: 80, z: 100 }, cornerStep: 1 };
    expect(new Freed({ low: 10, high: 40, room: 3, limits }).way(0, 0, 50, 20)).toEqual([50, 20, 10]);
  },
  'ways/inner-first': () => {
    const at = { from: { x: 0, y: 0 }, to: { x: 0, y: 0 }, turnable: false };
    const order = innerFirst(
      [
        { ...at, within: -1 },
        { ...at, within: 0 },
      ],
      { x: 0, y: 0 },
    );
    expect(order.map(({ item }) => item)).toEqual([1, 0]);
  },
  'ways/kerf-loops': () => {
    const [loop, ...more] = kerfLoops([square(0, 0, 10)], { side: 'outside', offset: 1, keptOnRight: true }, clipper);
    expect([more.length, loop.scrapInside, signedArea(loop.points) < 0]).toEqual([0, false, true]);
    expect([loop.bounds.minX, loop.bounds.maxX].map(Math.round)).toEqual([-1, 11]);
  },
  'ways/scrap-leads': () => {
    const loops = kerfLoops([square(100, 100, 50)], { side: 'outside', offset: 0, keptOnRight: true }, clipper);
    const lead = { kind: 'arc' as const, length: 4 };
    const [
      [
        {
          in: [x, y],
        },
      ],
    ] = scrapLeads(loops, { lead, out: 0, kerf: 1, keptOnRight: true, starts: [], sheet: { length: 300, width: 200 } });
    expect(Math.max(100 - x, x - 150, 100 - y, y - 150)).toBeCloseTo(4, 9);
  },
  'ways/tight-arcs': () => {
    const circle = Array.from({ length: 122 }, (_, k) => 3 * (k % 2 ? Math.sin : Math.cos)((Math.PI * Math.floor(k / 2)) / 30)); // prettier-ignore
    expect([...tightArcs(circle, 5, 0)].every((tight) => tight === 1)).toBe(true);
    expect([...tightArcs(circle, 2, 0)].some((tight) => tight === 1)).toBe(false);
  },
  'runner/program-ways': ['machine/src/runner/program-ways.test.ts', 'one cut: to the first, to the park'],
  'runner/zero': ['machine/src/runner/zero.test.ts', 'the rows the issue of every motion asks for'],
  'server/all-benches': [
    'web/src/lib/server/all-benches.test.ts',
    'what the followed bench says goes through whole, however it comes, and names the bench',
  ],
  'heavy/turns': ['web/src/lib/server/heavy/turns.test.ts', 'a user who asks often leaves room for one who asks once'],
};

/** Examples that stand in running text. */
const RUNNING = /`([a-zA-Z]+\((?:[^`])*\))` is (?:`([^`]+)`|“([^”]+)”|(true|false|π|\d[\d.]*))/g;

interface Example {
  file: string;
  code?: string;
  result?: string;
  words?: string;
}

function examplesIn(file: string): Example[] {
  const out: Example[] = [];
  for (const [comment] of readFileSync(ROOT + file, 'utf8').matchAll(/\/\*\*[\s\S]*?\*\//g)) {
    const text = comment.replace(/^\s*\/?\*+\/?/gm, '').replace(/\*\/\s*$/, '');
    for (const [, block] of text.matchAll(/@example([\s\S]*?)(?=@\w+ |$)/g)) {
      // A result may stand in the line below its code.
      const lines = block.replace(/\n\s*\/\//g, ' //').split('\n').map((line) => line.trim()).filter(Boolean); // prettier-ignore
      if (!block.includes('//')) out.push({ file, words: lines.join(' ') });
      else
        for (const line of lines) {
          const at = line.indexOf(' // ');
          out.push({ file, code: line.slice(0, at), result: line.slice(at + 4) });
        }
    }
    for (const [, code, literal, said, plain] of text.replace(/\s+/g, ' ').matchAll(RUNNING))
      out.push({ file, code, result: literal ?? (said ? `'${said}'` : plain) });
  }
  return out;
}

const files = ['core/src', 'machine/src', 'command/src', 'web/src/lib'].flatMap((folder) =>
  readdirSync(ROOT + folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !/\.test\.ts$|\.d\.ts$|for-tests/.test(name))
    .map((name) => `${folder}/${name}`),
);
const examples = files.flatMap(examplesIn);
const nameOf = (file: string) => file.replace(/\.ts$/, '').split('/').slice(-2).join('/');

/** What cannot be said without a clock of a place, or a result that is none. */
const NOT_CODE = new Set(['web/src/lib/clock-time.ts']);

test(`the ${examples.length} examples of doc comments hold`, async () => {
  expect(examples.length).toBeGreaterThan(60);
  const words = examples.filter((example) => example.words !== undefined);
  expect(words.map(({ file }) => nameOf(file)).sort()).toEqual(Object.keys(IN_WORDS).sort());
  for (const [file, run] of Object.entries(IN_WORDS))
    if (typeof run === 'function') run();
    else expect(readFileSync(ROOT + run[0], 'utf8'), file).toContain(run[1]);
  for (const { file, code, result } of examples) {
    if (!code || !result || NOT_CODE.has(file)) continue;
    const module = (await import(ROOT + file)) as Record<string, unknown>;
    const names = { ...NAMES, ...module };
    const evaluated = (text: string): unknown =>
      (new Function(...Object.keys(names), `return (${text})`) as (...all: unknown[]) => unknown)(
        ...Object.values(names),
      );
    const where = `${file}: ${code}`;
    const thrown = /^throws “(.*)”$/.exec(result)?.[1];
    if (thrown !== undefined) {
      expect(() => evaluated(code), where).toThrow(pattern(thrown));
      continue;
    }
    const value = plain(evaluated(code));
    const wanted = result.replace(/, with .*$/, '');
    if (wanted.includes('…')) expect(shown(value), where).toMatch(pattern(shown(wanted)));
    else if (wanted === 'π') expect(value, where).toBe(plain(Math.PI));
    else expect(value, where).toEqual(plain(evaluated(wanted.replace(/−/g, '-'))));
  }
});

/** Typed arrays as lists, 0 for −0, and numbers to twelve figures. */
function plain(value: unknown): unknown {
  if (typeof value === 'number') return Number(value.toPrecision(12)) + 0;
  if (ArrayBuffer.isView(value)) return Array.from(value as Float64Array, plain);
  if (Array.isArray(value)) return value.map(plain);
  if (value && Object.getPrototypeOf(value) === Object.prototype)
    return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, plain(inner)]));
  return value;
}

function shown(value: unknown): string {
  const text = typeof value === 'string' && value.includes('…') ? value : inspect(value, { depth: 9, breakLength: Infinity, maxStringLength: null }); // prettier-ignore
  return text.replace(/[\s,]+/g, '');
}

/** A text in which … stands for anything. */
function pattern(text: string): RegExp {
  return new RegExp(text.split('…').map((part) => part.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('[\\s\\S]*?')); // prettier-ignore
}
