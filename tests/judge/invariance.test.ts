import { expect, test } from 'vitest';
import { compared } from './invariance.ts';

// The same drawing shifted, turned, mirrored, begun elsewhere, drawn backwards and in several paths is cut the same.
const COUNT = Number(process.env.KERBE_COMPARED ?? 2);
const FIRST = Number(process.env.KERBE_SEED ?? 1);

/** Depths may differ by so much, mm; those of bits steeper than 60° by what so little sideways is in depth. */
const DEEP = 0.01;
const SIDEWAYS = 0.01;

/**
 * The same drawing in the same place takes the same time, or differs by no more than a bit a hundredth or a micrometre
 * thinner or thicker makes. Turned or mirrored, the way from the sheet's corner is another,
 * axes are quicker across their diagonal, and orders are searched for among others: most are within a hundredth or a second. Where
 * the bit hardly fits, places join or part by micrometres, and a few are far from it.
 */
const TIME = { moved: 1, same: 0.01 };
const USUAL = { within: 0.01, seconds: 1, share: 0.75 };

/** A way or two more or less on a drawing as large as a thumb, s: turned or mirrored, and in the same place. */
const FEW_SECONDS = { moved: 3, same: 0.5 };

test.each(['pocket', 'profile', 'v-carve'] as const)(
  '%s',
  async (kind) => {
    const off: string[] = [];
    const moved: boolean[] = [];
    let count = 0;
    for (let seed = FIRST; count < COUNT; seed++) {
      const { found, asked, drawing, refused } = await compared(kind, seed);
      if (refused) continue;
      count++;
      const deep = asked.slope > 0 && asked.slope < 0.5 ? SIDEWAYS / asked.slope : DEEP;
      for (const { variant, off: by, at, time, longer, unsteady } of found) {
        const isMoved = /turned|mirrored/.test(variant);
        const within = TIME[isMoved ? 'moved' : 'same'];
        if (isMoved)
          moved.push(Math.abs(time - 1) <= Math.max(USUAL.within, unsteady) || Math.abs(longer) < USUAL.seconds);
        if (
          by > deep ||
          (Math.abs(time - 1) > Math.max(within, unsteady) &&
            Math.abs(longer) > FEW_SECONDS[isMoved ? 'moved' : 'same'])
        )
          off.push(
            `seed ${seed}, ${drawing}, ${asked.options}, ${variant}: ${by.toFixed(4)} mm off at ${at.map((v) => v.toFixed(2)).join(', ')}, ${time.toFixed(3)} × the time`,
          );
      }
    }
    expect(off).toEqual([]);
    expect(moved.filter(Boolean).length / moved.length).toBeGreaterThanOrEqual(USUAL.share);
  },
  3_600_000,
);
