import { AXES, type Point } from './point.ts';

type Axis = keyof Point;

/**
 * What a program alone tells of the zeros that it counts from. The work coordinate system of its first move is the job’s
 * zero; how another lies to it only the machine knows, unless the program sets both from machine zero (G10 L2) or one from
 * where the tool is (G10 L20).
 */
export class WorkZeros {
  private home: number | undefined;
  /** By system and axis: set from machine zero by the program. */
  private readonly set = Array.from({ length: 6 }, () => new Set<Axis>());
  private readonly known = Array.from({ length: 6 }, () => new Set<Axis>());
  /** Axes of which the program tells where machine zero lies. */
  private readonly machine = new Set<Axis>();
  /** Axes that G92 shifted from a place that is not known. */
  private readonly shifted = new Set<Axis>();

  /** The first move begins, in this system. */
  begin(system: number): void {
    if (this.home !== undefined) return;
    this.home = system;
    for (const axis of AXES) {
      this.known[system].add(axis);
      if (!this.set[system].has(axis)) continue;
      this.machine.add(axis);
      for (const [k, set] of this.set.entries()) if (set.has(axis)) this.known[k].add(axis);
    }
  }

  /** G10 L2 sets these axes of a system. */
  setFromMachine(system: number, axes: readonly Axis[]): void {
    for (const axis of axes) {
      this.set[system].add(axis);
      if (this.home === undefined) continue;
      if (this.machine.has(axis)) this.known[system].add(axis);
      else this.known[system].delete(axis);
    }
  }

  /** G10 L20 sets these axes of a system from where the tool is. @param lost axes whose place is not known. */
  setHere(system: number, axes: readonly Axis[], lost: ReadonlySet<Axis>): void {
    for (const axis of axes) {
      this.set[system].delete(axis);
      if (this.home === undefined) continue;
      if (lost.has(axis)) this.known[system].delete(axis);
      else this.known[system].add(axis);
    }
  }

  /** G92 says where these axes are. */
  shift(axes: readonly Axis[], lost: ReadonlySet<Axis>): void {
    for (const axis of axes)
      if (lost.has(axis)) this.shifted.add(axis);
      else this.shifted.delete(axis);
  }

  /** G92.1: no shift any more. */
  unshift(): void {
    this.shifted.clear();
  }

  /** Whether a place that is given in this system is known. */
  knows(system: number, axis: Axis): boolean {
    return this.known[system].has(axis) && !this.shifted.has(axis);
  }
}
