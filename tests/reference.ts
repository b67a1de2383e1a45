// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- the declarations belong to this file alone
/// <reference path="./jsts.d.ts" />
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory, { type Geometry } from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import DistanceOp from 'jsts/org/locationtech/jts/operation/distance/DistanceOp.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import type { Path } from '../core/src/motion/path.ts';

// The reference of these checks is JSTS, a general-purpose geometry library that Kerbe itself does not use.
const factory = new GeometryFactory();
const ring = (loop: ArrayLike<number>) => {
  const points = Array.from({ length: loop.length / 2 }, (_, i) => new Coordinate(loop[2 * i], loop[2 * i + 1]));
  return factory.createLinearRing([...points, points[0]]);
};

/** An area from its outer loop and its holes. */
export const areaOf = (outer: ArrayLike<number>, holes: readonly ArrayLike<number>[] = []): Geometry =>
  factory.createPolygon(ring(outer), holes.map(ring));

/** An area grown or shrunk, arcs by 32 chords a quarter (0.5 µm at 1.5 mm). */
export const buffered = (area: Geometry, by: number): Geometry => BufferOp.bufferOp(area, by, 32);

export const { difference, symDifference } = OverlayOp;

/** The lines along which a path cuts below the top of the stock, seen from above; only its lowest pass where asked. */
export function cutLines({ xyz, feed }: Path, from = 0): Geometry {
  const lines: Coordinate[][] = [];
  let line: Coordinate[] = [];
  for (let i = 1; i < feed.length; i++) {
    const low = feed[i] > 0 && xyz[3 * i + 2] < from && xyz[3 * i - 1] < from;
    if (!low) {
      line = [];
      continue;
    }
    if (line.length === 0) lines.push((line = [new Coordinate(xyz[3 * i - 3], xyz[3 * i - 2])]));
    line.push(new Coordinate(xyz[3 * i], xyz[3 * i + 1]));
  }
  return factory.createMultiLineString(lines.filter((l) => l.length > 1).map((l) => factory.createLineString(l)));
}

/** Distance from where a bit cuts (points of its path and the middles between) to some loops. */
export function distanceToLoops({ xyz, feed }: Path, loops: readonly ArrayLike<number>[]): number {
  const points: Coordinate[] = [];
  for (let i = 1; i < feed.length; i++) {
    if (feed[i] === 0 || xyz[3 * i + 2] >= 0) continue;
    points.push(new Coordinate(xyz[3 * i], xyz[3 * i + 1]));
    if (xyz[3 * i - 1] < 0)
      points.push(new Coordinate((xyz[3 * i] + xyz[3 * i - 3]) / 2, (xyz[3 * i + 1] + xyz[3 * i - 2]) / 2));
  }
  const all = factory.createMultiPointFromCoords(points);
  return Math.min(...loops.map((loop) => DistanceOp.distance(all, ring(loop))));
}

/** What a disc covers along lines, arcs by 16 chords a quarter (2 µm at 1.5 mm). */
export const swept = (lines: Geometry, radius: number): Geometry => BufferOp.bufferOp(lines, radius, 16);
