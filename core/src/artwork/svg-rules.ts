// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- other workspaces compile this file without ours
/// <reference path="./css-tree-parser.d.ts" />
import { compile, type Options } from 'css-select';
import { parse as parseSelector, type Selector } from 'css-what';
import type { Block, CssNode, Rule } from 'css-tree';
import parseCss from 'css-tree/parser';
import { ArtworkError } from './artwork-error.ts';
import type { Element } from './svg-elements.ts';

/** What is said of an element's look: lower-case properties of CSS and their values. */
export type Declarations = Map<string, { value: string; important: boolean }>;

/** Longer than this a sheet is not about a drawing. */
const LONGEST_SHEET = 500_000;
const MOST_RULES = 20_000;
const LONGEST_SELECTOR = 500;
/** Blocks in blocks go no deeper in a sheet that was meant. */
const DEEPEST_BLOCK = 16;
/** Steps from element to element when rules are matched: a hostile selector could ask for any number. */
const MOST_STEPS = 20_000_000;

interface StyleRule {
  matches: (element: Element) => boolean;
  /** Specificity by Selectors 4, §17: ids, then classes and attributes, then names. */
  weight: readonly [number, number, number];
  order: number;
  said: Declarations;
}

/** The rules of a drawing's style sheets, and which of them an element meets. */
export class StyleRules {
  /** Rules that could not be read, or that would have to be fetched. */
  unread = 0;
  private readonly byKey = new Map<string, StyleRule[]>();
  private root: Element | undefined;
  private steps = 0;
  private rules = 0;

  /** @throws {ArtworkError} where the sheets are larger or deeper than any drawing has. */
  constructor(sheets: readonly string[]) {
    for (const sheet of sheets) {
      if (sheet.length > LONGEST_SHEET || deepest(sheet) > DEEPEST_BLOCK) throw tooLarge();
      const parsed = parseCss(sheet, {
        parseValue: false,
        parseRulePrelude: false,
        parseAtrulePrelude: false,
        parseCustomProperty: false,
        onParseError: () => void this.unread++,
      });
      if (parsed.type === 'StyleSheet') parsed.children.forEach((node) => this.take(node));
    }
  }

  /**
   * What rules say of an element, the weightiest last.
   *
   * @param root what a `use` refers to and the element lies in: it is met as if nothing were around that (SVG 2, §5.6.3).
   */
  of(element: Element, root?: Element): Declarations[] {
    if (this.rules === 0) return [];
    this.root = root;
    const { id, class: classes } = element.attributes;
    const keys = ['*', element.name];
    if (id) keys.push(`#${id}`);
    for (const name of new Set((classes ?? '').split(/\s+/))) if (name) keys.push(`.${name}`);
    return keys
      .flatMap((key) => this.byKey.get(key) ?? [])
      .filter((rule) => rule.matches(element))
      .sort((a, b) => compare(a.weight, b.weight) || a.order - b.order)
      .map(({ said }) => said);
  }

  private take(node: CssNode): void {
    if (node.type === 'Rule') this.addRule(node);
    else if (node.type === 'Atrule') {
      const name = node.name.toLowerCase();
      const prelude = node.prelude?.type === 'Raw' ? node.prelude.value : '';
      if (name === 'import') this.unread++;
      if (name === 'media' && /^\s*(all|screen)\s*$/i.test(prelude))
        node.block?.children.forEach((child) => this.take(child));
    } else if (node.type === 'Raw' && node.value.trim()) this.unread++;
  }

