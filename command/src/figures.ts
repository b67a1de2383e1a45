import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { importSvg } from '@kerbe/core/artwork/svg';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import { toolKindOf } from '@kerbe/core/tools/kinds';
import { marksAlong, type MetMark } from '@kerbe/core/carving/marks-along';
import { CarvedMoves } from '@kerbe/core/carving/section';
import type { BaseTool } from '@kerbe/core/document/tool';
import { carvablesOf } from '@kerbe/core/ways/carvable';
import { cutArtwork } from '@kerbe/core/cuts/cut-artwork';
import { partsOf } from '@kerbe/core/cuts/parts-of';
import type { CutKind, Figure } from '@kerbe/core/cuts/kind';
import { CUT_KINDS, type CutKindName } from '@kerbe/core/cuts/kinds';
import { CutSchema } from '@kerbe/core/cuts/cut-schema';
import { newCut } from '@kerbe/core/cuts/new-cut';
import { newJob } from '@kerbe/core/document/new-job';
import { clipperFromDisk } from '@kerbe/machine/core-from-disk';
import { usualBench } from './bench-limits.ts';
import { letterPage } from './bench-page.ts';
import { ROOT } from './paths.ts';
import { withTables } from './safety-tables.ts';

const WIDE = 640;

/** `./kerbe figures`: draws the figures of docs/ anew, each computed by the code it explains. */
export async function figures(): Promise<void> {
  const folder = `${ROOT}/docs/figures`;
  mkdirSync(folder, { recursive: true });
  const drawn = await drawnFigures();
  for (const [name, text] of drawn) writeFileSync(`${folder}/${name}.svg`, text);
  const safety = `${ROOT}/docs/safety.md`;
  writeFileSync(safety, withTables(readFileSync(safety, 'utf8')));
  console.log(`Drew ${drawn.size} figures to docs/figures, and the tables of docs/safety.md.`);
}

/** The figures of docs/ by their names, as SVG: the medial axis, and a section of every kind of cut. */
export async function drawnFigures(): Promise<Map<string, string>> {
  const drawn = new Map([['medial-axis', await axisFigure()]]);
  for (const [name, { figure }] of Object.entries<CutKind>(CUT_KINDS) as [CutKindName, CutKind][])
    drawn.set(name, await sectionFigure(name, figure));
  return drawn;
}

/** The letter R with its axis, darker where it is carved deeper, and three of the circles it is made of. */
async function axisFigure(): Promise<string> {
  const clipper = await clipperFromDisk();
  const { shapes } = importSvg(new TextEncoder().encode(letterPage(3, { cap: 40 })), clipper);
  const { regions } = await carvablesOf([shapes[2]], clipper);
  const [{ region, axis }] = regions;
  const { maxX, maxY } = region.bounds;
  const k = 360 / Math.max(maxX, maxY);
  const px = (x: number) => (x * k + 30).toFixed(1);
  const py = (y: number) => (390 - y * k).toFixed(1);
  const outline = region.loops
    .map(
      (loop) =>
        `M${Array.from({ length: loop.length / 2 }, (_, i) => `${px(loop[2 * i])} ${py(loop[2 * i + 1])}`).join('L')}Z`,
    )
    .join('');
  const widest = axis.r.reduce((a, b) => Math.max(a, b), 0);
  const lines: string[] = [];
  for (let e = 0; e < axis.edges.length; e += 2) {
    const [a, b] = [axis.edges[e], axis.edges[e + 1]];
    const shade = (1 - (axis.r[a] + axis.r[b]) / 2 / widest) * 0.7;
    lines.push(
      `<line x1="${px(axis.x[a])}" y1="${py(axis.y[a])}" x2="${px(axis.x[b])}" y2="${py(axis.y[b])}" stroke="#b8351f" stroke-opacity="${(1 - shade).toFixed(2)}" stroke-width="2"/>`,
    );
  }
  const circles = [0.2, 0.5, 0.9].map((share) => {
    const n = axis.edges[2 * Math.floor((share * axis.edges.length) / 2)];
    return `<circle cx="${px(axis.x[n])}" cy="${py(axis.y[n])}" r="${(axis.r[n] * k).toFixed(1)}" fill="none" stroke="#22282d" stroke-dasharray="3 3"/>`;
  });
  return svg(
    420,
    420,
    `<path d="${outline}" fill="#e9dcc0" stroke="#22282d" fill-rule="evenodd"/>${lines.join('')}${circles.join('')}`,
    'A letter, its medial axis, and circles that touch the outline in two places or more',
  );
}

const base = { feed: 1500, plunge: 600, speed: 18_000 };

