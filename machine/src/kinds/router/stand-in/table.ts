import type { Point } from '../../../stand-in/axes.ts';
import { DOME, type MadeAs } from './made-as.ts';
import { type FittedBit, Workpiece } from './workpiece.ts';

/** Machine coordinates of things bolted to the table, mm. */
export const SPOILBOARD_TOP = -112;
const SETTER = { radius: 12, height: 30 };

/** The touch plate: an angle piece laid over a corner of the stock, or flat. */
export const PLATE = { thickness: 12, side: 8, size: 40 };

export type PlatePlace = 'corner' | 'flat' | 'spoilboard' | 'away';
export type Corner = 'lower-left' | 'lower-right' | 'upper-right' | 'upper-left';

/** What lies on the simulated table, and what a bit touches there. */
export class Table {
  piece?: Workpiece;
  plate: PlatePlace = 'away';
  plateCorner: Corner = 'lower-left';
  /** The lead of the touch circuit is clipped to the bit. */
  clip = false;
  /** Someone is touching the plate to the bit by hand. */
  tapped = false;
  /** The tool setter, where one is bolted down. */
  readonly setter: { x: number; y: number; radius: number; height: number; force: number | null } | undefined;
  /** Thickness of a slip of paper that someone holds under the tool, mm; 0 where nobody does. */
  paper = 0;

  constructor(setter: MadeAs['setter'] = DOME.setter) {
    this.setter = setter ? { ...setter, ...SETTER } : undefined;
  }

  /** Whether the touch circuit is closed. */
  get touching(): boolean {
    return this.clip && this.tapped;
  }

  /** Where the plate lies, as a box in machine coordinates. */
  plateBox(): { x0: number; x1: number; y0: number; y1: number; z0: number; z1: number } | undefined {
    const { piece, plate } = this;
    if (plate === 'away') return undefined;
    if (plate === 'spoilboard') {
      const x = piece ? piece.corner.x - PLATE.size - 10 : 60;
      const y = piece ? piece.corner.y : 60;
      return {
        x0: x,
        x1: x + PLATE.size,
        y0: y,
        y1: y + PLATE.size,
        z0: SPOILBOARD_TOP,
        z1: SPOILBOARD_TOP + PLATE.thickness,
      };
    }
    if (!piece) return undefined;
    if (plate === 'flat') {
      const x = piece.corner.x + piece.length / 2 - PLATE.size / 2;
      const y = piece.corner.y + piece.width / 2 - PLATE.size / 2;
      const top = SPOILBOARD_TOP + piece.surface(piece.length / 2, piece.width / 2);
      return { x0: x, x1: x + PLATE.size, y0: y, y1: y + PLATE.size, z0: top, z1: top + PLATE.thickness };
    }
    const right = this.plateCorner.endsWith('right');
    const upper = this.plateCorner.startsWith('upper');
    const cx = piece.corner.x + (right ? piece.length : 0);
    const cy = piece.corner.y + (upper ? piece.width : 0);
    const top = SPOILBOARD_TOP + piece.surface(right ? piece.length : 0, upper ? piece.width : 0);
    return {
      x0: right ? cx - PLATE.size + PLATE.side : cx - PLATE.side,
      x1: right ? cx + PLATE.side : cx + PLATE.size - PLATE.side,
      y0: upper ? cy - PLATE.size + PLATE.side : cy - PLATE.side,
      y1: upper ? cy + PLATE.side : cy + PLATE.size - PLATE.side,
      z0: SPOILBOARD_TOP,
      z1: top + PLATE.thickness,
    };
  }

  /** Whether the bit with its tip at a place touches the plate (with the clip on) or the tool setter. */
  contact(bit: FittedBit, tip: Point): boolean {
    const { setter } = this;
    if (
      setter &&
      Math.hypot(tip.x - setter.x, tip.y - setter.y) <= setter.radius &&
      // A spring that is weaker than the setter's gives all the way before that is moved.
      tip.z <= SPOILBOARD_TOP + setter.height - (bit.spring && bit.spring.force <= (setter.force ?? Infinity) ? bit.spring.travel : 0) // prettier-ignore
    )
      return true;
    // What gives is no conductor: the plate does not feel it.
    if (!this.clip || bit.spring) return false;
    const box = this.plateBox();
    if (!box || tip.z > box.z1) return false;
    const r = radiusOf(bit, box.z1 - tip.z);
    const dx = Math.max(box.x0 - tip.x, 0, tip.x - box.x1);
    const dy = Math.max(box.y0 - tip.y, 0, tip.y - box.y1);
    return Math.hypot(dx, dy) <= r;
  }

  /** How a slip of paper under the tip feels to whoever holds it. */
  feel(tip: Point): 'free' | 'drags' | 'held' | undefined {
    const { piece, paper } = this;
    const under = piece?.top(tip.x - piece.corner.x, tip.y - piece.corner.y);
    if (paper === 0) return undefined;
    const gap = tip.z - SPOILBOARD_TOP - (under ?? 0);
    return gap > paper + FEELS ? 'free' : gap >= paper - FEELS ? 'drags' : 'held';
  }

  /** What the bit meets of what it may only cut while turning and being fed: the whole bit, not its middle. */
  blocked(bit: FittedBit, tip: Point): 'stock' | 'plate' | 'spoilboard' | undefined {
    const { piece } = this;
    const box = this.plateBox();
    if (box && tip.z < box.z1 - SLACK) {
      const r = radiusOf(bit, box.z1 - tip.z) - SLACK;
      const dx = Math.max(box.x0 - tip.x, 0, tip.x - box.x1);
      const dy = Math.max(box.y0 - tip.y, 0, tip.y - box.y1);
      if (Math.hypot(dx, dy) < r) return 'plate';
    }
    const over = tip.z - SPOILBOARD_TOP;
    if (piece && piece.over(bit, tip.x - piece.corner.x, tip.y - piece.corner.y, over) > SLACK) return 'stock';
    if (over < -SLACK && !(piece && piece.near(tip.x, tip.y, bit.diameter / 2))) return 'spoilboard';
    return undefined;
  }
}

/** A hand feels a slip drag within this, mm. */
const FEELS = 0.015;

/** Less than this is a touch no one would feel: the grid of the stock is no finer. */
const SLACK = 0.05;

/** Radius of a bit at a height over its tip. */
function radiusOf(bit: FittedBit, height: number): number {
  if (bit.halfAngle === undefined) return bit.diameter / 2;
  return Math.min(bit.diameter / 2, bit.tipDiameter / 2 + Math.max(0, height) * Math.tan(bit.halfAngle));
}