  private addRule({ prelude, block }: Rule): void {
    const text = prelude.type === 'Raw' ? prelude.value.replace(/\/\*.*?\*\//gs, '') : '';
    const said = declared(block);
    if (said.size === 0) return;
    try {
      if (text.length > LONGEST_SELECTOR) throw new Error('too long');
      // One that cannot be read drops the others of its list too.
      const rules = parseSelector(text).map((selector) => this.ruleFor(selector, said));
      for (const [key, rule] of rules) {
        const known = this.byKey.get(key);
        if (known) known.push(rule);
        else this.byKey.set(key, [rule]);
      }
    } catch (error) {
      if (error instanceof ArtworkError) throw error;
      // An unreadable selector drops its rule (CSS Syntax 3, §9).
      this.unread++;
    }
  }

  private ruleFor(selector: Selector[], said: Declarations): [key: string, rule: StyleRule] {
    if (++this.rules > MOST_RULES) throw tooLarge();
    const matches = compile<Element, Element>([selector], { adapter: this.adapter, cacheResults: false });
    return [keyOf(selector), { matches, weight: weightOf(selector), order: this.rules, said }];
  }

  private step(cost = 1): void {
    if ((this.steps += cost) > MOST_STEPS) throw tooLarge();
  }

  private readonly adapter: NonNullable<Options<Element, Element>['adapter']> = {
    isTag: (node): node is Element => node.name !== '',
    getAttributeValue: (element, name) => {
      this.step();
      return element.attributes[name];
    },
    hasAttrib: (element, name) => element.attributes[name] !== undefined,
    getName: (element) => {
      this.step();
      return element.name;
    },
    getParent: (element) => {
      this.step();
      return (element !== this.root && element.parent) || null;
    },
    getChildren: ({ children }) => {
      this.step(children.length);
      return children;
    },
    getSiblings: (element) => {
      const all = (element !== this.root && element.parent?.children) || [element];
      this.step(all.length);
      return all;
    },
    getText: ({ text }) => text,
    removeSubsets: (nodes) => nodes,
  };
}

/**
 * What a list of declarations says, such as a `style` attribute.
 * @example declarationsIn('fill: red; Display:none !important').get('display') // { value: 'none', important: true }
 */
export function declarationsIn(text: string): Declarations {
  if (text.length > LONGEST_SHEET || deepest(text) > DEEPEST_BLOCK) throw tooLarge();
  const parsed = parseCss(text, { context: 'declarationList', parseValue: false, parseCustomProperty: false });
  return declared(parsed as Block);
}

function declared({ children }: Pick<Block, 'children'>): Declarations {
  const said: Declarations = new Map();
  children.forEach((node) => {
    if (node.type !== 'Declaration' || node.value.type !== 'Raw') return;
    const property = node.property.toLowerCase();
    const important = Boolean(node.important);
    if (said.get(property)?.important && !important) return;
    said.set(property, { value: node.value.value.replace(/\/\*.*?\*\//gs, '').trim(), important });
  });
  return said;
}

/** What an element must have for a selector to be tried at all. */
function keyOf(selector: Selector[]): string {
  let key = '*';
  for (let k = selector.length - 1; k >= 0; k--) {
    const token = selector[k];
    if (token.type === 'attribute' && token.action === 'equals' && token.name === 'id') return `#${token.value}`;
    if (token.type === 'attribute' && token.action === 'element' && token.name === 'class') key = `.${token.value}`;
    else if (token.type === 'tag' && key === '*') key = token.name.toLowerCase();
    else if (['descendant', 'child', 'sibling', 'adjacent'].includes(token.type)) break;
  }
  return key;
}

function weightOf(selector: readonly Selector[]): [number, number, number] {
  const weight: [number, number, number] = [0, 0, 0];
  for (const token of selector) {
    if (token.type === 'attribute') weight[token.name === 'id' && token.action === 'equals' ? 0 : 1]++;
    else if (token.type === 'tag' || token.type === 'pseudo-element') weight[2]++;
    else if (token.type === 'pseudo') {
      if (!Array.isArray(token.data)) weight[1]++;
      // `:where` weighs nothing, `:is` and `:not` as much as the weightiest in their brackets.
      else if (token.name !== 'where') {
        const inner = token.data.map(weightOf).sort(compare).at(-1) ?? [0, 0, 0];
        inner.forEach((w, k) => (weight[k] += w));
      }
    }
  }
  return weight;
}

function compare(a: readonly number[], b: readonly number[]): number {
  return a[0] - b[0] || a[1] - b[1] || a[2] - b[2];
}

function deepest(text: string): number {
  let [depth, most] = [0, 0];
  for (let k = 0; k < text.length; k++) {
    const c = text.charCodeAt(k);
    if (c === 0x7b) most = Math.max(most, ++depth);
    else if (c === 0x7d) depth = Math.max(0, depth - 1);
  }
  return most;
}

function tooLarge(): ArtworkError {
  return new ArtworkError('The drawing’s style sheet asks for more than a drawing needs; save it again as plain SVG.');
}
