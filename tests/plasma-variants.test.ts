import { describe, expect, test } from 'vitest';
import type { PlasmaCut } from '../core/src/cuts/plasma/fields.ts';
import { PLAIN, type Variant, varied } from '../core/src/machines/program-variant.ts';
import { programsFor } from '../core/src/machines/programs.ts';
import { type Path, PathBuilder } from '../core/src/motion/path.ts';
import { strokeStarts } from '../core/src/motion/piercing.ts';
import type { CutResult } from '../core/src/sequence/cut-result.ts';
import { cutWays, takenUp, type TakenUp, type TakenUpBy } from '../core/src/sequence/taken-up.ts';
import { zeroOf } from '../core/src/stock/stock.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { demoJob } from '../machine/src/runner/test-bench.ts';

const clipper = await clipperFromDisk();

describe.each(['comet-weathervane', 'garden-markers'])('%s', async (name) => {
  const { job, result } = await demoJob(name);
  const { over, kerf } = job.cuts[0] as PlasmaCut;
  const write = (variant: Partial<Variant>) => {
    const made = varied(job, result, { ...PLAIN, ...variant }, clipper);
    return { made, program: programsFor(job, made, { revision: '1', date: '2026-11-26', notes: made.notes })[0] };
  };

  test('it is told how high over the sheet the torch burns, across which kerf', () => {
    const [{ over: burns, radius, depth }] = result.cuts;
    expect([burns, 2 * radius, depth]).toEqual([(job.cuts[0] as PlasmaCut).cutHeight, kerf, job.stock.corners[0]]);
  });

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

  test.each([1, 2])('it begins at the pierce that was asked for, though that is the first but %i', (from) => {
    const { made, program } = write({ from });
    expect(made.notes).toEqual([`begins at pierce ${from + 1}`]);
    expect(program.text.split('\n').filter((line) => line.startsWith('G38.2'))).toHaveLength(
      strokeStarts(result.cuts[0].path).length - from,
    );
  });

  test('a dry run keeps as high over what may lie free, wherever it begins', () => {
    for (const from of [0, 4]) {
      const [{ path }] = write({ dry: true, from }).made.cuts;
      for (let i = 2; i < path.xyz.length; i += 3) expect(path.xyz[i]).toBeGreaterThanOrEqual(over);
    }
  });

  test('beside any stroke it comes down as at that stroke’s own pierce, over the places it comes from high, too', () => {
    const [{ id, path, pierce }] = result.cuts;
    const around = { kerfs: [path], before: [], clipper, onStock: () => true };
    let high = 0;
    strokeStarts(path).forEach((start, number, starts) => {
      const point = Math.floor((start + 1 + (starts[number + 1] ?? path.power.length)) / 2);
      if (path.power[point] === 0) return;
      const at = { x: path.xyz[3 * point], y: path.xyz[3 * point + 1] };
      const left = takenUp(result.cuts, { cut: id, point: point - 1, towards: point, acceleration: 1e6, at }, 'beside', around); // prettier-ignore
      if (typeof left === 'string' || left.closed !== undefined) return;
      const [{ path: rest, pierce: then }] = left.cuts;
      const stands = strokeStarts(rest)[0];
      const way = (of: Path, k: number) => [of.xyz[3 * k + 2], of.rapid[k], of.feed[k], of.power[k]];
      for (let k = 1; k <= stands + 1; k++) expect(way(rest, k)).toEqual(way(path, start - stands + k));
      expect(rest.xyz[2]).toBe(path.xyz[3 * (start - stands) + 2]);
      const touch = start - stands + then!.touches[0];
      expect(pierce!.touches).toContain(touch);
      expect(rest.feed[then!.touches[0]]).toBeGreaterThan(500);
      if (stands > 2) high++;
    });
    expect(high).toBeGreaterThan(0);
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
          expect(String(error)).toMatch(/no room in the scrap|may have come free|Nothing else is left/);
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

describe('stopped where a kerf closes', async () => {
  const { job, result } = await demoJob('garden-markers');
  const [{ path, pierce }] = result.cuts;
  const zero = zeroOf(job.stock);
  const { kerf } = job.cuts[0] as PlasmaCut;
  const starts = strokeStarts(path);
  /** What is left after so much of a kerf's closing is not cut, or so much past it is. */
  const stoppedAt = (closing: number, open: number, by: TakenUpBy) => {
    const { point, before } = pierce!.frees[closing];
    let [k, left] = [point, open + before];
    const length = () => Math.hypot(path.xyz[3 * k] - path.xyz[3 * k - 3], path.xyz[3 * k + 1] - path.xyz[3 * k - 2]);
    while (left > length()) [left, k] = [left - length(), k - 1];
    const back = left / length();
    const along = (c: number) => path.xyz[3 * k + c] + (path.xyz[3 * k - 3 + c] - path.xyz[3 * k + c]) * back;
    const around = { kerfs: [path], before: [], clipper, onStock: () => true };
    return {
      made: takenUp(
        result.cuts,
        { cut: result.cuts[0].id, point: k - 1, towards: k, acceleration: 1e6, at: { x: along(0), y: along(1) } },
        by,
        around,
      ),
      following: starts.find((start) => start > point),
    };
  };

  test.each(['beside', 'stroke', 'next'] as const)(
    'asked for %s, it goes on at the next pierce where nothing holds it',
    (by) => {
      for (const closing of pierce!.frees.keys())
        for (const open of [-0.9, -0.3, 0, 0.4 * kerf, 1.4 * kerf]) {
          const { made, following } = stoppedAt(closing, open, by);
          if (following === undefined) {
            expect(made).toBe(open > 0 ? 'last-free' : 'nothing-left');
            continue;
          }
          expect(typeof made).toBe('object');
          const { cuts, closed } = made as TakenUp;
          expect(closed).toBeCloseTo(Math.max(0, open), 6);
          const at = 3 * following;
          expect([...cuts[0].path.xyz.slice(0, 2)]).toEqual([...path.xyz.slice(at, at + 2)]);
        }
    },
  );

  test('and where something holds it, it is cut to its end', () => {
    for (const closing of [0, 5, pierce!.frees.length - 1]) {
      const { made } = stoppedAt(closing, 5 * kerf, 'beside');
      expect(made).toMatchObject({ closed: undefined });
      const { frees } = (made as TakenUp).cuts[0].pierce!;
      expect(frees).toHaveLength(pierce!.frees.length - closing);
    }
  });

  test('it is told in the program, with what is to be broken', () => {
    const { point } = pierce!.frees[0];
    const [x, y] = [path.xyz[3 * point] - zero.x, path.xyz[3 * point + 1] - zero.y];
    const line = programsFor(job, result, { revision: '1', date: '2026-11-27', notes: [] })[0].moves.find((move) => move.point === point)!.line; // prettier-ignore
    const noted = (by: number) =>
      varied(job, result, { ...PLAIN, stopped: [{ which: 0, line, at: { x, y: y - by }, by: 'beside' }] }, clipper)
        .notes[0];
    expect(noted(0.5)).toContain('from the next pierce, what was being cut having closed');
    expect(noted(2)).toContain('from the next pierce, nothing holding what was being cut: 1 mm of its kerf is to be broken and filed'); // prettier-ignore
  });
});

test('ways along which a path cuts: from each pierce, to its end or to where it stopped', () => {
  const builder = new PathBuilder();
  for (const [x, y] of [
    [1, 2],
    [30, 40],
  ]) {
    builder.rapid(x, y, 5);
    builder.to(x + 10, y, 1, 2000, 1);
    builder.to(x + 10, y + 10, 1, 2000, 1);
  }
  const path = builder.done();
  const first = [1, 2, 11, 2, 11, 12];
  expect(cutWays(path)).toEqual([first, [30, 40, 40, 40, 40, 50]]);
  expect(cutWays(path, 5)).toEqual([first, [30, 40, 40, 40]]);
  expect(cutWays(path, 5, { x: 40, y: 47 })).toEqual([first, [30, 40, 40, 40, 40, 47]]);
  expect(cutWays(path, 4, { x: 33, y: 40 })).toEqual([first, [30, 40, 33, 40]]);
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
    ({ id: 'a', path, radius: KERF / 2, pierce: { delay: 0.5, touches: [1], level: [], beside: [], frees: [], scrapOnLeft: false } }) as unknown as CutResult; // prettier-ignore
  /** Along x to (50, 50), the scrap on the right, and on so turned. */
  const cornered = (degrees: number) => {
    const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    const builder = new PathBuilder();
    builder.rapid(20, 50, 10);
    builder.to(20, 50, 0, 1500, 0);
    builder.rapid(20, 50, 3.8);
    builder.to(20, 50, 1.5, 1500, 1);
    builder.to(50, 50, 1.5, 2000, 1);
    builder.to(50 + 30 * dx, 50 + 30 * dy, 1.5, 2000, 1);
    return { path: builder.done(), dx, dy };
  };
  const pierced = (y: number, kerfs: readonly Path[]) => {
    const path = along(y);
    const found = takenUp(
      [cutOf(path)],
      { cut: 'a', point: 3, towards: 4, acceleration: 400, at: { x: 50, y } },
      'beside',
      {
        kerfs: [path, ...kerfs],
        before: kerfs.flatMap((before) => cutWays(before)),
        clipper,
        onStock: (px, py, room) => px >= room && py >= room && px <= 100 - room && py <= 100 - room,
      },
    );
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

  test.each([
    ['away from the scrap', 90],
    ['into it', -90],
    ['sharply into it', -135],
    ['sharply away', 150],
  ])('at a corner that turns %s it comes from the scrap, over no kerf', (_, degrees) => {
    const { path, dx, dy } = cornered(degrees);
    for (const past of [-0.3, -0.01, 0, 0.01, 0.3]) {
      const at = past < 0 ? { x: 50 + past, y: 50 } : { x: 50 + past * dx, y: 50 + past * dy };
      const found = takenUp(
        [cutOf(path)],
        { cut: 'a', point: past < 0 ? 3 : 4, towards: 5, acceleration: 400, at },
        'beside',
        {
          kerfs: [path],
          before: [],
          clipper,
          onStock: () => true,
        },
      );
      // A corner as sharp as that leaves no room in it.
      if (typeof found === 'string') {
        expect([found, degrees]).toEqual(['no-room', -135]);
        continue;
      }
      const { xyz } = found.cuts[0].path;
      const off = { x: xyz[0] - 50, y: xyz[1] - 50 };
      const [rightOfFirst, rightOfSecond] = [off.y < 0, dx * off.y - dy * off.x < 0];
      expect(degrees > 0 ? rightOfFirst || rightOfSecond : rightOfFirst && rightOfSecond, `${past} mm`).toBe(true);
    }
  });

  test('where the controller leads the torch it comes at no sharp angle, and begins as much farther off', () => {
    const path = along(50);
    const led = { ...cutOf(path), kerf: 'controller' } as CutResult;
    for (const below of [undefined, 44, 46, 48]) {
      const kerfs = below === undefined ? [path] : [path, along(below)];
      const around = { kerfs, before: [], clipper, onStock: () => true };
      const found = takenUp([led], { cut: 'a', point: 3, towards: 4, acceleration: 400, at: { x: 50, y: 50 } }, 'beside', around); // prettier-ignore
      if (typeof found === 'string') {
        expect([found, below]).toEqual(['no-room', 48]);
        continue;
      }
      expect(below).not.toBe(48);
      const [x, y] = found.cuts[0].path.xyz;
      expect(Math.atan2(50 - y, 50 - x)).toBeLessThan(Math.PI / 3 + 1e-9);
      expect(50 - y).toBeGreaterThanOrEqual(1.25 * KERF - 1e-9);
    }
  });

  test.each([120, 150])('led round a corner of %s°, it comes on the way before it, so that all of the corner is cut', (degrees) => {
    const { path } = cornered(degrees);
    // More room beside the way after it.
    const around = { kerfs: [path, along(46)], before: [], clipper, onStock: () => true };
    const led = { ...cutOf(path), kerf: 'controller' } as CutResult;
    const { cuts } = takenUp([led], { cut: 'a', point: 4, towards: 5, acceleration: 400, at: { x: 50, y: 50 } }, 'beside', around) as TakenUp; // prettier-ignore
    const [x, y] = cuts[0].path.xyz;
    expect(Math.abs(Math.atan2(50 - y, 50 - x))).toBeLessThan(Math.PI / 3 + 1e-9);
  }); // prettier-ignore

  test('a kerf of a run before is kept clear of, though it is not in what is left', () => {
    const before = along(46);
    const { x, y } = pierced(50, [before]) as { x: number; y: number };
    expect(distance(before, x, y)).toBeGreaterThanOrEqual(KERF - 1e-6);
    expect(y).toBeGreaterThan(46);
    expect(pierced(50, [along(49)])).toBe('no-room');
  });

  test('what cuts before it, and runs before, have cut counts as cut; what comes after does not', () => {
    const cuts = [10, 30, 50, 70].map((y, k) => ({ ...cutOf(along(y)), id: `${k}` }));
    const around = { kerfs: cuts.map(({ path }) => path), before: [[1, 1, 2, 2]], clipper, onStock: () => true };
    const left = takenUp(cuts, { cut: '2', point: 3, towards: 4, acceleration: 400, at: { x: 50, y: 50 } }, 'beside', around) as TakenUp; // prettier-ignore
    expect(left.done).toEqual([
      [1, 1, 2, 2],
      [20, 10, 20, 10, 80, 10],
      [20, 30, 20, 30, 80, 30],
      [20, 50, 20, 50, 50, 50],
    ]);
    expect(left.cuts.map(({ id }) => id)).toEqual(['2', '3']);
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
