export interface ArcCentre {
  cx: number;
  cy: number;
  rx: number;
  ry: number;
  /** Turn of the ellipse's x axis, radians. */
  turn: number;
  /** Parameter where the arc starts, and how far it goes (signed), radians. */
  start: number;
  sweep: number;
}

/**
 * From SVG's endpoint form of an elliptical arc to its centre form, with radii that are too small scaled up.
 * Source: W3C SVG 2, implementation notes B.2.4 (conversion) and B.2.5 (out-of-range radii).
 *
 * @returns undefined where the arc is a straight line (a zero radius, or equal ends).
 * @example arcCentre(1, 0, 1, 1, 0, false, true, 0, 1) // { cx: 0, cy: 0, … sweep: 1.570… }
 */
export function arcCentre(
  x1: number,
  y1: number,
  rx: number,
  ry: number,
  turn: number,
  large: boolean,
  sweepFlag: boolean,
  x2: number,
  y2: number,
): ArcCentre | undefined {
  rx = Math.abs(rx);
  ry = Math.abs(ry);
  if (rx === 0 || ry === 0 || (x1 === x2 && y1 === y2)) return undefined;
  const cos = Math.cos(turn);
  const sin = Math.sin(turn);
  const dx = (x1 - x2) / 2;
  const dy = (y1 - y2) / 2;
  const px = cos * dx + sin * dy;
  const py = -sin * dx + cos * dy;
  const lambda = (px * px) / (rx * rx) + (py * py) / (ry * ry);
  if (lambda > 1) {
    rx *= Math.sqrt(lambda);
    ry *= Math.sqrt(lambda);
  }
  const top = rx * rx * ry * ry - rx * rx * py * py - ry * ry * px * px;
  const factor = (large === sweepFlag ? -1 : 1) * Math.sqrt(Math.max(0, top / (rx * rx * py * py + ry * ry * px * px)));
  const qx = (factor * rx * py) / ry;
  const qy = (-factor * ry * px) / rx;
  const start = Math.atan2((py - qy) / ry, (px - qx) / rx);
  const end = Math.atan2((-py - qy) / ry, (-px - qx) / rx);
  let sweep = end - start;
  if (sweepFlag && sweep < 0) sweep += 2 * Math.PI;
  if (!sweepFlag && sweep > 0) sweep -= 2 * Math.PI;
  return {
    cx: cos * qx - sin * qy + (x1 + x2) / 2,
    cy: sin * qx + cos * qy + (y1 + y2) / 2,
    rx,
    ry,
    turn,
    start,
    sweep,
  };
}

/**
 * Appends an arc in centre form (without its first point) as chords within `tolerance`.
 * @param spend told how many points will be made before they are; may throw.
 */
export function flattenArc(
  out: number[],
  arc: ArcCentre,
  tolerance: number,
  spend: (points: number) => void = () => {},
): void {
  const { cx, cy, rx, ry, turn, start, sweep } = arc;
  // Sagitta of a chord over the angle s on the larger radius R: R(1 − cos(s/2)).
  const bow = Math.min(0.5, tolerance / Math.max(rx, ry));
  // Of a huge radius the cosine cannot be told from 1; there cos x = 1 − x²/2.
  const step = 2 * (bow < 1e-8 ? Math.sqrt(2 * bow) : Math.acos(1 - bow));
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / step));
  spend(n);
  for (let i = 1; i <= n; i++) {
    const t = start + (sweep * i) / n;
    const x = rx * Math.cos(t);
    const y = ry * Math.sin(t);
    out.push(cx + Math.cos(turn) * x - Math.sin(turn) * y, cy + Math.sin(turn) * x + Math.cos(turn) * y);
  }
}
