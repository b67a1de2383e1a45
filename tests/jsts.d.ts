// The package ships no types; these are the parts that the checks use.
declare module 'jsts/org/locationtech/jts/geom/GeometryFactory.js' {
  export default class GeometryFactory {
    createLinearRing(points: unknown[]): Geometry;
    createPolygon(shell: Geometry, holes?: Geometry[]): Geometry;
    createLineString(points: unknown[]): Geometry;
    createMultiPointFromCoords(points: unknown[]): Geometry;
    createMultiLineString(parts: Geometry[]): Geometry;
  }
  export interface Geometry {
    getArea(): number;
    getLength(): number;
    isEmpty(): boolean;
  }
}
declare module 'jsts/org/locationtech/jts/geom/Coordinate.js' {
  export default class Coordinate {
    constructor(x: number, y: number);
  }
}
declare module 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js' {
  import type { Geometry } from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
  export default class BufferOp {
    static bufferOp(geometry: Geometry, distance: number, quadrantSegments?: number): Geometry;
  }
}
declare module 'jsts/org/locationtech/jts/operation/distance/DistanceOp.js' {
  import type { Geometry } from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
  export default class DistanceOp {
    static distance(a: Geometry, b: Geometry): number;
  }
}
declare module 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js' {
  import type { Geometry } from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
  export default class OverlayOp {
    static union(a: Geometry, b: Geometry): Geometry;
    static difference(a: Geometry, b: Geometry): Geometry;
    static symDifference(a: Geometry, b: Geometry): Geometry;
  }
}
