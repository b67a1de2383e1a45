import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { readCutOptions } from '../../command/src/cut-options.ts';
import { cutToFiles } from '../../command/src/cut.ts';
import { Misuse } from '../../command/src/misuse.ts';
import { random } from '../faults/random.ts';
import { drawingFrom } from './drawings.ts';
import type { Loop } from './loops.ts';
import { Edges } from './edges.ts';
import { depthUnder, type Placed } from './depth-under.ts';
import { type Move, movesOf } from './moves.ts';
import type { Asked } from './asked.ts';
import { settingsFrom } from './settings.ts';

/** The same drawing in another way: where a place of the first lies in the second. */
interface Variant {
  name: string;
  map: (x: number, y: number) => [number, number];
  /** What becomes of a loop besides being moved. */
  loop?: (loop: Loop) => Loop;
  /** Each loop in a path of its own, where none lies in another. */
  split?: boolean;
}

const turned = (degrees: number): Variant => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return { name: `turned by ${degrees}°`, map: (x, y) => [c * x - s * y, s * x + c * y] };
};
const same = (x: number, y: number): [number, number] => [x, y];

export const VARIANTS: Variant[] = [
  { name: 'shifted', map: (x, y) => [x + 123.4567, y + 7.7] },
  turned(90),
  turned(33),
  { name: 'mirrored', map: (x, y) => [-x, y] },
  { name: 'begun elsewhere', map: same, loop: (loop) => loop.map((_, k) => loop[(k + Math.floor(loop.length / 3)) % loop.length]) }, // prettier-ignore
  { name: 'drawn backwards', map: same, loop: (loop) => loop.toReversed() },
  { name: 'split into paths', map: same, split: true },
];

export interface Compared {
  variant: string;
  /** Largest difference in depth at the places looked at, mm, and where. */
  off: number;
  at: [number, number];
  /** Time of the variant over that of the first, and how much longer it takes, s. */
  time: number;
  longer: number;
  /** How far the times of the first itself lie apart, as a share, with a bit a hundredth or a micrometre thinner or thicker. */
  unsteady: number;
}

/** Times that differ by more, as a share, are held against those of other bits. */
const WORTH_ASKING = 0.01;

