import type { Element } from './svg-elements.ts';
import { isShape } from './svg-shape.ts';

/** Elements that draw nothing where they stand. */
export const SILENT = new Set([
  '',
  'defs',
  'symbol',
  'clippath',
  'mask',
  'pattern',
  'marker',
  'filter',
  'lineargradient',
  'radialgradient',
  'meshgradient',
  'hatch',
  'solidcolor',
  'stop',
  'metadata',
  'title',
  'desc',
  'style',
  'view',
  'cursor',
  'font',
  'font-face',
  'color-profile',
  'animate',
  'animatemotion',
  'animatetransform',
  'set',
  'discard',
  'mpath',
  'link',
]);

export function nameOf({ label, attributes, name }: Element): string {
  return (label ?? attributes.id ?? name).slice(0, 120);
}

/** How many shapes an element draws, what it refers to not counted out. */
export function shapesIn(element: Element): number {
  if (element.name === 'use') return 1;
  if (isShape(element)) return 1;
  if (SILENT.has(element.name)) return 0;
  return element.children.reduce((sum, child) => sum + shapesIn(child), 0);
}

/** Whether a branch of a `switch` is for a reader like this one: English, without extensions. */
export function suits({ name, attributes }: Element): boolean {
  const languages = attributes.systemlanguage?.split(',').map((l) => l.trim().toLowerCase());
  return !SILENT.has(name) && !attributes.requiredextensions && (!languages || languages.some((l) => /^en\b/.test(l)));
}
