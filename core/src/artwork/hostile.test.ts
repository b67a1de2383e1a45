import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { ArtworkError } from './artwork-error.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { importSvg } from './svg.ts';

const page = (inner: string, attributes = 'width="100mm" height="100mm" viewBox="0 0 100 100"') =>
  new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inner}</svg>`);

const refusal = (bytes: Uint8Array): string => {
  try {
    importSvg(bytes, clipper);
  } catch (error) {
    if (error instanceof ArtworkError) return error.message;
    throw error;
  }
  return 'taken';
};

/** References that double at every step. */
const doubling = (steps: number, shape: string) =>
  `<g id="a0">${shape}</g>` +
  Array.from({ length: steps }, (_, k) => `<g id="a${k + 1}"><use href="#a${k}"/><use href="#a${k}"/></g>`).join('');

describe('a drawing that asks for more than is sensible is refused before it costs anything', () => {
  const curve = (n: number) => `<path d="M0 0C${n} 0 0 ${n} 9 9"/>`;
  it.each([
    ['a control point at 1e13', page(curve(1e13)), 'further than 100 m'],
    ['a control point at 1e300', page(curve(1e300)), 'further than 100 m'],
    ['a control point that overflows', page('<path d="M0 0C1e400 0 0 9 9 9"/>'), 'further than 100 m'],
    ['a relative way that adds up', page('<path d="M0 0l9e4 0 9e4 0 0 5z"/>'), 'further than 100 m'],
    ['an arc of a huge radius', page('<path d="M0 0A1e13 1e13 0 1 1 9 9"/>'), 'further than 100 m'],
    ['a large arc', page('<path d="M0 0A1e8 1e8 0 1 1 9 9"/>'), 'm large'],
    ['a rect wider than any bench', page('<rect width="52000" height="300"/>'), '52 × 0.3 m large'],
    [
      'a page of a kilometre',
      page('<rect width="5" height="5"/>', 'width="1000000mm" height="1mm"'),
      'larger than 100 m',
    ],
    ['a scale of 1e12', page('<rect transform="scale(1e12)" width="5" height="5"/>'), 'further than 100 m'],
    [
      'uses that multiply points',
      page(`<path id="p" d="M0 0${'C9 9 5 5 9 0'.repeat(2000)}"/>${'<use href="#p"/>'.repeat(20000)}`),
      'points',
    ],
    ['uses that multiply elements', page(doubling(40, '<rect width="5" height="5"/>')), 'too many elements'],
    ['uses in a circle', page('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'), 'circle'],
    [
      'a chain of 50,000 references',
      page(
        '<rect id="u0" width="5" height="5"/>' +
          Array.from({ length: 50_000 }, (_, k) => `<use id="u${k + 1}" href="#u${k}"/>`)
            .reverse()
            .join(''),
      ),
      'nested too deeply',
    ],
    ['groups 200,000 deep', page('<g>'.repeat(200_000)), 'nested too deeply'],
    ['more than 100,000 outlines', page(`<path d="${'M0 0h1v1z'.repeat(130_000)}"/>`), 'outlines'],
    [
      'a transform of megabytes',
      page(`<rect transform="${'a'.repeat(4_000_000)}" width="5" height="5"/>`),
      'transform',
    ],
    [
      'a length of megabytes',
      page(`<rect width="${'1'.repeat(4_000_000)}x" height="5"/><path d="M0 0h9v9z"/>`),
      'length that cannot be read',
    ],
  ])('%s', (_, bytes, words) => {
    expect(refusal(bytes)).toContain(words);
  });
  it('refuses the star with a point 100 m away, with its size', () => {
    const bytes = readFileSync(new URL('../../../tests/drawings/far-point.svg', import.meta.url));
    expect(refusal(bytes)).toMatch(/^The drawing is 100 × 0\.1 m large, and 10 m are the most; check its page size/);
  });
  it('takes an arc that is all but a line', () => {
    expect(
      importSvg(page('<path d="M0 0A9e8 9e8 0 0 1 90 90L90 0z"/>'), clipper).shapes[0].outlines[0].points.length,
    ).toBeLessThan(12);
  });
});
