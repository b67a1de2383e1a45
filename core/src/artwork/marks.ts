import { boundsOf } from '../geometry/outline.ts';
import { shortened } from '../document/shortened.ts';
import type { MarkedShape, Shape } from './shape.ts';

/** Places and sizes of marks are told to this, mm. */
const DIGITS = 2;

/** What a shape of a drawing is read with: the id of its element, where that has one. */
export type Read = Shape & { element?: string };

/**
 * Gives every shape of a drawing the mark by which cuts hold on to it: the id of its element where no other shape has
 * that, else where its middle is and how large it is. Shapes that share all of that are numbered.
 * A rectangle of 3 by 4 mm around 2.5, 4 without an id is `at:2.5,4;3x4`.
 */
export function marked(shapes: readonly Read[]): MarkedShape[] {
  const ids = new Map<string, number>();
  for (const { element } of shapes) if (element) ids.set(element, (ids.get(element) ?? 0) + 1);
  return told(
    shapes.map(({ element, ...shape }) => ({
      ...shape,
      mark: element && ids.get(element) === 1 ? `id:${shortened(element)}` : placeMark(shape),
    })),
  );
}

/** Marks that several shapes share, told apart by their order: the first keeps its own. */
export function told<T extends { mark: string }>(shapes: T[]): T[] {
  const seen = new Map<string, number>();
  for (const shape of shapes) {
    const before = seen.get(shape.mark) ?? 0;
    seen.set(shape.mark, before + 1);
    if (before > 0) shape.mark += `~${before + 1}`;
  }
  return shapes;
}

function placeMark({ outlines }: Shape): string {
  const bounds = boundsOf(outlines);
  if (!bounds) return 'at:0,0;0x0';
  const { minX, minY, maxX, maxY } = bounds;
  const n = (v: number) => String(Number(v.toFixed(DIGITS)) || 0);
  return `at:${n((minX + maxX) / 2)},${n((minY + maxY) / 2)};${n(maxX - minX)}x${n(maxY - minY)}`;
}
