import { flag } from '../../fields/choice-field.ts';
import { FieldProblem } from '../../fields/field.ts';
import { length, readQuantity } from '../../fields/quantity-field.ts';

/** Deepest that anything is cut, mm. */
const DEEPEST = 200;
const NOTHING = 'so nothing would be cut; give a depth';
const NEEDED = 'Say how deep with --depth, for example --depth 6.';

export const DEPTH = length('depth', { above: 0, max: DEEPEST, needed: NEEDED, none: NOTHING });
/** How deep a V-carving may go. */
export const DEPTH_LIMIT = length('depth limit', { above: 0, max: DEEPEST, option: 'max-depth', none: NOTHING });
/** Where cutting begins, below the top: what was cleared before. */
export const START_DEPTH = length('start depth', { min: 0, max: DEEPEST, initial: 0 });
export const DEPTH_PER_PASS = length('depth per pass', {
  above: 0,
  max: 100,
  none: 'so no pass would cut; give a depth',
});
/** Thickness of a thin last pass; 0 for even passes. */
export const LAST_PASS = length('last pass', { min: 0, max: 20, initial: 0 });
/** Wood left on the walls for a last round. */
export const FINISH = length('finish allowance', { min: 0, max: 10, initial: 0, option: 'finish' });
/** Steeper than this no end mill goes down, degrees; see `ways/entry.ts`. */
export const STEEPEST_RAMP = 30;

/** A slope as an option gives it, degrees; 0 plunges. @throws {FieldProblem} */
export function readSlope(text: string, label: string): number {
  const slope = readQuantity(text, 'angle', { min: 0, max: 90 }, label);
  if (slope > STEEPEST_RAMP)
    throw new FieldProblem(`${label} is steeper than an end mill can cut, ${STEEPEST_RAMP}deg at most; 5deg is usual.`);
  return slope;
}

export const CLIMB = flag(
  'direction of cut #',
  { yes: 'climb', no: 'conventional' },
  { option: { name: 'conventional', means: false } },
);

/** A depth in passes, in a direction. */
export const DEPTHS = { depth: DEPTH, depthPerPass: DEPTH_PER_PASS, lastPass: LAST_PASS };
