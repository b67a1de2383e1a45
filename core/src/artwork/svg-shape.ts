import type { Element } from './svg-elements.ts';

/** A length of a shape by its name, in units of the drawing; undefined where it is not given. */
export type Lengths = (name: string) => number | undefined;

const SHAPES = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);

/** Whether an element is drawn with an outline of its own. */
export function isShape({ name }: Element): boolean {
  return SHAPES.has(name);
}

/**
 * Basic shapes as path data (SVG 2, chapter 10, “equivalent path”); undefined where nothing is drawn.
 *
 * @param d the data of a path.
 */
export function pathData({ name, attributes }: Element, d: string | undefined, length: Lengths): string | undefined {
  const n = (key: string) => length(key) ?? 0;
  switch (name) {
    case 'path':
      return d;
    case 'rect': {
      const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
      if (w <= 0 || h <= 0) return undefined;
      const [rx, ry] = radii(length).map((r, k) => Math.min(r, (k ? h : w) / 2));
      if (rx <= 0 || ry <= 0) return `M${x} ${y}h${w}v${h}h${-w}z`;
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}z`;
    }
    case 'circle':
    case 'ellipse': {
      const [rx, ry] = name === 'circle' ? [n('r'), n('r')] : radii(length);
      if (rx <= 0 || ry <= 0) return undefined;
      return `M${n('cx') + rx} ${n('cy')}a${rx} ${ry} 0 0 1 ${-2 * rx} 0a${rx} ${ry} 0 0 1 ${2 * rx} 0z`;
    }
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const points = (attributes.points ?? '').trim();
      return points ? `M${points}${name === 'polygon' ? 'z' : ''}` : undefined;
    }
    default:
      return undefined;
  }
}

/** Radii of a rounded corner or an ellipse: one that is not given, or negative, is as the other. */
function radii(length: Lengths): [number, number] {
  const [x, y] = [length('rx'), length('ry')].map((r) => (r !== undefined && r >= 0 ? r : undefined));
  return [x ?? y ?? 0, y ?? x ?? 0];
}
