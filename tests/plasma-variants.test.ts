import { describe, expect, test } from 'vitest';
import type { PlasmaCut } from '../core/src/cuts/plasma/fields.ts';
import { PLAIN, type Variant, varied } from '../core/src/machines/program-variant.ts';
import { programsFor } from '../core/src/machines/programs.ts';
import { type Path, PathBuilder } from '../core/src/motion/path.ts';
import { strokeStarts } from '../core/src/motion/piercing.ts';
import type { CutResult } from '../core/src/sequence/cut-result.ts';
import { takenUp } from '../core/src/sequence/taken-up.ts';
import { zeroOf } from '../core/src/stock/stock.ts';
import { demoJob } from '../machine/src/runner/test-bench.ts';

describe.each(['comet-weathervane', 'garden-markers'])('%s', async (name) => {
  const { job, result } = await demoJob(name);
  const { over, kerf } = job.cuts[0] as PlasmaCut;
  const write = (variant: Partial<Variant>) => {
    const made = varied(job, result, { ...PLAIN, ...variant });
    return { made, program: programsFor(job, made, { revision: '1', date: '2026-11-26', notes: made.notes })[0] };
  };

  test('no program comes to its first pierce low: pieces may lie free from a run before', () => {
    const [{ path }] = result.cuts;
    const last = strokeStarts(path).length - 1;
    for (const variant of [{}, { from: 3 }, { from: last }, { turn: 0.1, from: 5 }]) {
      const lines = write(variant).program.text.split('\n');
      const before = lines.slice(0, lines.findIndex((line) => line.startsWith('G38.2'))).filter((line) => line.startsWith('G0')); // prettier-ignore
      expect(before[0]).toBe(`G0 Z${over}`);
      expect(before[1]).toMatch(/^G0 X\S+ Y\S+$/);
    }
  });

  test('a dry run keeps as high over what may lie free, wherever it begins', () => {
    for (const from of [0, 4]) {
      const [{ path }] = write({ dry: true, from }).made.cuts;
      for (let i = 2; i < path.xyz.length; i += 3) expect(path.xyz[i]).toBeGreaterThanOrEqual(over);
    }
  });

  test('stopped anywhere, and in what is left again: pierced on the sheet, a kerf clear of all kerfs', () => {
    let seed = 11;
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    const zero = zeroOf(job.stock);
    let looked = 0;
    for (let k = 0; k < 40; k++) {
      const stopped: Variant['stopped'] = [];
      let { program, made } = write({});
      const kerfs: Path[] = made.cuts.map(({ path }) => path);
      for (let again = 0; again < 2; again++) {
        const [{ path }] = made.cuts;
        const moves = program.moves.filter(({ point }) => path.power[point] > 0);
        const { line, point } = moves[Math.floor(random() * moves.length)];
        const at = { x: path.xyz[3 * point] - zero.x, y: path.xyz[3 * point + 1] - zero.y };
        stopped.push({ which: 0, line: line + 1, at, by: 'beside' });
        try {
          ({ program, made } = write({ stopped }));
        } catch (error) {
          expect(String(error)).toMatch(/no room in the scrap|Nothing is left/);
          break;
        }
        const rest = made.cuts[0].path;
        const pierce = strokeStarts(rest)[0];
        const [x, y] = [rest.xyz[3 * pierce], rest.xyz[3 * pierce + 1]];
        expect(x >= kerf / 2 && y >= kerf / 2 && x <= job.stock.length - kerf / 2 && y <= job.stock.width - kerf / 2).toBe(true); // prettier-ignore
        // Only what is led in to, at its end, is nearer.
        const [sx, sy] = [made.seam!.x + zero.x, made.seam!.y + zero.y];
        const off = Math.hypot(sx - x, sy - y);
        // Stopped between two strokes: the next begins as planned.
        if (off === 0) break;
        const nearest = Math.min(...kerfs.map((each) => distance(each, x, y)));
        expect(nearest, `job ${k}`).toBeGreaterThan(Math.min(kerf, off * Math.sin(Math.PI / 6)) * 0.59);
        kerfs.push(rest);
        looked++;
      }
    }
    expect(looked).toBeGreaterThan(30);
  });
});

