import { SaxesParser } from 'saxes';
import { ArtworkError } from './artwork-error.ts';

/** An element of a drawing. Names and attribute names are in lower case, without a namespace prefix. */
export interface Element {
  name: string;
  attributes: Record<string, string | undefined>;
  children: Element[];
  /** What a `use` element refers to, within the same file. */
  target?: Element;
}

/**
 * How many elements a drawing may come to once every reference is followed. References inside references multiply, so
 * this is counted before anything is drawn.
 */
const MOST_ELEMENTS = 200_000;

/** Groups in groups, and references to references, go no deeper than this in any drawing that was meant. */
const DEEPEST = 64;

/**
 * Reads the XML of an SVG file. Nothing is run or fetched: scripts and entity declarations are refused, references to
 * other files are ignored.
 * @throws {ArtworkError}
 */
export function readDrawing(bytes: Uint8Array): Element {
  const text = new TextDecoder('utf-8').decode(bytes);
  if (!/<(?:[\w-]+:)?svg[\s/>]/i.test(text.slice(0, 200_000)))
    throw new ArtworkError('This file is not an SVG drawing; save the artwork as SVG and import that.');
  const parser = new SaxesParser({ xmlns: false, position: false });
  const top: Element = { name: '', attributes: {}, children: [] };
  const open: Element[] = [top];
  const byId = new Map<string, Element>();
  const uses: Element[] = [];
  parser.on('error', () => {
    throw new ArtworkError('The drawing is damaged: its XML cannot be read; save it again as plain SVG.');
  });
  parser.on('doctype', (doctype) => {
    if (doctype.includes('['))
      throw new ArtworkError(
        'The drawing declares entities, which can hide other content; save it again as plain SVG.',
      );
  });
  parser.on('opentag', (tag) => {
    const element: Element = { name: local(tag.name), attributes: {}, children: [] };
    for (const [name, value] of Object.entries(tag.attributes)) {
      const key = local(name);
      if (/^on[a-z]/.test(key)) throw scripted();
      element.attributes[key] = String(value);
    }
    if (open.length > DEEPEST) throw tooDeep();
    if (element.name === 'script' || element.name === 'foreignobject') throw scripted();
    if (element.attributes.id) byId.set(element.attributes.id, element);
    if (element.name === 'use') uses.push(element);
    open[open.length - 1].children.push(element);
    open.push(element);
  });
  parser.on('closetag', () => void open.pop());
  parser.write(text).close();
  const root = top.children[0];
  if (root?.name !== 'svg')
    throw new ArtworkError('This file is not an SVG drawing; save the artwork as SVG and import that.');
  for (const use of uses) {
    const href = use.attributes.href ?? '';
    if (href.startsWith('#')) use.target = byId.get(href.slice(1));
  }
  count(root, new Map(), new Set(), 0);
  return root;
}

function count(element: Element, known: Map<Element, number>, above: Set<Element>, depth: number): number {
  const seen = known.get(element);
  if (seen !== undefined) return seen;
  if (above.has(element))
    throw new ArtworkError('The drawing refers to itself in a circle; save it again as plain SVG.');
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

function scripted(): ArtworkError {
  return new ArtworkError('The drawing holds a script, and only outlines are taken; save it again as plain SVG.');
}

function local(name: string): string {
  return name.slice(name.indexOf(':') + 1).toLowerCase();
}
