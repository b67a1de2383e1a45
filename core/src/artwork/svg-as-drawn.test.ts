import { describe, expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { boundsOf, signedArea } from '../geometry/outline.ts';
import type { Drawing, Shape } from './shape.ts';
import { importSvg } from './svg.ts';
import { lengthIn, pageLength } from './svg-length.ts';
import { svgText } from './svg-text.ts';
import { transformOf } from './svg-transform.ts';
import { viewMap } from './svg-viewport.ts';

const utf8 = (text: string) => new TextEncoder().encode(text);
const page = (inside: string, attributes = 'width="100mm" height="100mm" viewBox="0 0 100 100"'): Drawing =>
  importSvg(
    utf8(
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:o="http://example.org/own" ${attributes}>${inside}</svg>`,
    ),
    clipper,
  );
const areaOf = (shape: Shape) =>
  clipper.union(shape.outlines.map(({ points }) => points), shape.rule).reduce((sum, loop) => sum + signedArea(loop), 0); // prettier-ignore
const names = ({ shapes }: Drawing) => shapes.map(({ name }) => name);
const BOX = '<rect width="20" height="10" id="box"/>';

describe('styles (CSS Cascade 4, §6: importance, own style, specificity, order)', () => {
  test.each([
    ['a class', '.a{fill:none}', '<rect class="a" width="9" height="9" id="x"/>', false],
    ['a rule is over an attribute', '.x{fill:none}', '<rect class="x" fill="red" width="9" height="9"/>', false],
    ['the own style is over a rule', '.a{fill:none}', '<rect class="a" style="fill:red" width="9" height="9"/>', true],
    [
      'importance is over the own style',
      '.a{fill:none!important}',
      '<rect class="a" style="fill:red" width="9" height="9"/>',
      false,
    ],
    ['an id is over classes', '#x{fill:red}.a.b{fill:none}', '<rect id="x" class="a b" width="9" height="9"/>', true],
    [
      'an element in another is over the element',
      'g circle{fill:red}circle{fill:none}',
      '<g><circle r="9"/></g>',
      true,
    ],
    ['the later of equals', '.a{fill:none}.b{fill:red}', '<rect class="b a" width="9" height="9"/>', true],
    ['a colour is taken over', 'g{fill:none}', '<g><rect width="9" height="9"/></g>', false],
    ['a stroke alone shows', 'g{fill:none;stroke:#000}', '<g><rect width="9" height="9"/></g>', true],
    [
      'nothing is taken over of display',
      '',
      '<g display="none"><rect display="inline" width="9" height="9"/></g>',
      false,
    ],
    [
      'a part may be visible in what is hidden',
      '',
      '<g visibility="hidden"><rect visibility="visible" width="9" height="9"/></g>',
      true,
    ],
    ['a comment in a rule', '/* .a{ */ .a{fill:/*x*/none}', '<rect class="a" width="9" height="9"/>', false],
    ['a rule for paper', '@media print{rect{fill:none}}', '<rect width="9" height="9"/>', true],
    ['a rule for screens', '@media screen{.x{fill:none}}', '<rect class="x" width="9" height="9"/>', false],
    [
      'an unreadable selector drops its whole list',
      '.x, .a::(:{fill:none}',
      '<rect class="x" width="9" height="9"/>',
      true,
    ],
    ['an unreadable rule is passed over', 'rect::{fill:none} .a{fill:red}', '<rect width="9" height="9"/>', true],
    ['nothing seen through', '', '<g opacity="0"><rect width="9" height="9"/></g>', false],
  ])('%s', (_, sheet, inside, taken) => {
    const { shapes } = page(`<style>${sheet}</style>${BOX}${inside}`);
    expect(shapes.length).toBe(taken ? 2 : 1);
  });
  test('a fill rule that a class gives makes a ring', () => {
    const ring = '<path class="a" d="M0 0h30v30h-30zM10 10h10v10h-10z"/>';
    expect(areaOf(page(ring).shapes[0])).toBeCloseTo(900, 6);
    expect(areaOf(page(`<style>.a{fill-rule:evenodd}</style>${ring}`).shapes[0])).toBeCloseTo(800, 6);
  });
  test('geometry may stand in a style (SVG 2, chapter 7)', () => {
    expect(areaOf(page('<rect style="width:5px;height:4px"/>').shapes[0])).toBeCloseTo(20, 6);
    expect(areaOf(page(`<path style="d:path('M0 0h6v6h-6z')"/>`).shapes[0])).toBeCloseTo(36, 6);
  });
});

describe('references and windows', () => {
  test('a symbol is fitted into the size that its use gives, and cut to it', () => {
    const { shapes } = page(
      '<symbol id="s" viewBox="0 0 10 10"><rect x="-15" width="20" height="10"/></symbol><use xlink:href="#s" x="10" y="20" width="40" height="20"/>',
    );
    // 10 units are 20 mm, in the middle of 40: of the rectangle from -10 to 30 mm what is left of the window is cut off.
    expect(boundsOf(shapes[0].outlines)).toEqual({ minX: 10, minY: 60, maxX: 30, maxY: 80 });
  });
  test.each([
    ['xMinYMin slice', [4, 0, 0, 4, -20, -28]],
    ['xMaxYMax meet', [2.5, 0, 0, 2.5, 2.5, -17.5]],
    ['xMidYMax', [2.5, 0, 0, 2.5, -5, -17.5]],
    ['none', [4, 0, 0, 2.5, -20, -17.5]],
  ])('a window of 40 × 20 on a viewBox from (5, 7), 10 × 8, %s (SVG 2, §8.2)', (aspect, map) => {
    expect(viewMap({ x: 5, y: 7, width: 10, height: 8 }, aspect, { width: 40, height: 20 })).toEqual(map);
  });
  test('of two things with one id the first is meant', () => {
    const { shapes } = page(
      '<defs><rect id="a" width="4" height="5"/><rect id="a" width="9" height="9"/></defs><use href="#a"/>',
    );
    expect(areaOf(shapes[0])).toBeCloseTo(20, 6);
  });
  test('a clip path has a rule of its own', () => {
    const clip = (rule: string) =>
      page(
        `<clipPath id="c"><path clip-rule="${rule}" fill-rule="${rule === 'evenodd' ? 'nonzero' : 'evenodd'}" d="M0 0h30v30h-30zM10 10h10v10h-10z"/></clipPath><rect width="50" height="50" clip-path="url(#c)"/>`,
      ).shapes[0];
    expect([areaOf(clip('evenodd')), areaOf(clip('nonzero'))].map(Math.round)).toEqual([800, 900]);
  });
  test('percentages are of the nearest viewBox', () => {
    const { shapes } = page(
      '<svg x="10%" y="0" width="50%" height="100" viewBox="0 0 25 50"><rect width="100%" height="50%"/><circle cx="50%" cy="25" r="10%"/></svg>',
    );
    expect(areaOf(shapes[0])).toBeCloseTo(50 * 50, 6);
    // SVG 2, §8.9: of the diagonal over the root of 2.
    const { minX, maxX } = boundsOf(shapes[1].outlines)!;
    expect(maxX - minX).toBeCloseTo(2 * 2 * 0.1 * (Math.hypot(25, 50) / Math.SQRT2), 3);
  });
  test('a clip path: the share within it, the whole where it holds all, said by name', () => {
    const clip = '<clipPath id="c"><rect x="10" y="10" width="40" height="60"/></clipPath>';
    const { shapes, notes } = page(
      `${clip}<circle id="sun" cx="50" cy="40" r="30" clip-path="url(#c)"/><rect id="in" x="20" y="20" width="5" height="5" clip-path="url('#c')"/><rect id="out" x="80" width="5" height="5" clip-path="url(#c)"/>`,
    );
    expect(shapes.map(({ name }) => name)).toEqual(['sun', 'in']);
    // Half of the disc: it reaches from x = 20 to 80, and the clip path to 50.
    expect(areaOf(shapes[0])).toBeCloseTo((Math.PI * 900) / 2, 0);
    expect(shapes[1].outlines[0].nodes).toBe(4);
    expect(notes).toEqual([
      'One shape lies wholly outside what it is clipped to and was left out (“out”).',
      'Of one shape only what lies within the clip path was taken (“sun”).',
    ]);
  });
  test('a line under a clip path is cut where it leaves it', () => {
    const { shapes } = page(
      '<clipPath id="c"><rect x="10" width="20" height="99"/></clipPath><path clip-path="url(#c)" fill="none" stroke="red" stroke-width=".1" d="M0 50H90"/>',
    );
    expect([...shapes[0].outlines[0].points].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([10, 50, 30, 50]);
    expect(shapes[0].outlines[0].closed).toBe(false);
  });
  test('a line that only just leaves a clip path is cut all the same', () => {
    const { shapes } = page(
      '<clipPath id="c"><path d="M0 0H20V99H0z M30 0h1v1z"/></clipPath><path clip-path="url(#c)" fill="none" stroke="red" stroke-width=".1" d="M5 50H20.3"/>',
    );
    expect(Math.max(...shapes[0].outlines[0].points.filter((_, i) => i % 2 === 0))).toBeCloseTo(20, 6);
  });
  test('a clip path in parts of the box is laid around a group, and within another', () => {
    const { shapes } = page(
      '<clipPath id="a" clipPathUnits="objectBoundingBox" clip-path="url(#b)"><rect width=".5" height="1"/></clipPath><clipPath id="b"><rect width="100" height="30"/></clipPath><rect x="90" y="90" width="9" height="9"/><g clip-path="url(#a)"><rect width="20" height="40"/><rect x="60" width="20" height="40"/></g>',
    );
    // Left half of 80 mm, and of that the upper 30 mm.
    expect(shapes.map((shape) => Math.round(areaOf(shape)))).toEqual([81, 600]);
  });
  test.each([
    ['itself', '<clipPath id="a"><rect clip-path="url(#a)" width="9" height="9"/></clipPath>'],
    ['each other', '<clipPath id="a" clip-path="url(#b)"><rect width="9" height="9"/></clipPath><clipPath id="b" clip-path="url(#a)"><rect width="9" height="9"/></clipPath>'],
  ])('a clip path that leads to %s is refused', (_, clips) => {
    expect(() => page(`${clips}<rect clip-path="url(#a)" width="20" height="20"/>`)).toThrow(/in a circle/);
  }); // prettier-ignore
});

describe('what is left out is said once, by name and count', () => {
  const said = (inside: string) => page(BOX + inside).notes;
  test.each([
    ['<g id="guides" display="none"><rect width="9" height="9"/><use href="#box"/></g>', '2 hidden shapes were left out (“guides”).'],
    ['<rect id="ghost" visibility="hidden" width="9" height="9"/>', 'One hidden shape was left out (“ghost”).'],
    ['<text>Oak <tspan>Mill</tspan></text>', 'One piece of text was left out (“Oak Mill”); to keep it, open it where it was drawn, turn the text into outlines, and save it again.'],
    ['<image id="photo"/><image id="scan"/>', '2 pictures were left out (“photo”, “scan”); only outlines can be carved.'],
    ['<rect id="x" fill="none" width="9" height="9"/>', 'One shape that has neither fill nor stroke was left out (“x”).'],
    ['<line id="x" x2="9" fill="red"/>', 'One shape that has neither fill nor stroke was left out (“x”).'],
    ['<path id="swash" fill="none" stroke="red" stroke-width="2" d="M0 0h9v9"/>', 'The stroke width of one shape was left out (“swash”); to keep it, turn strokes into outlines where they were drawn.'],
    ['<use href="#gone"/><use href="other.svg#a"/>', '2 references lead to nothing in this file and were left out (“#gone”, “other.svg#a”).'],
    ['<mask id="m"/><rect id="x" mask="url(#m)" width="9" height="9"/>', 'Masks were left out, and what one hides was taken whole (“x”).'],
    ['<rect id="x" filter="url(#f)" width="9" height="9"/>', 'Filters, such as shadows, were left out: one thing was taken as drawn without (“x”).'],
    ['<marker id="m"/><path id="x" fill="none" stroke="red" stroke-width=".1" marker-end="url(#m)" d="M0 0h9"/>', 'The markers, such as arrow heads, of one line were left out (“x”).'],
    ['<pattern id="p"/><rect id="x" fill="url(#p)" width="9" height="9"/>', 'The pattern that fills one shape was left out (“x”); only the outline was taken.'],
    ['<foreignObject id="f"><p/></foreignObject>', 'One thing that is no outlines was left out (“f”).'],
    ['<rect id="x" clip-path="circle(4px)" width="9" height="9"/>', 'One clip path is of a kind that is not followed, and what it clips was taken whole (“x”).'],
    ['<style>@import "a.css"; rect::{fill:none}</style>', '2 rules of the style sheet were not read, so something may look otherwise here.'],
    ['<rect id="x" x="150" width="9" height="9"/>', 'One shape lies outside the drawing’s page and was taken all the same (“x”).'],
    ['<rect width="9" height="9" visibility="hidden"/>'.repeat(8), '8 hidden shapes were left out (“rect 2”).'],
  ])('%s', (inside, sentence) => {
    expect(said(inside)).toEqual([sentence]);
  }); // prettier-ignore
  test('a marker is not missed where a part of a group has none', () => {
    expect(
      said(
        '<marker id="m"/><g marker-end="url(#m)"><path marker-end="none" fill="none" stroke="red" stroke-width=".1" d="M0 0h9"/></g>',
      ),
    ).toEqual([]);
  });
  test('nothing is said of what is not drawn anyway', () => {
    expect(
      said('<defs><rect width="9" height="9"/></defs><title>T</title><o:rect width="9"/><metadata/><text> </text>'),
    ).toEqual([]);
  });
  test('a page that does not say how large it is', () => {
    expect(page(BOX, 'viewBox="0 0 96 48"')).toMatchObject({
      width: 25.4,
      height: 12.7,
      notes: ['The drawing does not say how large it is: each of its units was taken as 1/96 in. Check its size.'],
    });
  });
  test('where nothing shows, what was left out is said', () => {
    expect(() => page('<rect id="x" visibility="hidden" width="9" height="9"/>')).toThrow(
      'The drawing holds no outlines that show; save it with at least one path or shape and import it again. One hidden shape was left out (“x”).',
    );
  });
});

describe('names and layers', () => {
  test('a shape has the name that it was given, and the layer that it lies in', () => {
    const { shapes } = page(
      `<g o:label="Letters" id="layer1"><rect o:label="frame" id="r1" width="9" height="9"/><g id="g12"><rect width="9" height="9"/></g></g><g id="Layer_2" data-name="Cut out"><path d="M0 0h9v9z"><title>edge</title></path></g><g id="Holes"><circle r="3"/></g>`,
    );
    expect(shapes.map(({ name, layer }) => [layer, name])).toEqual([
      ['Letters', 'frame'],
      ['Letters', 'rect 2'],
      ['Cut out', 'edge'],
      ['Holes', 'circle 1'],
    ]);
  });
  test('what has no name of its own is called after the named group that it stands in', () => {
    const { shapes } = page(
      '<g id="Layer"><g id="tail"><path d="M0 0h9v9z"/><g id="g7"><path d="M9 9h9v9z"/></g><path id="tip" d="M0 9h9v9z"/></g></g>',
    );
    expect(shapes.map(({ name }) => name)).toEqual(['tail', 'tail', 'tip']);
  });
  test('attributes of other namespaces are not taken for those of SVG', () => {
    const { shapes } = page('<rect o:width="90" width="20" height="10" o:rx="5"/>');
    expect(areaOf(shapes[0])).toBeCloseTo(200, 9);
  });
});

test('of attributes with a name of a link’s space only href is a link', () => {
  const drawn = page('<defs><rect id="a" width="9" height="4"/><rect id="b" width="2" height="2"/></defs><use xlink:title="#b" xlink:href="#a"/>'); // prettier-ignore
  const { minX, maxX } = boundsOf(drawn.shapes.flatMap((shape) => shape.outlines))!;
  expect(maxX - minX).toBeCloseTo(9, 9);
});

describe('encodings (XML 1.0, appendix F)', () => {
  test.each(['\n', ' '])('what begins with %j before its first tag is still UTF-8', (before) => {
    const text = `${before}<svg xmlns="http://www.w3.org/2000/svg"><rect id="Größe" width="9" height="9"/></svg>`;
    expect(names(importSvg(utf8(text), clipper))).toEqual(['Größe']);
  });
  const text =
    '<?xml version="1.0" encoding="NAME"?><svg xmlns="http://www.w3.org/2000/svg"><rect id="Größe" width="9" height="9"/></svg>';
  const wide = (big: boolean, mark: boolean) => {
    const said = (mark ? '\ufeff' : '') + text.replace('NAME', 'UTF-16');
    const bytes = new Uint8Array(said.length * 2);
    const view = new DataView(bytes.buffer);
    for (let k = 0; k < said.length; k++) view.setUint16(2 * k, said.charCodeAt(k), !big);
    return bytes;
  };
  test.each([
    ['UTF-8', utf8(text.replace('NAME', 'UTF-8'))],
    ['UTF-8 with a mark, whatever it says', utf8(`\ufeff${text.replace('NAME', 'latin1')}`)],
    ['ISO 8859-1', Uint8Array.from(text.replace('NAME', 'ISO-8859-1'), (c) => c.charCodeAt(0))],
    ['UTF-16, little end first, marked', wide(false, true)],
    ['UTF-16, big end first, not marked', wide(true, false)],
    ['UTF-16, little end first, not marked', wide(false, false)],
    ['UTF-8 that says it is UTF-16', utf8(text.replace('NAME', 'UTF-16'))],
  ])('%s', (_, bytes) => {
    expect(names(importSvg(bytes, clipper))).toEqual(['Größe']);
  });
  test('one that nobody knows', () => {
    expect(() => svgText(utf8(text.replace('NAME', 'ebcdic-x')))).toThrow(
      /encoding that is not known here \(“ebcdic-x”\)/,
    );
  });
});

describe('lengths and transforms', () => {
  test.each([
    ['25%', 50], ['2em', 20], ['1in', 96], ['25.4mm', 96], ['6pc', 96], ['101.6q', 96], ['-3.5e1', -35], ['2ex', 10], ['1rem', 16],
  ])('%s', (text, units) => {
    expect(lengthIn(text, { whole: 200, fontSize: 10 })).toBeCloseTo(units, 9);
  }); // prettier-ignore
  test.each(['5foo', 'calc(1px)', '1e', '--1', '1e999', ' '])('“%s” is none', (text) => {
    expect(() => lengthIn(text, { whole: 1, fontSize: 1 })).toThrow(/length that cannot be read/);
  });
  test('a share of the window is no length of a page', () => {
    expect([pageLength('100%'), pageLength('auto'), pageLength(undefined)]).toEqual([undefined, undefined, undefined]);
  });
  test.each([
    ['rotate(90 10 0)', [0, 1, -1, 0, 10, -10]],
    ['translate(10px, 1in)', [1, 0, 0, 1, 10, 96]],
    ['rotate(0.25turn) , scale(2)', [0, 2, -2, 0, 0, 0]],
    ['none', [1, 0, 0, 1, 0, 0]],
    ['skewX(45)', [1, 0, 1, 1, 0, 0]],
  ])('%s', (text, map) => {
    transformOf(text).forEach((value, k) => expect(value).toBeCloseTo(map[k], 9));
  });
  test.each(['rotate(1 2)', 'matrix(1 2 3)', 'scale(a)', 'translate3d(1,2,3)', 'rotate(10) oops', 'scale(1e400)'])(
    '“%s” is refused',
    (text) => {
      expect(() => transformOf(text)).toThrow(/a transform that cannot be read \(“.+”\); save/);
      expect(() => transformOf('scale(a)')).toThrow('(“scale(a)”)');
    },
  );
});

describe('a style sheet that asks for more than a drawing needs', () => {
  test('blocks in blocks are too deep, blocks beside each other are not', () => {
    const nested = (depth: number) =>
      `<style>${'@media all{'.repeat(depth)}.a{fill:red}${'}'.repeat(depth)}</style>${BOX}`;
    expect(() => page(nested(1000))).toThrow(/style sheet asks for more/);
    expect(page(nested(3)).shapes).toHaveLength(1);
    expect(page(`<style>${'.a{fill:red}'.repeat(1000)}</style>${BOX}`).shapes).toHaveLength(1);
  });
  const shapes = '<g>'.repeat(40) + BOX.repeat(3000) + '</g>'.repeat(40);
  test.each([
    ['blocks a thousand deep', `a${'{b'.repeat(1000)}`],
    ['more than half a megabyte', '.a{fill:red}'.repeat(50_000)],
    ['rules that look up and up', `${'g '.repeat(100)}q, ${'g '.repeat(120)} rect:not(#box) {fill:none}`.repeat(40)],
    ['siblings by the million', '* ~ * ~ * ~ rect{fill:red}'.repeat(40)],
  ])('%s', (_, sheet) => {
    try {
      page(`<style>${sheet}</style>${shapes.replace(/ id="box"/g, '')}`);
    } catch (error) {
      expect(String(error)).toMatch(/style sheet asks for more/);
    }
  });
});
