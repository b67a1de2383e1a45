import { STEEPEST_RAMP } from '../cuts/fields/depths.ts';

/** More than any job holds. */
const MOST_CUTS = 1000;

type Loose = Record<string, unknown>;
const isLoose = (value: unknown): value is Loose => typeof value === 'object' && value !== null;

/**
 * A job document as older versions wrote it, as it is written now; anything else comes back as it is.
 * @example upgraded({ cuts: [{ start: null }] }) // { cuts: [{ start: [] }] }
 */
export function upgraded(document: unknown): unknown {
  // A longer list is refused as it is.
  if (!isLoose(document) || !Array.isArray(document.cuts) || document.cuts.length > MOST_CUTS) return document;
  const before2 = document.version === 1;
  const before3 = before2 || document.version === 2;
  const cuts = document.cuts.map((cut: unknown) => (isLoose(cut) ? upgradedCut(cut, before2) : cut));
  return before3 ? { ...document, version: 3, cuts, stock: withAskedHeights(document.stock) } : { ...document, cuts };
}

/** Height that every new clamp had before version 3: where nobody has changed it, nobody knows the clamp’s own. */
const HEIGHT_BEFORE_3 = 4;

function withAskedHeights(stock: unknown): unknown {
  if (!isLoose(stock) || !Array.isArray(stock.keepOuts)) return stock;
  const keepOuts = stock.keepOuts.map((one: unknown) =>
    isLoose(one) && one.kind === 'clamp' && one.height === HEIGHT_BEFORE_3 ? { ...one, height: null } : one,
  );
  return { ...stock, keepOuts };
}

function withMarks(target: unknown): unknown {
  if (!isLoose(target) || !Array.isArray(target.shapes)) return target;
  const shapes = target.shapes.map((n: unknown) =>
    Number.isInteger(n) && (n as number) >= 0 ? `nth:${String(n)}` : n,
  );
  return { ...target, shapes };
}

function upgradedCut(cut: Loose, byNumber: boolean): Loose {
  const out = { ...cut };
  // Version 1 knew the shapes that a cut works on by their numbers.
  if (byNumber && Array.isArray(out.targets)) out.targets = out.targets.map(withMarks);
  // There was one start for all loops of a cut, or null.
  if (out.start === null) out.start = [];
  else if (isLoose(out.start) && !Array.isArray(out.start)) out.start = [out.start];
  // Steeper ramps could be typed, and were refused when they were cut.
  if (typeof out.ramp === 'number' && out.ramp <= 45) out.ramp = Math.min(out.ramp, STEEPEST_RAMP);
  if (isLoose(out.entry) && typeof out.entry.angle === 'number' && out.entry.angle <= 45)
    out.entry = { ...out.entry, angle: Math.min(out.entry.angle, STEEPEST_RAMP) };
  return out;
}
