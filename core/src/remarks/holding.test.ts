import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { KeepOut } from '../document/keep-out.ts';
import { pathForTests } from '../motion/path-for-tests.ts';
import { KEEP_OUT_ROOM } from '../stock/keep-out.ts';
import { judgeHolding } from './holding.ts';
import type { Judged } from './judged.ts';

/**
 * Promises held here: a clamp in the way of the bit is said with how far it is, and offered the nearest place along X or Y
 * that is on the stock's edge still, over no other clamp, and clear of every cut by the room kept round it; the place in the
 * label is the place it goes to. Where there is none it is offered to be taken away.
 */
const STOCK = { length: 130, width: 70 };

type Line = [number, number, number, number];
function judged(keepOuts: KeepOut[], lines: Line[], radius: number): Judged {
  const cuts = lines.map(([ax, ay, bx, by], k) => ({
    id: `c${k}`,
    cut: `c${k}`,
    radius,
    path: pathForTests([ax, ay, 5, ax, ay, -2, bx, by, -2], [0, 300, 1200]),
  }));
  return {
    job: { unit: 'mm', stock: { ...STOCK, keepOuts }, bench: { pins: 'stay' }, cuts: cuts.map(({ id }) => ({ id })) },
    cuts,
  } as unknown as Judged;
}

/** How near a line comes to a rectangle, mm, by places along it. */
function gap([ax, ay, bx, by]: Line, k: KeepOut): number {
  let least = Infinity;
  for (let t = 0; t <= 1; t += 1 / 4096) {
    const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
    const dx = Math.max(k.x - x, 0, x - k.x - k.length);
    const dy = Math.max(k.y - y, 0, y - k.y - k.width);
    least = Math.min(least, Math.hypot(dx, dy));
  }
  return least;
}
const over = (a: KeepOut, b: KeepOut) =>
  Math.min(a.x + a.length, b.x + b.length) > Math.max(a.x, b.x) &&
  Math.min(a.y + a.width, b.y + b.width) > Math.max(a.y, b.y);

const whole = (min: number, max: number) => fc.integer({ min, max });
const clamp = (id: string) =>
  fc.record({
    id: fc.constant(id),
    kind: fc.constant('clamp' as const),
    x: whole(-20, STOCK.length - 1),
    y: whole(-15, STOCK.width - 1),
    length: whole(9, 60),
    width: whole(5, 24),
    height: fc.constant(12),
  });
const line = fc
  .tuple(whole(0, 130), whole(0, 70), whole(0, 130), whole(0, 70))
  .filter(([a, b, c, d]) => a !== c || b !== d);

describe('a clamp in the way', () => {
  test('goes to the nearest free place', () => {
    let moved = 0;
    fc.assert(
      fc.property(
        clamp('a'),
        clamp('b'),
        fc.array(line, { minLength: 1, maxLength: 3 }),
        whole(1, 6),
        (a, b, lines, radius) => {
          const free = (k: KeepOut) =>
            !over(k, b) &&
            over(k, { ...k, x: 0, y: 0, ...STOCK }) &&
            lines.every((one) => {
              const room = gap(one, {
                ...k,
                x: k.x - KEEP_OUT_ROOM,
                y: k.y - KEEP_OUT_ROOM,
                length: k.length + 2 * KEEP_OUT_ROOM,
                width: k.width + 2 * KEEP_OUT_ROOM,
              });
              // A place that it is free by a hair may be taken or not.
              fc.pre(Math.abs(room - radius) > 0.05);
              return room > radius;
            });
          for (const { id, text, remedies } of judgeHolding(judged([a, b], lines, radius))) {
            if (!id.endsWith('-a')) continue;
            const [, cut] = /keep-out-c(\d)-a/.exec(id)!;
            const near = gap(lines[Number(cut)], a);
            if (near > 0) expect(Number(/stands ([\d.]+) mm inside/.exec(text)![1])).toBeCloseTo(radius - near, 0);
            const [{ label, patch }] = remedies;
            const nearest = [...Array(32).keys()]
              .map((k) => 4 * (k + 1))
              .flatMap((d) =>
                [
                  [0, d],
                  [0, -d],
                  [d, 0],
                  [-d, 0],
                ].map(([dx, dy]) => ({ ...a, x: a.x + dx, y: a.y + dy, d })),
              )
              .find(free);
            if (!nearest) {
              expect(patch).toEqual([{ op: 'remove', path: '/stock/keepOuts/0' }]);
              continue;
            }
            moved++;
            const [x, y] = patch.map((p) => (p as { value: number }).value);
            expect(patch.map(({ path }) => path)).toEqual(['/stock/keepOuts/0/x', '/stock/keepOuts/0/y']);
            expect(label).toBe(`Move the clamp to ${x} mm, ${y} mm`);
            const there = { ...a, x, y };
            expect(free(there)).toBe(true);
            expect(Math.abs(x - a.x) + Math.abs(y - a.y)).toBe(nearest.d);
          }
        },
      ),
      { numRuns: 300, seed: 31 },
    );
    expect(moved).toBeGreaterThan(50);
  });

  test('of no known height keeps the program back, but for a beam', () => {
    const unknown = { id: 'a', kind: 'clamp', x: -4, y: 30, length: 9, width: 17, height: null } as KeepOut;
    const job = judged([unknown], [[60, 10, 90, 20]], 3);
    expect(judgeHolding(job).map(({ id, withholds }) => [id, withholds])).toEqual([['height-a', true]]);
    const flat = { ...job, cuts: job.cuts.map((cut) => ({ ...cut, flat: true })) } as Judged;
    expect(judgeHolding(flat)).toEqual([]);
  });
});
