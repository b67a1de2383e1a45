import { SaxesParser } from 'saxes';
import { ArtworkError } from './artwork-error.ts';
import { svgText } from './svg-text.ts';

/** An element of a drawing. Names and attribute names are in lower case, without a namespace prefix. */
export interface Element {
  /** Empty for one that is not of SVG, such as what a drawing program keeps for itself. */
  name: string;
  attributes: Record<string, string | undefined>;
  /** What the person who drew it called it, apart from its id. */
  label?: string;
  children: Element[];
  parent?: Element;
  /** The characters in it, of a `style`, `title` or `text`. */
  text: string;
  /** What a `use` element refers to, within the same file. */
  target?: Element;
}

/** A drawing that has been parsed. */
export interface Parsed {
  root: Element;
  byId: ReadonlyMap<string, Element>;
  /** The texts of its style sheets, in their order. */
  sheets: string[];
}

/**
 * How many elements a drawing may come to once every reference is followed. References inside references multiply, so
 * this is counted before anything is drawn.
 */
const MOST_ELEMENTS = 200_000;

/** Groups in groups, and references to references, go no deeper than this in any drawing that was meant. */
export const DEEPEST = 64;

/** A longer name is none. */
const LONGEST_NAME = 120;

const SVG = 'http://www.w3.org/2000/svg';
const XLINK = 'http://www.w3.org/1999/xlink';

/**
 * Reads the XML of an SVG file. Nothing is run or fetched: scripts and entity declarations are refused, references to
 * other files are ignored. Elements of other namespaces keep their place and have no name.
 * @throws {ArtworkError}
 */
export function readDrawing(bytes: Uint8Array): Parsed {
  const text = svgText(bytes);
  if (!/<(?:[\w-]+:)?svg[\s/>]/i.test(text.slice(0, 200_000)))
    throw new ArtworkError('This file is not an SVG drawing; save the artwork as SVG and import that.');
  const parser = new SaxesParser({ xmlns: true, position: false });
  const top: Element = { name: '', attributes: {}, children: [], text: '' };
  const open: Element[] = [top];
  const byId = new Map<string, Element>();
  const uses: Element[] = [];
  const sheets: string[] = [];
  parser.on('error', ({ message }) => {
    // Drawing programs have names of their own, and some forget to declare them.
    if (/unbound namespace prefix/i.test(message)) return;
    throw new ArtworkError('The drawing is damaged: its XML cannot be read; save it again as plain SVG.');
  });
  parser.on('doctype', (doctype) => {
    if (doctype.includes('['))
      throw new ArtworkError(
        'The drawing declares entities, which can hide other content; save it again as plain SVG.',
      );
  });
  parser.on('opentag', (tag) => {
    const ours = tag.prefix === '' ? tag.uri === '' || tag.uri === SVG : tag.uri === SVG || tag.prefix === 'svg';
    const element: Element = {
      name: ours ? tag.local.toLowerCase() : '',
      attributes: Object.create(null) as Element['attributes'],
      children: [],
      text: '',
    };
    for (const { local, prefix, uri, value } of Object.values(tag.attributes)) {
      const key = local.toLowerCase();
      if (/^on[a-z]/.test(key)) throw scripted();
      if (prefix === '') element.attributes[key] = value;
      else if (key === 'href' && (uri === XLINK || prefix === 'xlink')) element.attributes.href ??= value;
      else if (key === 'label') element.label = named(value);
    }
    element.label ??= named(element.attributes['data-name']);
    if (open.length > DEEPEST) throw tooDeep();
    if (element.name === 'script') throw scripted();
    const { id } = element.attributes;
    if (id && !byId.has(id)) byId.set(id, element);
    if (element.name === 'use') uses.push(element);
    element.parent = open[open.length - 1];
    element.parent.children.push(element);
    open.push(element);
  });
  const characters = (said: string) => {
    const element = open[open.length - 1];
    if (['style', 'title', 'text', 'tspan', 'textpath', 'flowpara'].includes(element.name)) element.text += said;
  };
  parser.on('text', characters);
  parser.on('cdata', characters);
  parser.on('closetag', () => {
    const element = open.pop()!;
    const { parent } = element;
    if (element.name === 'title' && parent) parent.label ??= named(element.text);
    else if (['tspan', 'textpath', 'flowpara'].includes(element.name) && parent) parent.text += ` ${element.text}`;
    else if (element.name === 'style' && isCss(element)) sheets.push(element.text);
  });
  parser.write(text).close();
  const root = top.children[0];
  if (root?.name !== 'svg')
    throw new ArtworkError('This file is not an SVG drawing; save the artwork as SVG and import that.');
  root.parent = undefined;
  for (const use of uses) use.target = referred(use.attributes.href, byId);
  count(root, new Map(), new Set(), 0);
  return { root, byId, sheets };
}

/** What a reference within the file leads to. `referred('#moon', byId)` is the element whose id is `moon`. */
export function referred(href: string | undefined, byId: ReadonlyMap<string, Element>): Element | undefined {
  if (!href?.startsWith('#')) return undefined;
  const id = href.slice(1);
  if (byId.has(id) || !id.includes('%')) return byId.get(id);
  try {
    return byId.get(decodeURIComponent(id));
  } catch {
    return undefined;
  }
}

function isCss({ attributes: { type, media } }: Element): boolean {
  return (!type || /^\s*text\/css\s*$/i.test(type)) && (!media || /\b(all|screen)\b/i.test(media));
}

function named(text: string | undefined): string | undefined {
  return text?.replace(/\s+/g, ' ').trim().slice(0, LONGEST_NAME) || undefined;
}

function count(element: Element, known: Map<Element, number>, above: Set<Element>, depth: number): number {
  const seen = known.get(element);
  if (seen !== undefined) return seen;
  if (above.has(element)) throw inCircle();
  if (depth > 2 * DEEPEST) throw tooDeep();
  above.add(element);
  let total = 1;
  for (const child of element.children) total += count(child, known, above, depth + 1);
  if (element.target) total += count(element.target, known, above, depth + 1);
  above.delete(element);
  if (total > MOST_ELEMENTS)
    throw new ArtworkError('The drawing has too many elements; simplify it and import it again.');
  known.set(element, total);
  return total;
}

/** The drawing's groups lie too deep in each other. */
export function tooDeep(): ArtworkError {
  return new ArtworkError('The drawing’s groups are nested too deeply; ungroup it and import it again.');
}

/** A part of the drawing leads back to itself. */
export function inCircle(): ArtworkError {
  return new ArtworkError('The drawing refers to itself in a circle; save it again as plain SVG.');
}

function scripted(): ArtworkError {
  return new ArtworkError('The drawing holds a script, and only outlines are taken; save it again as plain SVG.');
}
