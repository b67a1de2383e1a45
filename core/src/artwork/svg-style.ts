import type { FillRule } from '../geometry/clipper.ts';
import type { Element } from './svg-elements.ts';
import { lengthIn, type LengthBase } from './svg-length.ts';
import { type Declarations, declarationsIn, StyleRules } from './svg-rules.ts';

/** What children take over from what they lie in. */
export interface Inherited {
  fillRule: FillRule;
  clipRule: FillRule;
  visible: boolean;
  fill: string;
  stroke: string;
  strokeWidth: string;
  /** Whether its lines have a marker at their beginning, along them and at their end. */
  markers: readonly boolean[];
  fontSize: number;
}

export const INITIAL: Inherited = {
  fillRule: 'nonzero',
  clipRule: 'nonzero',
  visible: true,
  fill: 'black',
  stroke: 'none',
  strokeWidth: '1',
  markers: [false, false, false],
  fontSize: 16,
};

/** Attributes that say what a property of CSS says (SVG 2, §6.6 and the geometry properties of chapter 7). */
const PRESENTATION = new Set([
  'clip-path', 'clip-rule', 'display', 'fill', 'fill-opacity', 'fill-rule', 'filter', 'font-size', 'marker-end', 'marker-mid', 'marker-start',
  'mask', 'opacity', 'overflow', 'stroke', 'stroke-opacity', 'stroke-width', 'transform-origin', 'visibility',
  'cx', 'cy', 'r', 'rx', 'ry', 'x', 'y', 'width', 'height', 'd', 'transform',
]); // prettier-ignore

/** An element's look by the cascade: its attributes, then the rules of sheets, then its own style, then what is important. */
export class Style {
  private readonly values = new Map<string, string>();

  constructor(element: Element, rules: StyleRules, root?: Element) {
    for (const [name, value] of Object.entries(element.attributes))
      if (value !== undefined && PRESENTATION.has(name)) this.values.set(name, value.trim());
    const own = element.attributes.style ? declarationsIn(element.attributes.style) : undefined;
    const met = rules.of(element, root);
    if (own) met.push(own);
    for (const important of [false, true]) for (const said of met) this.say(said, important);
  }

  /** The value of a property as it is written; undefined where nothing is said, and so for `initial`. */
  value(property: string): string | undefined {
    const value = this.values.get(property);
    return value === undefined || /^(initial|unset|revert(-layer)?)$/i.test(value) ? undefined : value;
  }

  /** A keyword in lower case, or undefined where it is not one of these. */
  private keyword(property: string): string | undefined {
    return this.value(property)?.toLowerCase();
  }

  get shown(): boolean {
    return this.keyword('display') !== 'none';
  }

  /** What of it lies outside of its own window is shown too. */
  get overflows(): boolean {
    return ['visible', 'auto'].includes(this.keyword('overflow') ?? '');
  }

  /** Whether the property names something elsewhere, such as `url(#cut)`. */
  refers(property: string): boolean {
    const value = this.keyword(property);
    return value !== undefined && value !== 'none' && value !== '';
  }

  get seeThrough(): boolean {
    return isZero(this.value('opacity'));
  }

  inherited(above: Inherited, base: LengthBase): Inherited {
    const heir = <T>(property: string, before: T, initial: T, read: (value: string) => T | undefined): T => {
      const raw = this.values.get(property);
      if (raw === undefined || /^(inherit|unset|revert(-layer)?)$/i.test(raw)) return before;
      if (/^initial$/i.test(raw)) return initial;
      return read(raw) ?? before;
    };
    const rule = (value: string): FillRule | undefined =>
      /^evenodd$/i.test(value) ? 'evenodd' : /^nonzero$/i.test(value) ? 'nonzero' : undefined;
    const text = (value: string) => value || undefined;
    const paint = (which: 'fill' | 'stroke', before: string, initial: string) =>
      isZero(this.value(`${which}-opacity`)) ? 'none' : heir(which, before, initial, text);
    return {
      fillRule: heir('fill-rule', above.fillRule, 'nonzero', rule),
      clipRule: heir('clip-rule', above.clipRule, 'nonzero', rule),
      visible: heir('visibility', above.visible, true, (value) =>
        /^visible$/i.test(value) ? true : /^(hidden|collapse)$/i.test(value) ? false : undefined,
      ),
      fill: paint('fill', above.fill, INITIAL.fill),
      stroke: paint('stroke', above.stroke, INITIAL.stroke),
      strokeWidth: heir('stroke-width', above.strokeWidth, INITIAL.strokeWidth, text),
      markers: ['marker-start', 'marker-mid', 'marker-end'].map((name, k) => {
        const all = heir('marker', above.markers[k], false, isReference);
        return heir(name, all, false, isReference);
      }),
      fontSize: heir('font-size', above.fontSize, INITIAL.fontSize, (value) =>
        /^[\d.+-]/.test(value)
          ? lengthIn(value, { ...base, fontSize: above.fontSize, whole: above.fontSize })
          : undefined,
      ),
    };
  }

  private say(said: Declarations, important: boolean): void {
    for (const [property, rest] of said) if (rest.important === important) this.values.set(property, rest.value);
  }
}

/** Whether anything is drawn with this paint. */
export function paints(paint: string): boolean {
  return !/^(none|transparent)$/i.test(paint);
}

function isReference(value: string): boolean {
  return !/^none$/i.test(value);
}

function isZero(value: string | undefined): boolean {
  return value !== undefined && /^[+-]?0*(\.0*)?%?$/.test(value) && /0/.test(value);
}
