import Flatbush from 'flatbush';
import { boundsOf, contains, type Loops, signedArea } from '../geometry/outline.ts';

/** What becomes of outlines as they are moved to where a bit or a kerf goes. */
export interface MovedOutlines {
  /** So many closed up: what is cut does not fit into them. */
  lost: number;
  /** So many fell apart: it does not fit through a narrow place in them. */
  split: number;
  /** So many grew together with another: what is cut does not fit between them. */
  grown: number;
}

/**
 * Looks for what closes up or grows together where outlines are moved outwards or inwards.
 *
 * @param area as `Clipper.union` returns it.
 * @param moved what `Clipper.offset` made of it, each the outline of a hole or not.
 * @param outwards away from what the area covers.
 * @example two squares 1 mm apart, moved outwards by 3 mm: 1 grown together, none lost or split
 */
export function movedOutlines(
  area: Loops,
  moved: readonly { points: Float64Array; hole: boolean }[],
  outwards: boolean,
): MovedOutlines {
  const drawn = (holes: boolean) => area.filter((loop) => signedArea(loop) < 0 === holes);
  const now = (holes: boolean) => moved.filter(({ hole }) => hole === holes).map(({ points }) => points);
  const [shrinks, grows] = [drawn(outwards), drawn(!outwards)];
  const inWhich = smallestAround(shrinks);
  const left = new Set<number>();
  const fell = new Set<number>();
  for (const k of now(outwards).flatMap((loop) => inWhich(loop[0], loop[1]) ?? [])) (left.has(k) ? fell : left).add(k);
  const within = smallestAround(now(!outwards));
  const apart = new Set(grows.flatMap((loop) => within(loop[0], loop[1]) ?? []));
  return { lost: shrinks.length - left.size, split: fell.size, grown: grows.length - apart.size };
}

/** Whether something closes up or grows together where a kerf is laid beside its lines. */
export function closesUp(
  area: Loops,
  moved: Parameters<typeof movedOutlines>[1],
  side: 'outside' | 'inside' | 'on',
): boolean {
  if (side === 'on') return false;
  const { lost, split, grown } = movedOutlines(area, moved, side === 'outside');
  return lost + split + grown > 0;
}

/** Finds the number of the smallest loop that goes round a place. */
function smallestAround(loops: Loops): (x: number, y: number) => number | undefined {
  if (loops.length === 0) return () => undefined;
  const boxes = new Flatbush(loops.length);
  for (const points of loops) {
    const { minX, minY, maxX, maxY } = boundsOf([{ points }])!;
    boxes.add(minX, minY, maxX, maxY);
  }
  boxes.finish();
  const size = loops.map((loop) => Math.abs(signedArea(loop)));
  return (x, y) => {
    const around = boxes.search(x, y, x, y).filter((k) => contains(loops[k], x, y));
    return around.sort((a, b) => size[a] - size[b])[0];
  };
}