/** Cuts a drawing and its variants by the same settings, and compares depths at places and times. */
export async function compared(
  kind: 'pocket' | 'profile' | 'v-carve',
  seed: number,
): Promise<{ found: Compared[]; asked: Asked; drawing: string; refused?: string }> {
  const dice = random(seed * 6007 + kind.length * 104_729);
  for (let k = 0; k < 5; k++) dice();
  const drawn = drawingFrom(dice);
  const asked = settingsFrom(dice, kind);
  // Tabs, leads and lines lie where they lie on the sheet, and the page's middle is not the drawing's.
  asked.options = asked.options.replace(/--(tabs|tab|lead|pattern|angle|zero) \S+/g, '').replace('--no-arcs', '');
  const folder = mkdtempSync(`${tmpdir()}/kerbe-same-`);
  const cut = async (variant: Variant, options = asked.options): Promise<{ moves: Move[]; seconds: number }> => {
    const loops = drawn.loops.map((loop) => {
      const moved = loop.map(([x, y]) => variant.map(x, y));
      return variant.loop?.(moved) ?? moved;
    });
    const all = loops.flat();
    const [minX, minY] = [Math.min(...all.map(([x]) => x)), Math.min(...all.map(([, y]) => y))];
    const [maxX, maxY] = [Math.max(...all.map(([x]) => x)), Math.max(...all.map(([, y]) => y))];
    const height = maxY - minY + 10;
    const paths = loops.map((loop) => `M${loop.map(([x, y]) => `${(x - minX + 5).toFixed(7)} ${(height - (y - minY + 5)).toFixed(7)}`).join('L')}Z`); // prettier-ignore
    const body = variant.split ? paths.map((d) => `<path fill-rule="evenodd" d="${d}"/>`).join('') : `<path fill-rule="evenodd" d="${paths.join('')}"/>`; // prettier-ignore
    writeFileSync(
      `${folder}/a.svg`,
      `<svg xmlns="http://www.w3.org/2000/svg" width="${maxX - minX + 10}mm" height="${height}mm" viewBox="0 0 ${maxX - minX + 10} ${height}">${body}</svg>`,
    );
    const { seconds } = await cutToFiles(
      readCutOptions(`${kind} ${folder}/a.svg ${options} --out ${folder}/a.nc`.split(/\s+/)),
    );
    const moves = movesOf(readFileSync(`${folder}/a.nc`, 'utf8'));
    const [dx, dy] = [minX - 5, minY - 5];
    return { moves: moves.map((m) => ({ ...m, ax: m.ax + dx, ay: m.ay + dy, bx: m.bx + dx, by: m.by + dy })), seconds };
  };
  try {
    const first = await cut({ name: 'as drawn', map: same });
    const edges = new Edges(drawn.loops, asked.diameter + 1);
    const { minX, minY, maxX, maxY } = edges.bounds;
    const places: Placed[] = [];
    for (let k = 0; k < 4000 && places.length < 150; k++) {
      const [x, y] = [minX + dice() * (maxX - minX), minY + dice() * (maxY - minY)];
      // On a floor the ways from ring to ring, which may lie anywhere, take ridges away.
      // The bit may be wide enough for no deeper.
      const reach = Math.min(asked.diameter / 2, asked.flat + (asked.depth - asked.startDepth) * asked.slope);
      const floor = asked.slope > 0 && edges.distance(x, y) > reach;
      if (edges.inside(x, y) && !floor) places.push([x, y]);
    }
    const depths = (moves: readonly Move[], at: readonly Placed[], wider: number) => {
      const cells = new Map<string, Move[]>();
      const size = Math.max(1, asked.diameter / 4);
      for (const m of moves) {
        if (m.feed === 0 || Math.min(m.az, m.bz) > 0) continue;
        const widest = (m.bit === 1 ? asked.diameter : asked.clear[m.bit - 2]) / 2;
        const r = (asked.slope > 0 && m.bit === 1 ? Math.min(widest, asked.flat - Math.min(m.az, m.bz) * asked.slope) : widest) + 0.05; // prettier-ignore
        const [i0, i1] = [Math.min(m.ax, m.bx) - r, Math.max(m.ax, m.bx) + r].map((v) => Math.floor(v / size));
        const [j0, j1] = [Math.min(m.ay, m.by) - r, Math.max(m.ay, m.by) + r].map((v) => Math.floor(v / size));
        for (let i = i0; i <= i1; i++)
          for (let j = j0; j <= j1; j++) {
            const list = cells.get(`${i} ${j}`);
            if (list) list.push(m);
            else cells.set(`${i} ${j}`, [m]);
          }
      }
      return at.map(([x, y]) => {
        let deepest = 0;
        for (const m of cells.get(`${Math.floor(x / size)} ${Math.floor(y / size)}`) ?? [])
          deepest = Math.max(deepest, depthUnder(m, x, y, asked, wider));
        return deepest;
      });
    };
    const found: Compared[] = [];
    /** The same with a bit a hundredth thinner, a micrometre thinner, a micrometre thicker, a hundredth thicker. */
    let nearly: { moves: Move[]; seconds: number; depths: number[] }[] | undefined;
    const withOtherBits = async () => {
      if (nearly) return nearly;
      nearly = [];
      for (const by of [-0.02, -0.002, 0.002, 0.02]) {
        const bit = asked.options.replace(/--bit (end|v[\d.]+):([\d.]+)/, (_, kind: string, size: string) => `--bit ${kind}:${Number(size) + by}`); // prettier-ignore
        const made = await cut({ name: 'as drawn', map: same }, bit);
        nearly.push({ ...made, depths: depths(made.moves, places, 0) });
      }
      return nearly;
    };
    /** Where depths differ rounding decides whether it fits. */
    const hardlyFits = async (k: number) => {
      const [thinner, , , thicker] = await withOtherBits();
      return Math.abs(thinner.depths[k] - thicker.depths[k]) > 1e-3;
    };
    const [narrow, wide] = [-0.012, 0.012].map((wider) => depths(first.moves, places, wider));
    const own = depths(first.moves, places, 0);
    for (const variant of VARIANTS) {
      if (
        variant.split &&
        drawn.loops.some((loop, k) => drawn.loops.some((other, j) => j !== k && overlap(loop, other)))
      )
        continue;
      const { moves, seconds } = await cut(variant);
      const there = depths(moves, places.map(([x, y]) => variant.map(x, y)), 0); // prettier-ignore
      let [off, at] = [0, [0, 0] as [number, number]];
      for (const [k, place] of places.entries()) {
        // At a wall a hundredth sideways is the whole depth.
        if (asked.slope === 0 && Math.abs(narrow[k] - wide[k]) > 1e-3) continue;
        const by = Math.abs(there[k] - own[k]);
        if (by <= off || (asked.slope === 0 && by > 0.01 && (await hardlyFits(k)))) continue;
        [off, at] = [by, place];
      }
      const time = seconds / first.seconds;
      const unsteady =
        Math.abs(time - 1) > WORTH_ASKING
          ? apart([first, ...(await withOtherBits())].map((made) => made.seconds / first.seconds))
          : 0;
      found.push({ variant: variant.name, off, at, time, longer: seconds - first.seconds, unsteady });
    }
    return { found, asked, drawing: drawn.kind };
  } catch (error) {
    if (error instanceof Misuse) return { found: [], asked, drawing: drawn.kind, refused: error.message };
    throw error;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const apart = (shares: number[]) => Math.max(...shares) - Math.min(...shares);

function overlap(a: Loop, b: Loop): boolean {
  const box = (loop: Loop) => [Math.min(...loop.map(([x]) => x)), Math.max(...loop.map(([x]) => x)), Math.min(...loop.map(([, y]) => y)), Math.max(...loop.map(([, y]) => y))]; // prettier-ignore
  const [p, q] = [box(a), box(b)];
  return p[0] <= q[1] && q[0] <= p[1] && p[2] <= q[3] && q[2] <= p[3];
}
