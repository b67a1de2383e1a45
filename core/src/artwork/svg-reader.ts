import { colourOf } from './colour-of.ts';
import { type Affine, applyTo, compose, inverse, shift } from '../geometry/affine.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { type Bounds, boundsOf, type Outline } from '../geometry/outline.ts';
import { flattenPath, PointCount } from './flatten-path.ts';
import { LeftOut } from './left-out.ts';
import type { Read } from './marks.ts';
import { Clipping, type Window } from './svg-clip.ts';
import { DEEPEST, type Element, inCircle, type Parsed, referred, tooDeep } from './svg-elements.ts';
import { lengthIn } from './svg-length.ts';
import { StyleRules } from './svg-rules.ts';
import { isShape, pathData } from './svg-shape.ts';
import { nameOf, shapesIn, SILENT, suits } from './svg-shown.ts';
import { type Inherited, INITIAL, paints, Style } from './svg-style.ts';
import { transformOf } from './svg-transform.ts';
import { type Page, type Size, viewMap, viewOf } from './svg-viewport.ts';

/** Where and how an element is drawn. */
interface Place {
  /** From its parent's units to mm. */
  map: Affine;
  inherited: Inherited;
  /** What percentages are of. */
  size: Size;
  layer?: string;
  /** The name of what it is an instance of, for shapes that have none. */
  called?: string;
  /** What the innermost `use` refers to. */
  root?: Element;
  depth: number;
  /** What the `use` element that leads here says. */
  used?: { name?: string; width?: number; height?: number };
}

// prettier-ignore

const TEXTS = new Set(['text', 'flowroot']);
const GROUPS = new Set(['g', 'a', 'svg', 'switch', 'symbol']);

/** A stroke at least this wide, mm, is seen on a sign, and is missed where only its middle is carved. */
const WIDE = 0.5;

/** Names of layers that a drawing program made up. */
const MADE_UP = /^g\d+$/i;

/** Reads the shapes of a parsed drawing. */
export class SvgReader {
  private readonly shapes: Read[] = [];
  /** Of each shape, whether its area is drawn. */
  private readonly filled: boolean[] = [];
  /** The outlines of all shapes that have a place, whether they show or not: what boxes are around. */
  private readonly placed: Outline[] = [];
  private readonly left = new LeftOut();
  private readonly points = new PointCount();
  private readonly counts: Record<string, number> = {};
  private readonly rules: StyleRules;
  private readonly clipping: Clipping;
  private readonly windows = new Map<Element, Map<string, Window | undefined>>();

  constructor(
    private readonly parsed: Parsed,
    private readonly page: Page,
    clipper: Clipper,
  ) {
    this.rules = new StyleRules(parsed.sheets);
    this.clipping = new Clipping(clipper);
  }

  /** @throws {ArtworkError} */
  read(): { shapes: Read[]; left: LeftOut } {
    const { map, size } = this.page;
    const { root } = this.parsed;
    const style = new Style(root, this.rules);
    const inherited = style.inherited(INITIAL, { whole: size.width, fontSize: INITIAL.fontSize });
    // A page itself is shown whatever its `display` is, as browsers have it.
    if (!style.seeThrough) {
      this.children(root, { map, inherited, size, depth: 0 });
      this.afterwards(root, style, map, { shape: 0, placed: 0 }, 0);
    } else this.left.add('hidden', nameOf(root), shapesIn(root));
    this.left.add('rule', '', this.rules.unread);
    return { shapes: this.shapes, left: this.left };
  }

  private children(element: Element, place: Place): void {
    if (place.depth > DEEPEST) throw tooDeep();
    for (const child of element.children) this.visit(child, place);
  }

  private visit(element: Element, place: Place): void {
    const { name } = element;
    if (SILENT.has(name) && !(name === 'symbol' && place.used)) return;
    const style = new Style(element, this.rules, place.root);
    if (!style.shown || style.seeThrough) {
      this.left.add('hidden', nameOf(element), shapesIn(element));
      return;
    }
    const inherited = style.inherited(place.inherited, {
      whole: place.size.width,
      fontSize: place.inherited.fontSize,
    });
    const local = compose(this.transform(style, place, inherited), place.map);
    const from = { shape: this.shapes.length, placed: this.placed.length };
    const here: Place = { ...place, map: local, inherited, depth: place.depth + 1, used: undefined };
    if (name === 'use') here.map = this.moved(element, style, here);
    let { map } = here;
    if (name === 'use') this.use(element, style, here);
    else if (GROUPS.has(name)) map = this.group(element, style, here, place.used);
    else if (isShape(element)) this.shape(element, style, here, place.used?.name);
    else if (inherited.visible) this.other(element);
    this.afterwards(element, style, map, from, place.depth);
  }

