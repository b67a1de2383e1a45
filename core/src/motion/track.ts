/**
 * A stretch that the bit goes along without lifting: points in mm as in `Path`. An open one may be gone either way
 * unless it is `oneWay`.
 */
export interface Track {
  xyz: Float64Array;
  /** Ends where it began. */
  closed: boolean;
  /** How many of its first points are a closed ring, the first of them repeated at the end; 0 where there is none. */
  ring: number;
  /** The direction matters, as it does for climb milling. */
  oneWay: boolean;
}

/** A track along a flat line or loop at one height. */
export function flatTrack(points: ArrayLike<number>, z: number, closed: boolean): Track {
  const n = points.length / 2;
  const count = closed ? n + 1 : n;
  const xyz = new Float64Array(3 * count);
  for (let i = 0; i < count; i++) {
    const k = 2 * (i % n);
    xyz[3 * i] = points[k];
    xyz[3 * i + 1] = points[k + 1];
    xyz[3 * i + 2] = z;
  }
  return { xyz, closed, ring: closed ? count : 0, oneWay: closed };
}

/** The same track somewhere else on the sheet. */
export function shiftTrack(track: Track, dx: number, dy: number): Track {
  const { xyz } = track;
  const out = new Float64Array(xyz.length);
  for (let i = 0; i < xyz.length; i += 3) {
    out[i] = xyz[i] + dx;
    out[i + 1] = xyz[i + 1] + dy;
    out[i + 2] = xyz[i + 2];
  }
  return { ...track, xyz: out };
}

/** The same track at another height. */
export function trackAt(track: Track, z: number): Track {
  const xyz = track.xyz.slice();
  for (let i = 2; i < xyz.length; i += 3) xyz[i] = z;
  return { ...track, xyz };
}

/** The same track gone the other way. */
export function reverseTrack(track: Track): Track {
  const { xyz } = track;
  const out = new Float64Array(xyz.length);
  for (let i = 0, j = xyz.length - 3; i < xyz.length; i += 3, j -= 3) {
    out[i] = xyz[j];
    out[i + 1] = xyz[j + 1];
    out[i + 2] = xyz[j + 2];
  }
  return { ...track, xyz: out, ring: track.closed && track.ring * 3 === xyz.length ? track.ring : 0 };
}
