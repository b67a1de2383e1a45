import { random } from './faults/random.ts';

/**
 * A made-up SVG drawing in which styles, classes, references, windows and clip paths meet at random. All that shows is
 * filled, so that what a browser paints is what must be taken.
 */
export function madeDrawing(seed: number): string {
  const rng = random(seed);
  rng();
  const one = <T>(list: readonly T[]): T => list[Math.floor(rng() * list.length)];
  const chance = (share: number) => rng() < share;
  const number = (from: number, to: number) => Math.round((from + rng() * (to - from)) * 10) / 10;
  const many = (most: number, make: () => string) =>
    Array.from({ length: 1 + Math.floor(rng() * most) }, make).join('');
  const length = (from: number, to: number, whole = 100) =>
    one([
      () => `${number(from, to)}`,
      () => `${number(from, to)}`,
      () => `${number(from, to)}px`,
      () => `${number((from * 100) / whole, (to * 100) / whole)}%`,
      () => `${number(from / 4, to / 4)}mm`,
      () => `${number(from / 16, to / 16)}em`,
    ])();
  const classes = ['a', 'b', 'c', 'd'];
  const say = (quoteClip = true) =>
    one([
      () => `fill:${one(['none', 'black', '#123', 'red', 'inherit'])}`,
      () => `fill-rule:${one(['evenodd', 'nonzero', 'inherit'])}`,
      () => `clip-rule:${one(['evenodd', 'nonzero'])}`,
      () => `display:${one(['none', 'inline', 'inline', 'inline'])}`,
      () => `visibility:${one(['hidden', 'visible', 'collapse', 'inherit'])}`,
      () => (quoteClip && chance(0.5) ? `clip-path:url(${one(['#k0', '"#k2"', '#nothing'])})` : 'opacity:1'),
      () => `font-size:${one(['8px', '20px', '150%', '2em'])}`,
      () => `overflow:${one(['visible', 'hidden'])}`,
    ])();
  const important = () => (chance(0.15) ? '!important' : '');
  const selector = (): string =>
    one([
      () => `.${one(classes)}`,
      () => `.${one(classes)}`,
      () => `.${one(classes)}.${one(classes)}`,
      () => one(['path', 'rect', 'g', 'circle', '*']),
      () => `g .${one(classes)}`,
      () => `g > ${one(['rect', 'path', '.a'])}`,
      () => `.${one(classes)}, #n${Math.floor(rng() * 9)}`,
      () => `[class~="${one(classes)}"]`,
      () => `${one(['rect', 'path'])}:not(.${one(classes)})`,
      () => `g:first-child`,
      () => `.${one(classes)} + ${one(['rect', 'path', '*'])}`,
    ])();
  const rule = () => `${selector()} { ${say()}${important()}; ${say()} }\n`;
  let ids = 0;
  const turned = () =>
    one([
      () => `translate(${number(-20, 20)} ${number(-20, 20)})`,
      () => `rotate(${number(-90, 90)})`,
      () => `rotate(${number(-90, 90)}, 50, 50)`,
      () => `scale(${one(['-1', '0.5', '1.5', '1 -1'])}) translate(${number(-40, 40)})`,
      () => `skewX(${number(-30, 30)})`,
      () => `matrix(0.8 0.3 -0.2 1.1 ${number(-9, 9)} 4)`,
    ])();
  // The box around a group whose parts are turned is looser in Chromium than the standard has it.
  const look = (clipped = true, boxed = false) =>
    [
      chance(0.6) ? ` class="${many(2, () => `${one(classes)} `).trim()}"` : '',
      chance(0.3) ? ` style="${say(false)}${important()}; ${say(false)}"` : '',
      chance(0.2) ? ` fill="${one(['none', 'black', 'blue'])}"` : '',
      chance(0.2) ? ' fill-rule="evenodd"' : '',
      chance(0.1) ? ` visibility="${one(['hidden', 'visible'])}"` : '',
      chance(0.25) ? ` transform="${turned()}"` : '',
      clipped && chance(0.15) ? ` clip-path="url(${one(boxed ? ['#k0', '#k1', '#k1', '#k2'] : ['#k0', '#k2'])})"` : '',
      chance(0.4) ? ` id="n${ids++}"` : '',
    ].join('');
  // Chromium drops the window of an inner `svg` that has a clip path, and of a symbol too.
  const unclipped = (text: string) =>
    `${text.replace(/ (id|style|clip-path)="[^"]*"/g, '')} style="clip-path:none!important"`;
  // Chromium unites clip shapes that cross themselves wrongly.
  const shape = (clipped = true, crossing = true): string =>
    one<() => string>([
      () => `<rect x="${length(0, 60)}" y="${length(0, 60)}" width="${length(5, 50)}" height="${length(5, 50)}" rx="${number(-2, 9)}"${look(clipped, true)}/>`,
      () => `<circle cx="${length(20, 80)}" cy="${length(20, 80)}" r="${length(5, 30)}"${look(clipped, true)}/>`,
      () => `<ellipse cx="${number(20, 80)}" cy="${number(20, 80)}" rx="${length(5, 40)}" ry="${number(5, 30)}"${look(clipped, true)}/>`,
      () => `<path d="M${number(10, 30)} 10 h60 v60 h-60z m15 15 h30 v30 h-30z"${look(clipped, true)}/>`,
      () => `<path d="M20 50 C20 ${number(0, 30)} 80 ${number(0, 30)} 80 50 S20 ${number(70, 99)} 20 50z"${look(clipped, true)}/>`,
      ...(crossing
        ? [
          () => `<polygon points="${[0, 1, 2, 3, 4].map(() => `${number(0, 100)},${number(0, 100)}`).join(' ')}"${look(clipped, true)}/>`,
          () => `<path d="M50 ${number(2, 20)} L80 95 L5 35 L95 35 L20 95 Z"${look(clipped, true)}/>`,
          ]
        : []),
    ])(); // prettier-ignore
  const aspect = () =>
    chance(0.6)
      ? ` preserveAspectRatio="${one(['none', `x${one(['Min', 'Mid', 'Max'])}Y${one(['Min', 'Mid', 'Max'])} ${one(['meet', 'slice'])}`, 'xMaxYMin'])}"`
      : '';
  const view = () =>
    chance(0.7)
      ? ` viewBox="${number(-10, 10)} ${number(-10, 10)} ${number(40, 120)},${number(40, 120)}"${aspect()}`
      : '';
  const element = (depth: number): string =>
    one<() => string>([
      ...(depth < 3
        ? [
            () => `<g${look()}>${many(3, () => element(depth + 1))}</g>`,
            () => `<g${look()}>${many(3, () => element(depth + 1))}</g>`,
            () => `<svg x="${length(-10, 40)}" y="${number(0, 40)}" width="${length(20, 80)}" height="${length(20, 80)}"${view()}${unclipped(look())}>${many(2, () => element(depth + 1))}</svg>`,
            () => `<switch><g requiredExtensions="http://example.org/no">${shape()}</g><g systemLanguage="de">${shape()}</g>${element(depth + 1)}${shape()}</switch>`,
          ]
        : []),
      () => shape(), () => shape(), () => shape(),
      () => `<use href="#${one(['p0', 'p1', 'p1', 'none'])}" x="${length(-20, 40)}" y="${number(-20, 40)}"${look()}/>`,
      () => `<use xlink:href="#s${Math.floor(rng() * 2)}" x="${number(-20, 40)}" y="${length(-20, 40)}"${chance(0.7) ? ` width="${number(20, 80)}%" height="${number(20, 80)}"` : ''}${look()}/>`,
    ])(); // prettier-ignore
  // What is referred to refers to nothing itself, so that nothing can turn in a circle.
  const clipPath = (k: number) =>
    `<clipPath id="k${k}"${k === 1 ? ' clipPathUnits="objectBoundingBox"' : ''}${chance(0.3) ? ' transform="translate(5 3)"' : ''}${k === 2 && chance(0.4) ? ' clip-path="url(#k0)"' : ''}>${
      k === 1
        ? `<rect x="0.1" y="0.2" width="0.7" height="${one(['0.5', '60%'])}"/>`
        : many(2, () => (chance(0.2) ? '<use href="#p0" x="8"/>' : shape(false, false)))
    }</clipPath>`;
  const page = one([
    'width="100mm" height="100mm" viewBox="0 0 100 100"',
    'width="120mm" height="60mm" viewBox="-5 0 110 100" preserveAspectRatio="xMinYMax meet"',
    'width="4in" height="3in" viewBox="0 0 100 100" preserveAspectRatio="none"',
    'width="378" height="378" viewBox="0,0,100,100"',
    'width="100" height="100"',
    'width="80mm" viewBox="0 0 100 90"',
  ]);
  // The body comes first, so that ids are known from the beginning of the file on.
  const body = many(5, () => element(0));
  const clips = [0, 1, 2].map(clipPath).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${page}>
<style><![CDATA[${many(6, rule)}]]></style><defs><path id="p0" d="M10 10h30v25h-30z"/><g id="p1"${look(false).replace(/ id="n\d+"/, '')}>${shape(false)}${shape(false)}</g>
<symbol id="s0"${view()}${unclipped(look(false))}>${shape(false)}${shape(false)}</symbol><symbol id="s1"${view()}${unclipped('')}>${shape(false)}</symbol>${clips}</defs>
${body}</svg>`;
}