  private transform(style: Style, { size }: Place, { fontSize }: Inherited): Affine {
    const text = style.value('transform');
    if (!text) return [1, 0, 0, 1, 0, 0];
    const map = transformOf(text, fontSize);
    const origin = style.value('transform-origin')?.split(/[\s,]+/);
    if (!origin) return map;
    const words: Record<string, string> = { left: '0%', top: '0%', center: '50%', right: '100%', bottom: '100%' };
    // Words may stand in either order.
    if (/^(top|bottom)$/i.test(origin[0]) || /^(left|right)$/i.test(origin[1] ?? '')) origin.reverse();
    const [x, y] = [size.width, size.height].map((whole, k) => {
      const at = origin[k] ?? '50%';
      return lengthIn(words[at.toLowerCase()] ?? at, { whole, fontSize });
    });
    return compose(compose(shift(-x, -y), map), shift(x, y));
  }

  /** A length that an element has by an attribute or a style; undefined where it is not given. */
  private lengths(element: Element, style: Style, { size, inherited: { fontSize } }: Place) {
    return (name: string): number | undefined => {
      const text = /^[xy][12]$/.test(name) ? element.attributes[name] : style.value(name);
      if (!text || /^auto$/i.test(text)) return undefined;
      const whole = /^(x|cx|rx|width|x1|x2)$/.test(name)
        ? size.width
        : name === 'r'
          ? Math.hypot(size.width, size.height) / Math.SQRT2
          : size.height;
      return lengthIn(text, { whole, fontSize });
    };
  }

  /** Moved by an element's own x and y, which for a `use` also moves what it is clipped to (SVG 2, §5.6). */
  private moved(element: Element, style: Style, place: Place): Affine {
    const length = this.lengths(element, style, place);
    return compose(shift(length('x') ?? 0, length('y') ?? 0), place.map);
  }

  private use(element: Element, style: Style, place: Place): void {
    const { target } = element;
    if (!target) {
      this.left.add('reference', element.attributes.href?.slice(0, 60) || nameOf(element));
      return;
    }
    if (place.depth > DEEPEST) throw tooDeep();
    const length = this.lengths(element, style, place);
    const used = {
      name: element.label ?? element.attributes.id,
      width: length('width'),
      height: length('height'),
    };
    const called = used.name ?? target.label ?? target.attributes.id ?? place.called;
    this.visit(target, { ...place, root: target, called, used });
  }

  /** Draws what lies in an element, and returns the units that it lies in. */
  private group(element: Element, style: Style, place: Place, used: Place['used']): Affine {
    const { name, attributes } = element;
    if (name === 'switch') {
      const chosen = element.children.find(suits);
      if (chosen) this.visit(chosen, place);
      return place.map;
    }
    if (name !== 'svg' && name !== 'symbol') {
      const id = element.parent === this.parsed.root && !MADE_UP.test(attributes.id ?? '') ? attributes.id : undefined;
      const layer = name === 'g' ? (element.label ?? id ?? place.layer) : place.layer;
      // What has no name of its own is called after the group that it stands in; a layer is no such group.
      const own = element.label ?? (MADE_UP.test(attributes.id ?? '') ? undefined : attributes.id);
      const called = (name === 'g' && element.parent !== this.parsed.root ? own : undefined) ?? place.called;
      this.children(element, { ...place, layer, called });
      return place.map;
    }
    const length = this.lengths(element, style, place);
    const width = used?.width ?? length('width') ?? place.size.width;
    const height = used?.height ?? length('height') ?? place.size.height;
    if (!(width > 0 && height > 0)) {
      this.left.add('hidden', nameOf(element), shapesIn(element));
      return place.map;
    }
    const map = this.moved(element, style, place);
    const view = viewOf(attributes.viewbox);
    const from = this.shapes.length;
    const inner = compose(viewMap(view, attributes.preserveaspectratio, { width, height }), map);
    this.children(element, { ...place, map: inner, size: view ?? { width, height } });
    if (!style.overflows)
      this.show(from, this.clipping.all([{ loops: [boxIn(map, 0, 0, width, height)], rule: 'nonzero' }]));
    return inner;
  }

