import type { Path } from '../motion/path.ts';

/** Where a cut that stopped is led in to, the point of its path that comes after it, and the directions of the cut there: two at a corner, the one in which it comes first. */
export interface Seam {
  x: number;
  y: number;
  point: number;
  ways: readonly { dx: number; dy: number }[];
}

/** What is known of where a path stopped. */
export interface StoppedAt {
  /** The last of its points that was reached before all stood, and the last to which it may have been under way. */
  point: number;
  towards: number;
  /** Where the tool went off, on the sheet, mm, if that is known. */
  at?: { x: number; y: number };
  /** With which it came to a stand after that, mm/s². */
  acceleration: number;
}

/** Nearer to a path than this a place is on it, and nearer to a corner or an end at it, mm. */
const ON = 0.03;
/** A machine says where it is only so often: it may have gone on by so much more than it took to stand, mm. */
const MORE = 0.5;

/**
 * Where a path stopped, in the middle of a stroke: the first place that fits, of those that it can have gone on from to where
 * it came to a stand.
 * @returns nothing where it stopped between two strokes.
 */
export function seamOf(path: Path, { point, towards, at, acceleration }: StoppedAt): Seam | undefined {
  const { xyz, power, feed } = path;
  const next = Math.min(power.length - 1, point + 1);
  const ended = power[next] === 0;
  if (!at) return ended ? undefined : { x: xyz[3 * next - 3], y: xyz[3 * next - 2], point: next, ways: waysAt(path, next, 0) }; // prettier-ignore
  if (ended && !(power[point] > 0)) return undefined;
  let from = ended ? point : next;
  for (let back = 0; power[from - 1] > 0 && back <= (feed[from - 1] / 60) ** 2 / (2 * acceleration) + MORE;)
    back += lengthTo(path, --from);
  let best: Seam | undefined;
  let least = Infinity;
  for (let k = from; k < power.length && k <= Math.max(next, towards) && power[k] > 0 && least > ON; k++) {
    const length = lengthTo(path, k);
    if (length === 0) continue;
    const [ax, ay] = [xyz[3 * k - 3], xyz[3 * k - 2]];
    const [dx, dy] = [(xyz[3 * k] - ax) / length, (xyz[3 * k + 1] - ay) / length];
    const along = Math.max(0, Math.min(length, (at.x - ax) * dx + (at.y - ay) * dy));
    const [x, y] = [ax + along * dx, ay + along * dy];
    const off = Math.hypot(at.x - x, at.y - y);
    if (off >= least) continue;
    least = off;
    best = { x, y, point: k, ways: waysAt(path, k, along) };
  }
  const atEnd = ended && best?.point === point && Math.hypot(xyz[3 * point] - best.x, xyz[3 * point + 1] - best.y) < ON;
  return atEnd ? undefined : best;
}

/** How long the move to a point is across, mm. */
const lengthTo = ({ xyz }: Path, k: number) => Math.hypot(xyz[3 * k] - xyz[3 * k - 3], xyz[3 * k + 1] - xyz[3 * k - 2]);

/** The directions of a path so far along its way to a point, mm. */
function waysAt(path: Path, k: number, along: number): Seam['ways'] {
  const { xyz, power } = path;
  const way = (to: number) => {
    const length = lengthTo(path, to);
    const [dx, dy] = [xyz[3 * to] - xyz[3 * to - 3], xyz[3 * to + 1] - xyz[3 * to - 2]];
    return length > 0 ? [{ dx: dx / length, dy: dy / length }] : [];
  };
  const before = along < ON && power[k - 1] > 0 ? way(k - 1) : [];
  const after = lengthTo(path, k) - along < ON && power[k + 1] > 0 ? way(k + 1) : [];
  const all = [...before, ...way(k), ...after];
  return all.length > 0 ? all : [{ dx: 1, dy: 0 }];
}
