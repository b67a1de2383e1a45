import { describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { compute, type JobResult } from '../core/src/compute/compute.ts';
import { CUT_KINDS, type Cut, type CutKindName, kindOf } from '../core/src/cuts/kinds.ts';
import type { About, CutKind } from '../core/src/cuts/kind.ts';
import { newCut } from '../core/src/cuts/new-cut.ts';
import { titleOf } from '../core/src/cuts/title.ts';
import { newJob } from '../core/src/document/new-job.ts';
import { sentenceText } from '../core/src/fields/sentence.ts';
import { choiceSlot } from '../core/src/fields/slot.ts';
import { type CutJob, JobSchema } from '../core/src/job/job.ts';
import { BenchSchema } from '../core/src/machines/bench-schema.ts';
import { machineKindOf } from '../core/src/machines/kinds.ts';
import { detailsOf } from '../core/src/machines/programs.ts';
import { howFar } from '../core/src/program/how-driven.ts';
import { formatLength, formatMinutes } from '../core/src/quantity/format.ts';
import type { LengthUnit } from '../core/src/quantity/units.ts';
import { ToolSchema } from '../core/src/tools/tool-schema.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

/*
 * All that is said of a cut of each kind, in both units, on a drawing that is easy and one that is not. It was read when it
 * was written; whoever changes it reads it again: `npx vitest run tests/said-by-kind -u`.
 */

const EASY = '<path d="M10 10H60V50H10Z"/><circle cx="80" cy="20" r="2"/><circle cx="80" cy="40" r="2"/>';
// A wedge, a strip 0.3 mm wide, a hole with a neck, two that overlap and one that touches, a circle, an open line.
const HARD =
  '<path d="M5 5H45V7.5L5 5.5Z"/><path d="M5 12H45V12.3H5Z"/>' +
  '<path fill-rule="evenodd" d="M5 20H50V55H5ZM10 25V35H20V32.2H26V35H40V25H26V27.8H20V25Z"/>' +
  '<rect x="60" y="5" width="20" height="20"/><rect x="70" y="15" width="20" height="20"/><rect x="90" y="15" width="8" height="20"/>' +
  '<circle cx="70" cy="45" r="2.6"/><path fill="none" stroke="black" d="M80 40L95 55"/>';
const ASSET = 'a'.repeat(64);

const preset = { feed: 1800, plunge: 700, speed: 15_000, depthPerPass: 2.5 };
const oak = [{ material: 'oak', ...preset }];
const TOOLS = [
  { id: 'v', name: 'V 60', kind: 'v', diameter: 12.7, angle: 60, tip: 0.2, flute: 11, shank: 6, presets: oak },
  { id: 'e', name: 'End mill 6', kind: 'end', diameter: 6, flute: 25, shank: 6, presets: oak },
  { id: 'f', name: 'End mill 2', kind: 'end', diameter: 2, flute: 8, shank: 3, presets: oak },
  { id: 'd', name: 'Drill 4', kind: 'drill', diameter: 4, flute: 30, shank: 4, presets: oak },
  { id: 'p', name: 'Diamond', kind: 'drag', diameter: 6, angle: 90, width: 0.4, travel: 3, shank: 6, presets: [{ material: 'oak', feed: 900, pressed: 1.8 }] }, // prettier-ignore
  { id: 'l', name: 'Lens', kind: 'beam', diameter: 0.2, shank: 30, focus: 50, presets: [{ material: 'birch plywood', thickness: 3, cutPower: 90, cutFeed: 480, cutPasses: 2, scorePower: 30, scoreFeed: 2400, fillPower: 35, fillFeed: 6000, fillLines: 0 }] }, // prettier-ignore
  { id: 'n', name: 'Nozzle 45', kind: 'nozzle', diameter: 12, shank: 32, amps: 45, presets: [{ material: 'mild steel', thickness: 3, kerf: 1.4, feed: 2400, pierceHeight: 3.8, pierceDelay: 0.4, cutHeight: 1.5, volts: 120 }] }, // prettier-ignore
].map((tool) => ToolSchema.parse(tool));
const benches = (JSON.parse(readFileSync(new URL('../demo/benches.json', import.meta.url), 'utf8')) as unknown[]).map((one) => BenchSchema.parse(one)); // prettier-ignore
const SHEETS: Record<string, { material: string; thick: number }> = {
  router: { material: 'oak', thick: 12 },
  laser: { material: 'birch plywood', thick: 3.1 },
  plasma: { material: 'mild steel', thick: 4 },
};
/** Settings that make sentences say something else. */
const OTHERS: Partial<Record<CutKindName, object>> = {
  'v-carve': { startDepth: 1, depthPerPass: null, depthLimit: 4, clearBits: ['e'] },
  pocket: {
    pattern: 'lines',
    angle: 30,
    climb: false,
    finish: 0.2,
    slots: true,
    startDepth: 0.5,
    clearBits: ['e'],
    bit: 'f',
    step: 0.8,
  },
  profile: { side: 'inside', climb: false, lead: { kind: 'arc', length: 3 }, ramp: 5, overlap: 2, skin: 0.3, tabs: { count: 1, length: 5, height: 1.5, shape: 'ramped', at: [] } }, // prettier-ignore
  line: { depth: 1.2, depthPerPass: 0.5, lastPass: 0.2, join: 0.3 },
  drag: { pattern: 'hatch', angle: 60, step: 0.6, passes: 2, larger: 4, fill: 'solid' },
  drill: { peck: 3, retract: 'short', dwell: 0.5 },
  inlay: { role: 'part', allowance: -0.04, tabs: { count: 2, length: 5, height: 1.5, shape: 'square', at: [] } },
  plasma: { by: 'controller', side: 'outside', bridge: 3, tabs: 2, tooSmall: 'mark' },
  'laser-cut': { side: 'on', air: false, passes: 1, overburn: 0 },
  'laser-score': { passes: 2, air: false },
  'laser-fill': { ways: 'one', earlier: 0.4, angle: 45 },
};
// A picture is no drawing.
const KINDS = (Object.keys(CUT_KINDS) as CutKindName[]).filter((kind) => kind !== 'laser-picture');

async function made(
  kind: CutKindName,
  unit: LengthUnit,
  body: string,
  fields: object,
): Promise<{ job: CutJob; result: JobResult }> {
  const tool = CUT_KINDS[kind].bits[0];
  const bench = benches.find((one) => (machineKindOf(one).tools as readonly string[]).includes(tool))!;
  const { material, thick } = SHEETS[bench.kind];
  const tools = TOOLS.filter((one) => (machineKindOf(bench).tools as readonly string[]).includes(one.kind));
  const job = newJob('Words', unit, tools, bench) as CutJob;
  Object.assign(job.stock, { length: 110, width: 60, material, corners: [thick, thick, thick, thick - 0.3] });
  job.artwork = [{ kind: 'drawing', id: 'art', name: 'Art', asset: ASSET, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false, refit: 0 }]; // prettier-ignore
  job.cuts = [{ ...newCut(job, kind, 'c')!, targets: [{ item: 'art', shapes: 'all' }], ...fields }];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="110mm" height="60mm" viewBox="0 0 110 60">${body}</svg>`;
  const resources = await resourcesFromDisk((hash) => (hash === ASSET ? new TextEncoder().encode(svg) : undefined));
  return { job, result: await compute(JobSchema.parse(job), resources, await clipperFromDisk()) };
}

async function said(kind: CutKindName, unit: LengthUnit, body: string, fields: object = {}): Promise<string> {
  const { job, result } = await made(kind, unit, body, fields);
  const [cut] = job.cuts as [Cut];
  const of: CutKind = kindOf(cut);
  const own = job.bits.find(({ id }) => id === cut.bit)!;
  const part = result.cuts.find(({ id }) => id === cut.id)!;
  const slot = (name: string, value: string) => choiceSlot(name, { [value]: value }, value, () => ({}));
  const about: About = { outlines: slot('outlines', 'the drawing'), bit: slot('bit', own.name), own, unit, made: part as never }; // prettier-ignore
  const length = (mm: number, decimals?: number) => formatLength(mm, unit, decimals);
  const lines = [
    `*${titleOf(cut, job)}*: ${sentenceText(of.sentence(cut, about), unit)}`,
    of.more ? `More: ${sentenceText(of.more(cut, about), unit)}` : '',
    `Heading: ${detailsOf(cut, job, part.tabs?.length ?? 0)}`,
    part.problem
      ? `Problem: ${part.problem}`
      : `Comes to: ${howFar(part as never, unit).join(' ')}, ${formatMinutes(part.minutes)}, ${part.passes} passes`,
    ...(of.facts?.(part as never, length, unit) ?? []).map(([figure, word]) => `Fact: ${figure} ${word}`.trimEnd()),
    ...(part.problem ? [] : (of.notes?.(cut, part as never, own, unit) ?? [])).map((note) => `Note: ${note}`),
    ...(of.marks?.(part as never) ?? []).map(({ word, always, outlines, circles }) =>
      `Mark: ${word}${always ? ', always told' : ''}: ${outlines.length} outlines, circles of ${[...new Set(circles.map(({ radius }) => Math.round(200 * radius) / 100))].sort((a, b) => a - b).join(', ') || 'none'} mm`), // prettier-ignore
    ...result.remarks.map(({ weight, text, remedies }) => `${weight}: ${text}${remedies.map(({ label }) => ` [${label}]`).join('')}`), // prettier-ignore
  ];
  return lines.filter(Boolean).join('\n');
}

describe.each(KINDS)('what is said of %s', (kind) => {
  test('is what was read', async () => {
    const all: string[] = [];
    for (const [drawing, body] of Object.entries({ easy: EASY, hard: HARD }))
      for (const unit of ['mm', 'in'] as const) all.push(`## ${drawing}, ${unit}\n\n${await said(kind, unit, body)}`);
    all.push(`## hard, with other settings, in\n\n${await said(kind, 'in', HARD, OTHERS[kind])}`);
    await expect(`${all.join('\n\n')}\n`).toMatchFileSnapshot(`./said/${kind}.txt`);
  });
});
