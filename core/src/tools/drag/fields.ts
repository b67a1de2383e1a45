import { angle, feed, force, length } from '../../fields/quantity-field.ts';
import { optional } from '../../fields/optional-field.ts';
import { radians } from '../../quantity/units.ts';
import type { BasePreset, BaseTool } from '../../document/tool.ts';

/** Furthest that any spring gives, mm. */
export const FURTHEST = 20;
/** Widest line that a point draws, mm. */
const WIDEST = 5;

export const FIELDS = {
  angle: angle('point angle', { min: 30, max: 150, initial: 90 }),
  /** How wide a line it draws: a property of the point. */
  width: length('line width', { above: 0, max: WIDEST }),
  /** How far the spring gives before it is pressed flat. */
  travel: length('spring travel', { above: 0, max: FURTHEST, initial: 5 }),
  /** What the spring presses with when it begins to give. */
  force: force('spring force', { min: 0, max: 200, initial: 5 }),
  /** How far the point stands out of a nose that rides on the work; null where it has none. */
  standOut: optional(length('stand-out', { above: 0, max: WIDEST })),
};

/** What a point is set to in a material. */
export const PRESET = {
  feed: feed('feed', { above: 0, max: 50_000 }),
  pressed: length('pressed', { above: 0, max: FURTHEST }),
};

/** Height of the point itself, mm: more than that cannot stand out of a nose. */
export const pointHeight = ({ angle, diameter }: Pick<DragPoint, 'angle' | 'diameter'>): number =>
  diameter / 2 / Math.tan(radians(angle) / 2);

/** A pointed diamond held by a spring, which is drawn over the work and does not turn. */
export interface DragPoint extends BaseTool {
  angle: number;
  width: number;
  travel: number;
  force: number;
  standOut: number | null;
  presets: (BasePreset & { feed: number; pressed: number })[];
}