  private shape(element: Element, style: Style, place: Place, usedName: string | undefined): void {
    const { inherited, map, layer, called } = place;
    const d = pathData(element, dataOf(style), this.lengths(element, style, place));
    const outlines = d ? flattenPath(d, map, { count: this.points }) : [];
    if (outlines.length === 0) return;
    for (const outline of outlines) this.placed.push(outline);
    const count = (this.counts[element.name] ?? 0) + 1;
    const own = usedName ?? element.label ?? element.attributes.id;
    const name = (own ?? called ?? `${element.name} ${count}`).slice(0, 120);
    const stroked = paints(inherited.stroke);
    // A straight line has no area that could be filled.
    const filled = paints(inherited.fill) && element.name !== 'line';
    if (!inherited.visible) return this.left.add('hidden', name);
    if (!filled && !stroked) return this.left.add('unpainted', name);
    this.counts[element.name] = count;
    if (stroked) {
      const width = lengthIn(inherited.strokeWidth, {
        whole: Math.hypot(place.size.width, place.size.height) / Math.SQRT2,
        fontSize: inherited.fontSize,
      });
      if (width * Math.sqrt(Math.abs(map[0] * map[3] - map[1] * map[2])) >= WIDE) this.left.add('width', name);
      if (inherited.markers.includes(true)) this.left.add('marker', name);
    }
    if (filled && this.referred(inherited.fill)?.name === 'pattern') this.left.add('pattern', name);
    const shape: Read = { name, rule: inherited.fillRule, outlines };
    if (layer !== undefined) shape.layer = layer;
    shape.colour = colourOf(filled ? inherited.fill : inherited.stroke);
    if (element.attributes.id) shape.element = element.attributes.id;
    this.shapes.push(shape);
    this.filled.push(filled);
  }

  private other(element: Element): void {
    if (TEXTS.has(element.name)) {
      const said = element.text.replace(/\s+/g, ' ').trim();
      if (said) this.left.add('text', said.length > 30 ? `${said.slice(0, 29)}…` : said);
    } else if (element.name === 'image') this.left.add('picture', nameOf(element));
    else this.left.add('unknown', nameOf(element));
  }

  /** What an element's own clip path, mask and filter do to the shapes that came of it. */
  private afterwards(
    element: Element,
    style: Style,
    map: Affine,
    from: { shape: number; placed: number },
    depth: number,
  ): void {
    if (this.shapes.length === from.shape) return;
    if (style.refers('mask')) this.left.add('masked', nameOf(element));
    if (style.refers('filter')) this.left.add('filtered', nameOf(element));
    const window = this.windowOf(style, map, () => this.boxOf(from.placed, map), depth, new Set());
    if (window) this.show(from.shape, window);
    else if (window === undefined) this.left.add('unclipped', nameOf(element));
  }

