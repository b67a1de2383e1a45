import { describe, expect, test } from 'vitest';
import { boundsOf } from '../geometry/outline.ts';
import { arcCentre } from '../geometry/elliptical-arc.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { importSvg } from './svg.ts';

const svg = (text: string) => importSvg(new TextEncoder().encode(text), clipper);
const page = (inside: string, attributes = 'width="100mm" height="100mm" viewBox="0 0 100 100"') =>
  svg(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`);
const box = (drawing: ReturnType<typeof svg>) => boundsOf(drawing.shapes.flatMap((shape) => shape.outlines))!;

describe('units and the viewBox', () => {
  // CSS Values and Units 3, §6.2: 1 in = 2.54 cm = 96 px = 72 pt = 6 pc.
  test.each([
    ['1in', 25.4],
    ['96px', 25.4],
    ['72pt', 25.4],
    ['6pc', 25.4],
    ['2.54cm', 25.4],
    ['96', 25.4],
  ])('a page %s wide is %f mm', (width, mm) => {
    expect(
      page('<rect width="1" height="1"/>', `width="${width}" height="${width}" viewBox="0 0 1 1"`).width,
    ).toBeCloseTo(mm, 9);
  });
  test('a viewBox of another proportion is centred (SVG 2 §8.6, xMidYMid meet)', () => {
    const b = box(page('<rect width="10" height="10"/>', 'width="40mm" height="20mm" viewBox="0 0 10 10"'));
    expect([b.minX, b.maxX, b.minY, b.maxY].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([10, 30, 0, 20]);
  });
  test('y points up and transforms apply from the inside out', () => {
    const b = box(page('<g transform="translate(10 20) scale(2)"><rect x="1" y="2" width="3" height="4"/></g>'));
    expect(b).toEqual({ minX: 12, maxX: 18, minY: 68, maxY: 76 });
  });
});

describe('elliptical arcs', () => {
  // W3C SVG 2, implementation notes, B.2.4: the centre of an arc given by its ends.
  test('a quarter of the unit circle', () => {
    const arc = arcCentre(1, 0, 1, 1, 0, false, true, 0, 1)!;
    expect([arc.cx, arc.cy]).toEqual([0, 0]);
    expect(arc.sweep).toBeCloseTo(Math.PI / 2, 12);
  });
  test('radii that are too small are scaled up until the ends meet (B.2.5)', () => {
    const arc = arcCentre(0, 0, 1, 1, 0, false, true, 10, 0)!;
    expect(arc.rx).toBeCloseTo(5, 12);
    expect([arc.cx, arc.cy].map((v) => Math.round(v * 1e9) / 1e9 + 0)).toEqual([5, 0]);
  });
  test.each([
    [0, 0, -1],
    [0, 1, 1],
    [1, 0, -1],
    [1, 1, 1],
  ])('flags large %i sweep %i choose the arc the notes draw', (large, sweep, sign) => {
    const arc = arcCentre(0, 0, 5, 5, 0, large === 1, sweep === 1, 5, 0)!;
    expect(Math.sign(arc.sweep)).toBe(sign);
    expect(Math.abs(arc.sweep) > Math.PI).toBe(large === 1);
  });
  test('a rounded rectangle bulges outwards, mirrored page or not', () => {
    const drawing = page('<rect x="10" y="10" width="80" height="60" rx="10"/>');
    const { points } = drawing.shapes[0].outlines[0];
    let worst = 0;
    for (let i = 0; i < points.length; i += 2) {
      // Distance from the inner rectangle whose corners are the arcs' centres.
      const dx = Math.max(20 - points[i], 0, points[i] - 80);
      const dy = Math.max(40 - points[i + 1], 0, points[i + 1] - 80);
      worst = Math.max(worst, Math.abs(Math.hypot(dx, dy) - 10));
    }
    expect(worst).toBeLessThan(1e-6);
  });
});

describe('shapes', () => {
  test('open and closed outlines are told apart; ends that meet count as closed', () => {
    const drawing = page(
      '<path d="M0 0H10V10"/><path d="M0 0H10V10L0 0"/><polyline points="0,0 5,5 9,0"/><polygon points="0,0 5,5 9,0"/>',
    );
    expect(drawing.shapes.map((shape) => shape.outlines[0].closed)).toEqual([false, true, false, true]);
  });
  test('use, groups and display none', () => {
    const drawing = page(
      '<defs><circle id="c" r="2"/></defs><use href="#c" x="5" y="5"/><g display="none"><rect width="3" height="3"/></g>',
    );
    expect(drawing.shapes).toHaveLength(1);
    expect(box(drawing).minX).toBeCloseTo(3, 3);
  });
});

describe('hostile and unusable files get one sentence', () => {
  test.each([
    ['%PDF-1.4', /not an SVG drawing/],
    ['<svg><script>alert(1)</script><rect width="5" height="5"/></svg>', /holds a script/],
    ['<svg><rect width="5" height="5" onload="x()"/></svg>', /holds a script/],
    ['<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg><text>&b;</text></svg>', /declares entities/],
    ['<svg><text>Hello</text></svg>', /only text that is not outlines yet/],
    ['<svg><rect width="0" height="0"/></svg>', /holds no outlines/],
    ['<svg><path d="M5 5L5.001 5"/></svg>', /has no size/],
    ['<svg><path d="M0 0 Q"/></svg>', /path of the drawing cannot be read/],
    ['<svg><path d="M0 0L9 9"', /damaged/],
    ['<svg><g id="a"><use href="#a"/><rect width="3" height="3"/></g></svg>', /refers to itself/],
  ])('%s', (text, sentence) => {
    expect(() => svg(text)).toThrow(sentence);
  });
  test('references that multiply are counted before anything is drawn', () => {
    let text = '<g id="g0"><rect width="9" height="9"/></g>';
    for (let i = 1; i < 12; i++) text += `<g id="g${i}">${`<use href="#g${i - 1}"/>`.repeat(10)}</g>`;
    expect(() => page(text)).toThrow(/too many elements/);
  });
  test('20 MB of paths', () => {
    expect(() => importSvg(new Uint8Array(20_000_000), clipper)).toThrow(/20\.0 MB, and the most is 8 MB/);
  });
  test('text beside outlines is left out with a note', () => {
    expect(page('<text>x</text><rect width="9" height="9"/>').notes[0]).toMatch(/turn the text into outlines/);
  });
});