describe('in the scrap beside where it stopped', () => {
  const KERF = 1.5;
  /** A cut along y from x = 20 to 80, the scrap to the right of its way, at smaller y. */
  const along = (y: number): Path => {
    const builder = new PathBuilder();
    builder.rapid(20, y, 10);
    builder.to(20, y, 0, 1500, 0);
    builder.rapid(20, y, 3.8);
    builder.to(20, y, 1.5, 1500, 1);
    builder.to(80, y, 1.5, 2000, 1);
    return builder.done();
  };
  const cutOf = (path: Path) =>
    ({ id: 'a', path, radius: KERF / 2, pierce: { delay: 0.5, touches: [1], level: [], beside: [], scrapOnLeft: false } }) as unknown as CutResult; // prettier-ignore
  const pierced = (y: number, kerfs: readonly Path[]) => {
    const path = along(y);
    const found = takenUp([cutOf(path)], { cut: 'a', point: 3, at: { x: 50, y } }, 'beside', {
      kerfs: [path, ...kerfs],
      onStock: (px, py, room) => px >= room && py >= room && px <= 100 - room && py <= 100 - room,
    });
    if (typeof found === 'string') return found;
    expect(found.seam).toEqual({ x: 50, y });
    return { x: found.cuts[0].path.xyz[0], y: found.cuts[0].path.xyz[1] };
  };

  test('as far off as is usual where there is room, and nearer beside the sheet’s edge', () => {
    expect(pierced(50, [])).toEqual({ x: 50 - 6 * Math.SQRT1_2, y: 50 - 6 * Math.SQRT1_2 });
    const near = pierced(4, []) as { x: number; y: number };
    expect(near.y).toBeGreaterThanOrEqual(KERF / 2);
    expect(pierced(1, [])).toBe('no-room');
  });

  test('a kerf of a run before is kept clear of, though it is not in what is left', () => {
    const before = along(46);
    const { x, y } = pierced(50, [before]) as { x: number; y: number };
    expect(distance(before, x, y)).toBeGreaterThanOrEqual(KERF - 1e-6);
    expect(y).toBeGreaterThan(46);
    expect(pierced(50, [along(49)])).toBe('no-room');
  });
});

/** How far a place lies from all moves with power on, mm. */
function distance({ xyz, power }: Path, x: number, y: number): number {
  let least = Infinity;
  for (let k = 1; k < power.length; k++) {
    if (power[k] === 0) continue;
    const [ax, ay] = [xyz[3 * k - 3], xyz[3 * k - 2]];
    const [dx, dy] = [xyz[3 * k] - ax, xyz[3 * k + 1] - ay];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
    least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return least;
}

test('a later cut goes high over what an earlier one has freed, and is planned so', async () => {
  const { job, result } = await demoJob(
    'garden-markers',
    (changed) => {
      const [cut] = changed.cuts;
      changed.cuts = [
        { ...cut, id: 'first' },
        { ...cut, id: 'second' },
      ];
      changed.ownOrder = true;
    },
    'twice',
  );
  const [first, second] = result.cuts;
  const { over, rise } = job.cuts[0] as PlasmaCut;
  const across = ({ path: { xyz, rapid } }: CutResult) =>
    Array.from(rapid, (_, i) => i).filter((i) => i > 0 && rapid[i] && (xyz[3 * i] !== xyz[3 * i - 3] || xyz[3 * i + 1] !== xyz[3 * i - 2])).map((i) => Math.min(xyz[3 * i + 2], xyz[3 * i - 1])); // prettier-ignore
  expect(Math.min(...across(first))).toBe(rise);
  expect(across(second).length).toBeGreaterThan(5);
  expect(Math.min(...across(second))).toBeGreaterThanOrEqual(over);
  expect(second.minutes).toBeGreaterThan(first.minutes);
  // It pierces as often, and from the same height.
  expect(second.pierce!.touches.map((k) => second.path.xyz[3 * k + 2])).toEqual(first.pierce!.touches.map((k) => first.path.xyz[3 * k + 2])); // prettier-ignore
  expect(strokeStarts(second.path)).toHaveLength(strokeStarts(first.path).length);
});
