import { describe, expect, test } from 'vitest';
import { pathForTests } from '../motion/path-for-tests.ts';
import { type Beside, besideWay } from './beside-way.ts';

const KERF = 1.5;
const SEAM = { x: 50, y: 40 };
const dir = (degrees: number) => ({ dx: Math.cos((degrees * Math.PI) / 180), dy: Math.sin((degrees * Math.PI) / 180) });

/** A cut that comes to the seam in one direction and goes on from it in another, 30 mm each. */
function corner(into: number, out: number, more: Partial<Beside> = {}) {
  const [a, b] = [dir(into), dir(out)];
  const kerfs = [
    pathForTests(
      [SEAM.x - 30 * a.dx, SEAM.y - 30 * a.dy, 0, SEAM.x, SEAM.y, 0, SEAM.x + 30 * b.dx, SEAM.y + 30 * b.dy, 0],
      [0, 900, 900],
    ),
  ];
  const beside: Beside = { kerfs, kerf: KERF, led: false, scrapOnLeft: true, onStock: () => true, free: () => false, ...more }; // prettier-ignore
  return { ways: into === out ? [a] : [a, b], kerfs, place: besideWay(beside, { ...SEAM, ways: into === out ? [a] : [a, b] }) }; // prettier-ignore
}

/** How far a place lies on the left of a direction through the seam, mm. */
const leftOf = ({ dx, dy }: { dx: number; dy: number }, x: number, y: number) => dx * (y - SEAM.y) - dy * (x - SEAM.x);
const distance = (x: number, y: number, ax: number, ay: number, bx: number, by: number) => {
  const t = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)));
  return Math.hypot(ax + t * (bx - ax) - x, ay + t * (by - ay) - y);
};

describe.each([true, false])('pierced beside a cut, the scrap on its left: %s', (scrapOnLeft) => {
  const side = scrapOnLeft ? 1 : -1;
  test.each(Array.from({ length: 24 }, (_, k) => k * 15))('that turns any way, beginning at %i°', (into) => {
    for (let turn = -150; turn <= 150; turn += 15) {
      // A wedge of 45° has no room.
      if (side * turn > 120) continue;
      const { ways, place, kerfs } = corner(into, into + turn, { scrapOnLeft });
      expect(place, `turning by ${turn}°`).toBeTypeOf('object');
      const { x, y } = place as { x: number; y: number };
      const left = ways.map((way) => side * leftOf(way, x, y));
      // In a corner that turns into the scrap it lies between both ways, else it is enough to lie beside one.
      if (side * turn > 0) expect(Math.min(...left), `turning by ${turn}°`).toBeGreaterThan(0);
      else expect(Math.max(...left), `turning by ${turn}°`).toBeGreaterThan(0);
      const { xyz } = kerfs[0];
      for (const k of [0, 3]) expect(distance(x, y, xyz[k], xyz[k + 1], xyz[k + 3], xyz[k + 4])).toBeGreaterThanOrEqual(0.75 * KERF); // prettier-ignore
    }
  });
});

describe('a straight cut', () => {
  test('is led in to from behind, at 45° and four kerfs away', () => {
    const { place } = corner(0, 0);
    const away = 4 * KERF * Math.SQRT1_2;
    expect(place).toEqual({ x: expect.closeTo(SEAM.x - away, 9), y: expect.closeTo(SEAM.y + away, 9) });
  });
  test('near the sheet’s edge by a shorter way or another direction, and nowhere beyond it', () => {
    const onStock = (_: number, y: number, room: number) => y <= SEAM.y + 3 - room;
    const place = corner(0, 0, { onStock }).place as { x: number; y: number };
    expect(place.y).toBeLessThanOrEqual(SEAM.y + 3 - KERF / 2);
    expect(place.y).toBeGreaterThan(SEAM.y);
    expect(corner(0, 0, { onStock: () => false }).place).toBe('no-room');
  });
  test('not where all beside it has come free', () => {
    expect(corner(0, 0, { free: () => true }).place).toBe('fallen');
    const place = corner(0, 0, { free: (x) => x < SEAM.x }).place as { x: number };
    expect(place.x).toBeGreaterThanOrEqual(SEAM.x);
  });
  test('not across another kerf', () => {
    const wall = pathForTests([0, SEAM.y + 2.4, 0, 100, SEAM.y + 2.4, 0], [0, 900]);
    const place = corner(0, 0, { kerfs: [...corner(0, 0).kerfs, wall] }).place as { x: number; y: number };
    expect(place.y).toBeLessThanOrEqual(SEAM.y + 2.4 - 0.75 * KERF);
    const nearer = pathForTests([0, SEAM.y + 1.2, 0, 100, SEAM.y + 1.2, 0], [0, 900]);
    expect(corner(0, 0, { kerfs: [...corner(0, 0).kerfs, nearer] }).place).toBe('no-room');
  });
  test('led by the controller only from behind, and further from the kerfs', () => {
    const { x, y } = corner(0, 0, { led: true }).place as { x: number; y: number };
    expect(Math.atan2(y - SEAM.y, SEAM.x - x)).toBeLessThanOrEqual(Math.PI / 3 + 1e-9);
    expect(y - SEAM.y).toBeGreaterThanOrEqual(1.25 * KERF);
  });
});
