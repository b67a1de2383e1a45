import type { Shape } from '../artwork/shape.ts';
import { unitedShapes } from '../artwork/united-shapes.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { medialAxis, type MedialAxis } from '../geometry/medial-axis.ts';
import { exactKey } from '../geometry/same-shape.ts';
import { regionsOf, type Region } from '../geometry/regions.ts';

/** A connected region with its medial axis, in coordinates of its own. */
export interface Carvable {
  region: Region;
  axis: MedialAxis;
}

/** Pieces that were divided before, by a text that is the same for equal ones; see `exactKey`. */
export interface KeptCarvables {
  get(key: string): Carvable[] | undefined;
  set(key: string, carvables: Carvable[]): Carvable[];
}

/** What V-carving works on: each region that differs once, and where on the sheet the equal ones lie. */
export interface Carvables {
  regions: Carvable[];
  places: { region: number; dx: number; dy: number }[];
  /** Outlines that are not closed, and so are left out. */
  open: number;
}

/**
 * The medial axes of what shapes cover, one a connected region; equal regions are worked out once.
 *
 * @param step told after each piece how much is done, 0 to 1; may be asynchronous to let others work.
 * @param kept those of before: a letter that stood on the sheet already is not worked out again.
 * @throws {OwnFault} where outlines cross themselves beyond what uniting mends.
 */
export async function carvablesOf(
  shapes: readonly Shape[],
  clipper: Clipper,
  step: (share: number) => Promise<void> | void = () => {},
  kept?: KeptCarvables,
): Promise<Carvables> {
  const { pieces, places, open } = unitedShapes(shapes, clipper);
  const out: Carvables = { regions: [], places: [], open };
  const regionsOfPiece: number[][] = [];
  for (const [index, piece] of pieces.entries()) {
    const key = kept && exactKey(piece);
    let carvables = key === undefined ? undefined : kept?.get(key);
    if (!carvables) {
      carvables = regionsOf(piece).map((region) => ({ region, axis: medialAxis(region) }));
      if (key !== undefined) kept?.set(key, carvables);
    }
    regionsOfPiece.push(carvables.map((carvable) => out.regions.push(carvable) - 1));
    await step((index + 1) / pieces.length);
  }
  for (const { piece, dx, dy } of places)
    for (const region of regionsOfPiece[piece]) out.places.push({ region, dx, dy });
  return out;
}