  /**
   * What an element is shown through by its style: null where nothing is clipped, undefined where the clip path cannot
   * be followed.
   */
  private windowOf(
    style: Style,
    map: Affine,
    box: () => Bounds | undefined,
    depth: number,
    above: ReadonlySet<Element>,
  ): Window | null | undefined {
    if (!style.refers('clip-path')) return null;
    const value = style.value('clip-path')!;
    const clip = this.referred(value);
    if (clip?.name === 'clippath') return this.window(clip, map, box, depth, above);
    // A reference to nothing clips nothing (CSS Masking 1, §5.1).
    if (!/^url\(\s*['"]?#/i.test(value)) return undefined;
    this.left.add('reference', value.slice(0, 60));
    return null;
  }

  private referred(value: string): Element | undefined {
    const href = /^url\(\s*(['"]?)(#[^'")]+)\1\s*\)/i.exec(value)?.[2];
    return referred(href, this.parsed.byId);
  }

  /** The box around what came of an element, in its own units. */
  private boxOf(from: number, map: Affine): Bounds | undefined {
    const back = inverse(map);
    if (!back) return undefined;
    return boundsOf(this.placed.slice(from).map(({ points }) => ({ points: applyTo(back, points) })));
  }

  /** Shows the shapes from one on through a window only. */
  private show(from: number, window: Window): void {
    let kept = from;
    for (let k = from; k < this.shapes.length; k++) {
      const shape = this.shapes[k];
      const shown = this.clipping.shown(shape, this.filled[k], window);
      if (!shown) this.left.add('beyond', shape.name);
      else if (shown !== shape) this.left.add('clipped', shape.name);
      if (!shown) continue;
      this.shapes[kept] = shown;
      this.filled[kept++] = this.filled[k];
    }
    this.shapes.length = this.filled.length = kept;
  }

  /** What a clip path shows, mm; undefined where it cannot be followed. */
  private window(
    clip: Element,
    map: Affine,
    box: () => Bounds | undefined,
    depth: number,
    above: ReadonlySet<Element>,
  ): Window | undefined {
    if (above.has(clip)) throw inCircle();
    if (depth > DEEPEST) throw tooDeep();
    const b = clip.attributes.clippathunits === 'objectBoundingBox' ? box() : undefined;
    const key = [...map, ...(b ? Object.values(b) : [])].join(' ');
    const known = this.windows.get(clip) ?? new Map<string, Window | undefined>();
    this.windows.set(clip, known);
    if (!known.has(key)) known.set(key, this.openWindow(clip, map, b, box, depth, new Set([...above, clip])));
    return known.get(key);
  }

  private openWindow(
    clip: Element,
    map: Affine,
    b: Bounds | undefined,
    box: () => Bounds | undefined,
    depth: number,
    above: ReadonlySet<Element>,
  ): Window | undefined {
    const style = new Style(clip, this.rules);
    const { size } = this.page;
    const inherited = this.inheritedBy(clip);
    const place: Place = { map, inherited, size, depth: depth + 1 };
    place.map = compose(this.transform(style, place, inherited), map);
    if (clip.attributes.clippathunits === 'objectBoundingBox') {
      if (!b) return this.clipping.window([]);
      place.map = compose([b.maxX - b.minX, 0, 0, b.maxY - b.minY, b.minX, b.minY], place.map);
    }
    const parts: Parameters<Clipping['all']>[0][number][] = [];
    let followed = true;
    const take = (element: Element, at: Place): void => {
      if (SILENT.has(element.name)) return;
      const own = new Style(element, this.rules, at.root);
      if (!own.shown) return;
      const inherited = own.inherited(at.inherited, { whole: at.size.width, fontSize: at.inherited.fontSize });
      const here = { ...at, inherited, map: compose(this.transform(own, at, inherited), at.map) };
      if (element.name === 'use') here.map = this.moved(element, own, here);
      const clipped = this.windowOf(own, here.map, box, at.depth + 1, above);
      if (clipped === undefined) followed = false;
      const from = parts.length;
      if (element.name === 'use') {
        if (element.target) take(element.target, { ...here, root: element.target });
      } else if (isShape(element)) {
        if (!inherited.visible) return;
        const d = pathData(element, dataOf(own), this.lengths(element, own, here));
        const loops = (d ? flattenPath(d, here.map, { count: this.points }) : [])
          // An open outline is filled as if it were closed.
          .flatMap(({ points }) => (points.length >= 6 ? [points] : []));
        parts.push({ loops, rule: inherited.clipRule });
      } else followed = false;
      if (!clipped) return;
      const window = this.clipping.both(this.clipping.all(parts.splice(from)), clipped);
      parts.push({ loops: window.loops, rule: 'nonzero' });
    };
    for (const child of clip.children) take(child, place);
    if (!followed) return undefined;
    const window = this.clipping.all(parts);
    const outer = this.windowOf(style, map, box, depth + 1, above);
    return outer ? this.clipping.both(window, outer) : outer === null ? window : undefined;
  }

  /** What an element takes over where it stands: a clip path looks the same wherever it is referred to from. */
  private inheritedBy(element: Element): Inherited {
    const above = element.parent ? this.inheritedBy(element.parent) : INITIAL;
    const base = { whole: this.page.size.width, fontSize: above.fontSize };
    return new Style(element, this.rules).inherited(above, base);
  }
}

/** The data of a path, which a style may give as well. */
function dataOf(style: Style): string | undefined {
  const d = style.value('d');
  return /^path\(\s*(['"])(.*)\1\s*\)$/s.exec(d ?? '')?.[2] ?? (d === 'none' ? undefined : d);
}

function boxIn(map: Affine, x: number, y: number, width: number, height: number): Float64Array {
  return applyTo(map, Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height));
}