/** A section through 12 mm of stock, as the cut leaves it. */
async function sectionFigure(kind: CutKindName, { art, bits: asked, fields, caption }: Figure): Promise<string> {
  const bits = asked.map((bit) => ToolSchema.parse({ name: bit.id, tip: 0, flute: 30, shank: 6, presets: [], ...bit }));
  const clipper = await clipperFromDisk();
  const drawn = importSvg(
    new TextEncoder().encode(`<svg width="60mm" height="30mm" viewBox="0 0 60 30">${art}</svg>`),
    clipper,
  );
  // A picture from black on the left to white on the right, for the kind that burns pictures.
  const ramp = { width: 600, height: 1, greys: Uint8Array.from({ length: 600 }, (_, x) => (255 * x) / 600) };
  const greys = { grey: ramp, map: [0.1, 0, 0, -30, 0, 30] as const };
  const shapes = drawn.shapes.map((shape) => ({ ...shape, ...(CUT_KINDS[kind].pictures && { greys }) }));
  const job = newJob('figure', 'mm', bits, usualBench());
  Object.assign(job.stock, { length: 60, width: 30, corners: [12, 12, 12, 12] });
  const start = newCut(job, kind, 'cut')!;
  const made = CutSchema.parse({ ...start, ...base, ...fields, targets: [{ item: 'art', shapes: 'all' }] });
  const parts = await partsOf(job, made, cutArtwork(shapes, clipper), clipper);
  const carved = parts.map(({ path, bit: id }) => {
    const bit = bits.find((b) => b.id === id)!;
    return { path, leaves: toolKindOf(bit).leaves(bit) };
  });
  const moves = new CarvedMoves(carved);
  const count = 1201;
  const heights = moves.along(0, 15, 60, 15, count);
  const k = (WIDE - 60) / 60;
  const top = 70;
  const y = (z: number) => (top - z * k).toFixed(1);
  const x = (i: number) => (30 + (i / (count - 1)) * 60 * k).toFixed(1);
  const surface = Array.from(heights, (z, i) => `${x(i)} ${y(Math.max(-12, z))}`).join('L');
  const board = Array.from(heights, (z, i) => `${x(i)} ${y(Math.min(-12, z))}`).join('L');
  const deepest = heights.indexOf(heights.reduce((a, b) => Math.min(a, b), 0));
  const depth = Math.max(
    ...parts.map(({ path }) => -path.xyz.reduce((least, v, i) => (i % 3 === 2 && v < least ? v : least), 0)),
  );
  const marks = marksAlong(carved, 0, 15, 60, 15);
  const told =
    marks.length > 0
      ? pressedTool(bits[0], depth, marks, x, count, k)
      : `
     <text x="${x(deepest)}" y="52" text-anchor="middle" fill="#b8351f">${depth.toFixed(1)} mm deep</text>`;
  return svg(
    WIDE,
    250,
    `<rect x="30" y="${y(-12)}" width="${60 * k}" height="30" fill="#b9b0a0"/>
     <path d="M30 ${y(-12)}L${board}L${x(count - 1)} ${y(-12)}Z" fill="#f3efe2"/>
     <path d="M${surface}L${x(count - 1)} ${y(-12)}L30 ${y(-12)}Z" fill="#dab98a" stroke="#22282d" stroke-width="1.5"/>
     <line x1="30" x2="${30 + 60 * k}" y1="${y(0)}" y2="${y(0)}" stroke="#b8351f" stroke-dasharray="5 4"/>
     ${told}
     <text x="34" y="${Number(y(-12)) + 20}">spoilboard</text>
     <text x="30" y="24">${caption}</text>`,
    caption,
  );
}

/** Marks on the surface, and the tool that drew them, pressed, on the one in the middle. */
function pressedTool(
  tool: BaseTool,
  pressed: number,
  marks: readonly MetMark[],
  x: (i: number) => string,
  count: number,
  k: number,
): string {
  const at = (share: number) => Number(x(share * (count - 1)));
  const drawn = marks.map(
    ({ from, to }) =>
      `<rect x="${at(from).toFixed(1)}" y="69" width="${(at(to) - at(from)).toFixed(1)}" height="4" fill="#b8351f"/>`,
  );
  const middle = marks[Math.floor(marks.length / 2)];
  const foot = (at(middle.from) + at(middle.to)) / 2;
  const parts = toolKindOf(tool)
    .picture(tool, pressed)
    .parts.map(({ look, points }) => {
      const d = points.map(([dx, dz], n) => `${n ? 'L' : 'M'}${(foot + dx * k).toFixed(1)} ${Math.max(32, 70 - dz * k).toFixed(1)}`).join(''); // prettier-ignore
      return look === 'line'
        ? `<path d="${d}" fill="none" stroke="#22282d"/>`
        : `<path d="${d}Z" fill="${look === 'shank' ? '#c9c6bd' : '#8f979c'}" fill-opacity="0.85" stroke="#22282d"/>`;
    });
  return `${drawn.join('')}${parts.join('')}
     <text x="${(foot + 40).toFixed(1)}" y="52" fill="#b8351f">pressed ${pressed.toFixed(1)} mm</text>`;
}

function svg(width: number, height: number, body: string, title: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif" font-size="14"><title>${title}</title><rect width="${width}" height="${height}" fill="#f3efe2"/>${body}</svg>\n`;
}
