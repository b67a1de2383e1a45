// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- other workspaces compile this file without ours
/// <reference path="./clipper2-wasm.d.ts" />
import factory from 'clipper2-wasm';
import type { MainModule, PathsD } from 'clipper2-wasm';
import { boxGroups } from './box-groups.ts';
import { boundsOf, type Loops, signedArea } from './outline.ts';
import { partedLoops } from './parted-loops.ts';
import { shapeKey, shiftLoops } from './same-shape.ts';

export type { Loops };

export type FillRule = 'nonzero' | 'evenodd';

/** Booleans and offsets of loops, through the Clipper2 library. */
export interface Clipper {
  /** The area covered by all loops under a fill rule, as loops that neither cross nor overlap, and come to no point twice. */
  union(loops: Loops, rule: FillRule): Loops;
  /** What is in `loops` and not in `clip` (both as `union` returns them). */
  difference(loops: Loops, clip: Loops): Loops;
  /** What is in both. */
  intersection(loops: Loops, clip: Loops): Loops;
  /** The parts of a line that lie in `clip`, each from its beginning to its end. */
  within(line: Float64Array, clip: Loops): Float64Array[];
  /** Without points that lie within `tolerance` mm of the line between their neighbours. */
  simplify(loops: Loops, tolerance: number): Loops;
  /** Grown (positive) or shrunk (negative) by `distance` mm, with round corners, their chords within `tolerance` mm. */
  offset(loops: Loops, distance: number, tolerance?: number): Loops;
}

/** Decimals kept when lengths go to the integer library: 1e-6 mm, far below any tolerance here, and ±9·10⁹ mm of room. */
const DECIMALS = 6;

/** With fewer groups than this looking for equal ones does not pay. */
const FEW_GROUPS = 12;

/** Largest distance between a round join and its chords, mm: under half of what an offset is held to. */
const ARC_TOLERANCE = 0.002;

/** Holes smaller than this may be none, mm². */
const TINY = 1e-3;
const tinyHole = (area: number) => area < 0 && area > -TINY;

type Factory = (options: { wasmBinary: Uint8Array }) => Promise<MainModule>;

/** Loads the library from the bytes of its WebAssembly file, which the caller reads. */
export async function loadClipper(wasmBinary: Uint8Array): Promise<Clipper> {
  const loaded = factory as unknown as Factory & { default?: Factory };
  const module = await (loaded.default ?? loaded)({ wasmBinary });
  const { FillRule, JoinType, EndType } = module;

  function send(loops: Loops): PathsD {
    const paths = new module.PathsD();
    for (const loop of loops) {
      const path = new module.PathD();
      const xyz = new Float64Array((loop.length / 2) * 3);
      for (let i = 0, j = 0; i < loop.length; i += 2, j += 3) {
        xyz[j] = loop[i];
        xyz[j + 1] = loop[i + 1];
      }
      path.assign(xyz);
      paths.push_back(path);
      path.delete();
    }
    return paths;
  }

  /** Takes paths back; those of fewer than three points are nothing, unless they are lines. */
  function receive(paths: PathsD, least = 6): Loops {
    const loops: Loops = [];
    for (let i = 0, n = paths.size(); i < n; i++) {
      const path = paths.get(i);
      const xyz = path.view();
      const loop = new Float64Array((xyz.length / 3) * 2);
      for (let j = 0, k = 0; j < xyz.length; j += 3, k += 2) {
        loop[k] = xyz[j];
        loop[k + 1] = xyz[j + 1];
      }
      path.delete();
      if (loop.length >= least) loops.push(loop);
    }
    paths.delete();
    return loops;
  }

  /**
   * Does an operation on each group of loops that could meet: one sweep over a whole page costs far more. Groups that
   * are equal up to a shift, such as the letters of a text, are worked out once.
   */
  function grouped(loops: Loops, margin: number, operate: (group: Loops) => Loops): Loops {
    if (loops.length < 2) return loops.length ? operate(loops) : [];
    const boxes = loops.map((points) => boundsOf([{ points }])!);
    const groups = boxGroups(boxes, margin);
    if (groups.length < FEW_GROUPS) return groups.flatMap((group) => operate(group.map((k) => loops[k])));
    const known = new Map<string, Loops>();
    return groups.flatMap((numbers) => {
      const group = numbers.map((k) => loops[k]);
      const { minX, minY } = boxes[numbers[0]];
      const key = shapeKey(group, minX, minY);
      let local = known.get(key);
      if (!local) known.set(key, (local = operate(shiftLoops(group, -minX, -minY))));
      return shiftLoops(local, minX, minY);
    });
  }

  /** Without holes that lie in nothing: slivers along edges that all but coincide, which an offset takes for more. */
  function mended(loops: Loops): Loops {
    if (!loops.some((loop) => tinyHole(signedArea(loop)))) return loops;
    const subject = send(loops);
    const result = module.UnionSelfD(subject, FillRule.Positive, DECIMALS);
    subject.delete();
    return receive(result);
  }

  const made: Clipper = {
    union(loops, rule) {
      const subject = send(loops);
      const result = module.UnionSelfD(subject, rule === 'nonzero' ? FillRule.NonZero : FillRule.EvenOdd, DECIMALS);
      subject.delete();
      return receive(result).flatMap(partedLoops);
    },
    difference(loops, clip) {
      const a = send(loops);
      const b = send(clip);
      const result = module.DifferenceD(a, b, FillRule.NonZero, DECIMALS);
      a.delete();
      b.delete();
      return mended(receive(result));
    },
    intersection(loops, clip) {
      const a = send(loops);
      const b = send(clip);
      const result = module.IntersectD(a, b, FillRule.NonZero, DECIMALS);
      a.delete();
      b.delete();
      return mended(receive(result));
    },
    within(line, clip) {
      const [a, b, areas, lines] = [send([line]), send(clip), new module.PathsD(), new module.PathsD()];
      const sweep = new module.ClipperD(DECIMALS);
      sweep.AddOpenSubject(a);
      sweep.AddClip(b);
      sweep.ExecutePath(module.ClipType.Intersection, FillRule.NonZero, areas, lines);
      for (const used of [sweep, a, b, areas]) used.delete();
      return receive(lines, 4);
    },
    simplify(loops, tolerance) {
      const subject = send(loops);
      const result = module.SimplifyPathsD(subject, tolerance, true);
      subject.delete();
      return receive(result);
    },
    offset(loops, distance, tolerance = ARC_TOLERANCE) {
      const subject = send(loops);
      const result = module.InflatePathsD(subject, distance, JoinType.Round, EndType.Polygon, 2, DECIMALS, tolerance);
      subject.delete();
      return receive(result);
    },
  };
  return {
    ...made,
    union: (loops, rule) => grouped(loops, 0, (group) => made.union(group, rule)),
    simplify: (loops, tolerance) => grouped(loops, 0, (group) => made.simplify(group, tolerance)),
    offset: (loops, distance, tolerance) =>
      grouped(loops, 2 * Math.max(0, distance) + 1e-3, (group) => made.offset(group, distance, tolerance)),
  };
}
