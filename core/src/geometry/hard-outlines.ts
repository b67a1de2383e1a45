/** Outlines that try the medial axis: used by tests and by the bench, all made by formulas. Loops as x, y in mm. */
export interface HardOutline {
  name: string;
  loops: Float64Array[];
  rule: 'nonzero' | 'evenodd';
}

const loop = (points: readonly (readonly [number, number])[]) => Float64Array.from(points.flat());

function circle(x: number, y: number, r: number, n: number, wobble: (k: number) => number = () => 0): Float64Array {
  return loop(
    Array.from({ length: n }, (_, k) => {
      const a = (2 * Math.PI * k) / n;
      const d = r + wobble(k);
      return [x + d * Math.cos(a), y + d * Math.sin(a)] as const;
    }),
  );
}

/** The same figures every time (a linear congruential generator, Lehmer 1951). */
function noise(): () => number {
  let state = 20_261_123;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

/** @example hardOutlines()[0].name // 'comb of 0.3 mm teeth' */
export function hardOutlines(): HardOutline[] {
  const wedge = (3 * Math.PI) / 180;
  const rough = noise();
  const square = (x: number, y: number, s: number): [number, number][] => [
    [x, y],
    [x + s, y],
    [x + s, y + s],
    [x, y + s],
  ];
  return [
    {
      name: 'comb of 0.3 mm teeth',
      rule: 'nonzero',
      loops: [
        loop([
          [0, -2],
          [12, -2],
          ...Array.from({ length: 20 }, (_, k) => {
            const x = 12 - 0.6 * k;
            return [
              [x, 4],
              [x - 0.3, 4],
              [x - 0.3, 0],
              [x - 0.6, 0],
            ] as [number, number][];
          }).flat(),
        ]),
      ],
    },
    {
      name: '3° wedge',
      rule: 'nonzero',
      loops: [
        loop([
          [0, 0],
          [30, -30 * Math.tan(wedge / 2)],
          [30, 30 * Math.tan(wedge / 2)],
        ]),
      ],
    },
    {
      name: 'circle with 10 µm of noise',
      rule: 'nonzero',
      loops: [circle(0, 0, 8, 400, () => (rough() - 0.5) * 0.01)],
    },
    {
      name: 'hairline serifs of 0.05 mm',
      rule: 'nonzero',
      loops: [
        loop([
          [0, 0],
          [6, 0],
          [6, 0.05],
          [4, 0.2],
          [4, 9.8],
          [6, 9.95],
          [6, 10],
          [0, 10],
          [0, 9.95],
          [2, 9.8],
          [2, 0.2],
          [0, 0.05],
        ]),
      ],
    },
    {
      name: 'overlapping squares, non-zero',
      rule: 'nonzero',
      loops: [loop(square(0, 0, 10)), loop(square(6, 4, 10)), loop(square(3, 8, 5))],
    },
    {
      name: 'overlapping circles, even-odd',
      rule: 'evenodd',
      loops: [circle(0, 0, 6, 160), circle(5, 0, 6, 160), circle(2.5, 4, 3, 120)],
    },
    {
      name: 'touching squares',
      rule: 'nonzero',
      loops: [loop(square(0, 0, 5)), loop(square(5, 5, 5))],
    },
    {
      name: 'a hole that touches its outline in a point',
      rule: 'evenodd',
      loops: [loop(square(0, 0, 10)), loop([[5, 0], [7, 3], [5, 6], [3, 3]])], // prettier-ignore
    },
    {
      name: 'holes 20 µm apart',
      rule: 'evenodd',
      loops: [loop(square(0, 0, 12)), loop(square(2, 3, 3.99)), loop(square(6.01, 3, 4))],
    },
    {
      name: 'holes within holes',
      rule: 'evenodd',
      loops: [circle(0, 0, 12, 240), circle(0, 0, 9, 200), circle(0, 0, 6, 160), circle(0, 0, 3, 120)],
    },
    {
      name: 'one loop that crosses itself',
      rule: 'nonzero',
      loops: [
        loop([
          [0, 0],
          [10, 0],
          [10, 8],
          [2, 8],
          [2, -3],
          [6, -3],
          [6, 5],
          [0, 5],
        ]),
      ],
    },
  ];
}
