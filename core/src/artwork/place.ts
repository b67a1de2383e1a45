import type { Font } from 'opentype.js';
import type { Clipper } from '../geometry/clipper.ts';
import { type Affine, applyTo, scale, shift, compose, turn } from '../geometry/affine.ts';
import { type Bounds, boundsOf } from '../geometry/outline.ts';
import { radians } from '../quantity/units.ts';
import type { Face, Item } from '../document/item.ts';
import { ArtworkError } from './artwork-error.ts';
import { checkSize } from './artwork-size.ts';
import { setLettering } from './lettering.ts';
import { type Nodes, refitShapes } from './refit-shapes.ts';
import type { Drawing, MarkedShape } from './shape.ts';

/**
 * What artwork needs from outside: imported drawings by their hash, and faces; undefined where one is missing. Letters are
 * united by the geometry library.
 */
export interface Resources {
  clipper: Clipper;
  drawing(hash: string): Drawing | undefined;
  face(name: Face): Font | undefined;
}

/** An item of artwork on the sheet. */
export interface PlacedItem {
  id: string;
  shapes: MarkedShape[];
  bounds?: Bounds;
  /** What keeps it from being used, as a sentence. */
  problem?: string;
  nodes: Nodes;
  notes: string[];
}

/**
 * Puts one item of artwork on the sheet: its shapes in mm from the stock's lower left corner. A drawing turns and
 * scales about its page's lower left corner, lettering about the first line's origin.
 */
export function placeItem(item: Item, resources: Resources): PlacedItem {
  try {
    const { shapes, notes } = item.kind === 'drawing' ? shapesOf(item.asset, resources) : lettered(item, resources);
    const size: Affine = item.kind === 'drawing' ? scale(item.scaleX, item.scaleY) : scale(1);
    const map = compose(compose(size, turn(radians(item.rotation))), shift(item.x, item.y));
    const placed = shapes.map((shape) => ({
      ...shape,
      ...(shape.greys && { greys: { ...shape.greys, map: compose(shape.greys.map, map) } }),
      outlines: shape.outlines.map((outline) => ({
        ...outline,
        points: applyTo(map, outline.points),
        closed: outline.closed || (item.kind === 'drawing' && item.closeOpen && outline.points.length >= 6),
      })),
    }));
    const drawn = boundsOf(placed.flatMap((shape) => shape.outlines));
    if (drawn) checkSize(drawn, 'This artwork', 'make it smaller at Artwork');
    const refitted = refitShapes(placed, item.kind === 'drawing' ? item.refit : 0);
    const bounds = boundsOf(refitted.shapes.flatMap((shape) => shape.outlines));
    return { id: item.id, ...refitted, bounds, notes };
  } catch (error) {
    if (error instanceof ArtworkError)
      return { id: item.id, shapes: [], problem: error.message, nodes: { drawn: 0, now: 0, off: 0 }, notes: [] };
    throw error;
  }
}

function shapesOf(hash: string, resources: Resources): { shapes: MarkedShape[]; notes: string[] } {
  const drawing = resources.drawing(hash);
  if (!drawing) throw new ArtworkError('The drawing’s file is missing from this job; import it again.');
  return drawing;
}

function lettered(
  item: Extract<Item, { kind: 'lettering' }>,
  resources: Resources,
): { shapes: MarkedShape[]; notes: string[] } {
  const font = resources.face(item.face);
  if (!font) throw new ArtworkError('The face of this lettering is missing; choose another.');
  if (item.text.trim() === '') throw new ArtworkError('The lettering is empty; type its words at Artwork.');
  return setLettering(font, item, resources.clipper);
}
