import { MM_PER_INCH } from '../quantity/units.ts';
import { type Affine, IDENTITY, scale, shift, compose, turn } from '../geometry/affine.ts';
import type { FillRule } from '../geometry/clipper.ts';
import { boundsOf, type Outline } from '../geometry/outline.ts';
import { ArtworkError } from './artwork-error.ts';
import { checkSize, FURTHEST } from './artwork-size.ts';
import { flattenPath, PointCount } from './flatten-path.ts';
import { type Element, readDrawing, tooDeep } from './svg-elements.ts';

/** Outlines that belong together, such as a letter with its counters: one element of a drawing, or one letter. */
export interface Shape {
  name: string;
  rule: FillRule;
  outlines: Outline[];
}

export interface Drawing {
  /** Size of the page, mm. */
  width: number;
  height: number;
  /** Shapes in mm, y up, with the page's lower left corner at 0, 0. */
  shapes: Shape[];
  /** Sentences about what was left out, for the person who imported it. */
  notes: string[];
}

/** More bytes than this is a picture in disguise, and would stall every later stop. */
export const LARGEST_DRAWING = 8_000_000;

/** Longer than this a length or a transform is not one. */
const LONGEST_LENGTH = 64;
const LONGEST_TRANSFORM = 4000;

/** The reference pixel of CSS is 1/96 in (CSS Values and Units 3, §6.2). */
const MM_PER_UNIT: Record<string, number> = {
  '': MM_PER_INCH / 96,
  px: MM_PER_INCH / 96,
  pt: MM_PER_INCH / 72,
  pc: MM_PER_INCH / 6,
  in: MM_PER_INCH,
  cm: 10,
  mm: 1,
};

const SKIPPED = new Set([
  'defs',
  'symbol',
  'clippath',
  'mask',
  'pattern',
  'marker',
  'metadata',
  'title',
  'desc',
  'style',
]);

/**
 * Reads an SVG drawing into flattened outlines.
 *
 * @param bytes the file, UTF-8.
 * @throws {ArtworkError} with one sentence when the file is not SVG, too large, holds scripts or entities, or nothing
 *   that can be carved.
 * @example importSvg(utf8('<svg width="10mm" height="5mm" viewBox="0 0 10 5"><rect width="10" height="5"/></svg>'))
 *   // { width: 10, height: 5, shapes: [{ name: 'rect 1', … }], notes: [] }
 */
export function importSvg(bytes: Uint8Array): Drawing {
  if (bytes.length > LARGEST_DRAWING)
    throw new ArtworkError(
      `The drawing is ${(bytes.length / 1e6).toFixed(1)} MB, and the most is ${LARGEST_DRAWING / 1e6} MB; simplify its paths or save it without pictures, and import it again.`,
    );
  return drawingOf(readDrawing(bytes));
}

/** The outlines of a drawing that has been parsed; see `importSvg`. */
export function drawingOf(root: Element): Drawing {
  const reader = new ShapeReader();
  const page = pageOf(root);
  reader.visit(root.children, page.map, { rule: 'nonzero', hidden: false }, 0);
  const { shapes, texts, images } = reader;
  const notes: string[] = [];
  if (texts > 0) {
    const advice = 'open it where it was drawn, turn the text into outlines, and save it again';
    if (shapes.length === 0)
      throw new ArtworkError(
        `The drawing holds only text that is not outlines yet; ${advice}, or type it here as lettering.`,
      );
    notes.push(
      `${texts === 1 ? 'One piece of text was' : `${texts} pieces of text were`} left out; to keep it, ${advice}.`,
    );
  }
  if (images > 0) notes.push('Pictures inside the drawing were left out; only outlines can be carved.');
  if (shapes.length === 0)
    throw new ArtworkError(
      'The drawing holds no outlines; save it with at least one path or shape and import it again.',
    );
  const bounds = boundsOf(shapes.flatMap((shape) => shape.outlines))!;
  checkSize(bounds, 'The drawing', 'check its page size and unit where it was drawn, and import it again');
  if (Math.max(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY) < 0.01)
    throw new ArtworkError(
      'The drawing has no size (all its outlines are points); draw it larger and import it again.',
    );
  return { width: page.width, height: page.height, shapes, notes };
}

