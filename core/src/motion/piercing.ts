import type { Dwells } from './plan.ts';
import type { Path } from './path.ts';

/** How the strokes of a path begin where the tool pierces, each standing with its power on before it goes along. */
export interface Piercing {
  /** How long it stands, s. */
  delay: number;
  /** Points at which the tool has gone down until it touched the surface, from which its height counts. */
  touches: readonly number[];
  /** Points at which strokes end that are gone along at one height, and not as high over the surface as it lies. */
  level: readonly number[];
  /** Points at which strokes end that the controller leads the tool beside, on the side of the scrap, by half its kerf. */
  beside: readonly number[];
  /** Where kerfs have come round: what each encloses is free then. */
  frees: readonly Closing[];
  /** On which side of its way the scrap lies, in which it may be pierced anew. */
  scrapOnLeft: boolean;
}

/**
 * A piercing whose path has become another.
 * @param now the new number of a point; undefined where it is no more: what closes there was cut before.
 */
export function piercingMoved(piercing: Piercing, now: (point: number) => number | undefined): Piercing {
  const moved = (points: readonly number[]) => points.map(now).filter((k) => k !== undefined);
  const { touches, level, beside, frees } = piercing;
  return {
    ...piercing,
    touches: moved(touches),
    level: moved(level),
    beside: moved(beside),
    frees: frees.flatMap(({ point, before }) => {
      const is = now(point);
      return is === undefined ? [] : [{ point: is, before }];
    }),
  };
}

/** Where a kerf has come round: so far before a point, mm, or at it. */
export interface Closing {
  point: number;
  before: number;
}

/** Where a path stands before a stroke: the last points without power. */
export function strokeStarts({ power }: Pick<Path, 'power'>): number[] {
  const out: number[] = [];
  for (let i = 1; i < power.length; i++) if (power[i] > 0 && power[i - 1] === 0) out.push(i - 1);
  return out;
}

/**
 * The waits of a path whose strokes begin by piercing.
 * @param more what the machine takes besides at each: until its arc stands, and to touch off, s.
 */
export const pierceWaits = (path: Path, { delay }: Piercing, more: number): Dwells => ({
  points: strokeStarts(path),
  seconds: delay + more,
});