function pageOf(root: Element): { width: number; height: number; map: Affine } {
  const view = (root.attributes.viewbox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const hasView = view.length === 4 && view.every(Number.isFinite) && view[2] > 0 && view[3] > 0;
  const width = lengthInMm(root.attributes.width) ?? (hasView ? view[2] * MM_PER_UNIT.px : 100);
  const height = lengthInMm(root.attributes.height) ?? (hasView ? (width * view[3]) / view[2] : 100);
  if (!(width > 0) || !(height > 0))
    throw new ArtworkError('The drawing’s page has no size; give its width and height and import it again.');
  if (width > FURTHEST || height > FURTHEST)
    throw new ArtworkError(
      `The drawing’s page is larger than ${FURTHEST / 1000} m; check its size and unit where it was drawn, and import it again.`,
    );
  const flip: Affine = [1, 0, 0, -1, 0, height];
  if (!hasView) return { width, height, map: compose(scale(MM_PER_UNIT.px), flip) };
  let sx = width / view[2];
  let sy = height / view[3];
  let [dx, dy] = [0, 0];
  const aspect = root.attributes.preserveaspectratio ?? 'xMidYMid meet';
  if (!aspect.startsWith('none')) {
    const s = aspect.endsWith('slice') ? Math.max(sx, sy) : Math.min(sx, sy);
    const place = (free: number, at: string) => (at === 'Min' ? 0 : at === 'Max' ? free : free / 2);
    dx = place(width - view[2] * s, aspect.slice(1, 4));
    dy = place(height - view[3] * s, aspect.slice(5, 8));
    sx = sy = s;
  }
  return { width, height, map: compose([sx, 0, 0, sy, dx - view[0] * sx, dy - view[1] * sy], flip) };
}

function lengthInMm(text: string | undefined): number | undefined {
  if (text && text.length > LONGEST_LENGTH) return undefined;
  const match = /^\s*([+]?\d*\.?\d+(?:e[-+]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  const unit = match && MM_PER_UNIT[match[2].toLowerCase()];
  return match && unit ? Number(match[1]) * unit : undefined;
}

interface Inherited {
  rule: FillRule;
  hidden: boolean;
}

class ShapeReader {
  readonly shapes: Shape[] = [];
  texts = 0;
  images = 0;
  private readonly points = new PointCount();
  private readonly counts: Record<string, number> = {};

  visit(elements: readonly Element[], map: Affine, inherited: Inherited, depth: number): void {
    if (depth > 64) throw tooDeep();
    for (const element of elements) {
      const style = styleOf(element);
      if (style.display === 'none' || SKIPPED.has(element.name)) continue;
      const own: Inherited = {
        rule:
          style['fill-rule'] === 'evenodd' ? 'evenodd' : style['fill-rule'] === 'nonzero' ? 'nonzero' : inherited.rule,
        hidden: style.visibility ? style.visibility === 'hidden' : inherited.hidden,
      };
      const local = element.attributes.transform ? compose(transformOf(element.attributes.transform), map) : map;
      if (element.name === 'use') {
        const { x = '0', y = '0' } = element.attributes;
        if (element.target)
          this.visit(
            element.target.name === 'symbol' ? element.target.children : [element.target],
            compose(shift(Number(x) || 0, Number(y) || 0), local),
            own,
            depth + 1,
          );
        continue;
      }
      if (element.name === 'text') this.texts++;
      else if (element.name === 'image') this.images++;
      else if (['g', 'svg', 'a', 'switch'].includes(element.name)) this.visit(element.children, local, own, depth + 1);
      else if (!own.hidden) this.add(element, local, own.rule);
    }
  }

  private add(element: Element, map: Affine, rule: FillRule): void {
    const d = pathData(element);
    if (!d) return;
    const outlines = flattenPath(d, map, { count: this.points });
    if (outlines.length === 0) return;
    const count = (this.counts[element.name] = (this.counts[element.name] ?? 0) + 1);
    this.shapes.push({ name: element.attributes.id?.slice(0, 120) ?? `${element.name} ${count}`, rule, outlines });
  }
}

function styleOf(element: Element): Record<string, string | undefined> {
  const style: Record<string, string | undefined> = { ...element.attributes };
  for (const rule of (element.attributes.style ?? '').split(';')) {
    const at = rule.indexOf(':');
    if (at > 0) style[rule.slice(0, at).trim().toLowerCase()] = rule.slice(at + 1).trim();
  }
  return style;
}

function transformOf(text: string): Affine {
  let map = IDENTITY;
  if (text.length > LONGEST_TRANSFORM)
    throw new ArtworkError('The drawing has a transform that is far too long; save it again as plain SVG.');
  for (const [, name, list] of text.matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const v = list
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    if (v.some((n) => !Number.isFinite(n)))
      throw new ArtworkError(
        `The drawing has a transform that cannot be read (“${name}(${list})”); save it again as plain SVG.`,
      );
    const degrees = ((v[0] ?? 0) * Math.PI) / 180;
    let step: Affine = IDENTITY;
    if (name === 'matrix' && v.length === 6) step = v as unknown as Affine;
    else if (name === 'translate') step = shift(v[0], v[1] ?? 0);
    else if (name === 'scale') step = scale(v[0], v[1] ?? v[0]);
    else if (name === 'rotate')
      step = compose(compose(shift(-(v[1] ?? 0), -(v[2] ?? 0)), turn(degrees)), shift(v[1] ?? 0, v[2] ?? 0));
    else if (name === 'skewX') step = [1, 0, Math.tan(degrees), 1, 0, 0];
    else if (name === 'skewY') step = [1, Math.tan(degrees), 0, 1, 0, 0];
    map = compose(step, map);
  }
  return map;
}

/** Basic shapes as path data (W3C SVG 2, chapter 10, “equivalent path”). */
function pathData(element: Element): string | undefined {
  const a = element.attributes;
  const n = (name: string) => {
    const mm = lengthInMm(a[name]);
    if (mm !== undefined) return mm / MM_PER_UNIT.px;
    const value = Number(a[name] ?? 0);
    return Number.isFinite(value) ? value : 0;
  };
  switch (element.name) {
    case 'path':
      return a.d;
    case 'rect': {
      const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
      if (w <= 0 || h <= 0) return undefined;
      let rx = a.rx === undefined || a.rx === 'auto' ? n('ry') : n('rx');
      let ry = a.ry === undefined || a.ry === 'auto' ? rx : n('ry');
      rx = Math.min(rx, w / 2);
      ry = Math.min(ry, h / 2);
      if (rx <= 0 || ry <= 0) return `M${x} ${y}h${w}v${h}h${-w}z`;
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}z`;
    }
    case 'circle':
    case 'ellipse': {
      const rx = element.name === 'circle' ? n('r') : n('rx');
      const ry = element.name === 'circle' ? n('r') : n('ry');
      if (rx <= 0 || ry <= 0) return undefined;
      return `M${n('cx') + rx} ${n('cy')}a${rx} ${ry} 0 0 1 ${-2 * rx} 0a${rx} ${ry} 0 0 1 ${2 * rx} 0z`;
    }
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const v = (a.points ?? '').trim();
      return v ? `M${v}${element.name === 'polygon' ? 'z' : ''}` : undefined;
    }
    default:
      return undefined;
  }
}
