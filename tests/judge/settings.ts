import type { Cut } from '../../core/src/cuts/kinds.ts';
import { type Asked, BEAM, between, type Dice, n, pick, say } from './asked.ts';
import { laserSettings } from './settings-laser.ts';

/** Settings over their whole allowed range, most of them such as carvers use. */
export function settingsFrom(dice: Dice, kind: Cut['kind']): Asked {
  const diameter =
    kind === 'v-carve'
      ? n(between(dice, 2, 60), 2)
      : pick(dice, [0.8, 1, 1.5, 2, 3, 3.175, 4, 6, 6.35, n(between(dice, 0.5, 12))]);
  const asked: Asked = {
    kind,
    options: '',
    diameter,
    slope: 0,
    flat: 0,
    clear: [],
    depth: n(dice() < 0.8 ? between(dice, 0.2, 8) : between(dice, 0.01, 30)),
    startDepth: 0,
    perPass: 0,
    lastPass: 0,
    step: 0,
    finish: 0,
    ramp: 0,
    climb: dice() < 0.6,
    side: pick(dice, ['outside', 'inside', 'on'] as const),
    tabs: { count: 0, length: 6, height: 1.5 },
    skin: 0,
    lead: 0,
    peck: 0,
    lines: false,
    fit: 0.06,
    join: 0.1,
    pattern: 'outline',
    angle: 45,
    solid: false,
    delay: 0,
    cutHeight: 0,
    ...BEAM,
  };
  const words: string[] = [];
  if (dice() < 0.15) words.push('--no-arcs');
  if (dice() < 0.2) say(words, 'units', 'in');
  if (dice() < 0.2) say(words, 'zero', 'centre');
  if (kind.startsWith('laser-')) {
    laserSettings(dice, asked, words);
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'v-carve') {
    const angle = pick(dice, [15, 20, 30, 60, 60, 90, 90, 120, 150, n(between(dice, 10, 170), 1)]);
    const tip = dice() < 0.4 ? n(between(dice, 0, Math.min(0.8, diameter / 2)), 2) : 0;
    asked.slope = Math.tan((angle * Math.PI) / 360);
    asked.flat = tip / 2;
    say(words, 'bit', `v${angle}:${diameter}${tip ? `:${tip}` : ''}`);
    asked.depth = dice() < 0.6 ? n(between(dice, 0.1, 6)) : 200;
    if (asked.depth < 200) say(words, 'max-depth', asked.depth);
    asked.step = n(between(dice, 0.1, 1.5));
    say(words, 'step', `${asked.step}mm`);
    if (dice() < 0.3) say(words, 'depth-per-pass', (asked.perPass = n(between(dice, 0.3, 4))));
    if (dice() < 0.15 && asked.depth > 0.5)
      say(words, 'start-depth', (asked.startDepth = n(between(dice, 0, asked.depth / 2))));
    if (dice() < 0.3) for (const d of [6, 3].slice(dice() < 0.5 ? 1 : 0)) asked.clear.push(d);
    for (const d of asked.clear) say(words, 'clear-bit', `end:${d}`);
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'drag') {
    // The line's width stands where others have a diameter, and how far it is pressed where they have a depth.
    asked.diameter = n(between(dice, 0.05, 1.2), 2);
    asked.depth = n(between(dice, 0.1, 5), 2);
    say(words, 'bit', `drag:${asked.diameter}`);
    say(words, 'pressed', asked.depth);
    say(words, 'pattern', (asked.pattern = pick(dice, ['outline', 'hatch', 'cross', 'rings'] as const)));
    asked.solid = dice() < 0.5;
    asked.step = n(asked.diameter * (asked.solid ? between(dice, 0.3, 1) : between(dice, 0.5, 3)));
    if (asked.pattern !== 'outline') {
      say(words, 'step', `${asked.step}mm`);
      say(words, 'angle', `${(asked.angle = n(between(dice, -180, 180), 1))}deg`);
      say(words, 'fill', asked.solid ? 'solid' : 'textured');
    } else if (dice() < 0.6) say(words, 'join', (asked.join = n(between(dice, 0, 1), 2)));
    if (dice() < 0.2) say(words, 'passes', Math.floor(between(dice, 2, 4)));
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'plasma') {
    asked.diameter = n(between(dice, 0.4, 3), 2);
    say(words, 'kerf', asked.diameter);
    asked.side = pick(dice, ['outside', 'outside', 'inside'] as const);
    say(words, 'side', asked.side);
    asked.delay = n(between(dice, 0, 1.5), 2);
    asked.cutHeight = n(between(dice, 0.5, 3), 2);
    say(words, 'pierce-delay', asked.delay);
    say(words, 'cut-height', asked.cutHeight);
    say(words, 'pierce-height', n(asked.cutHeight + between(dice, 0, 3), 2));
    say(words, 'thickness', n(between(dice, 0.5, 12), 2));
    if (dice() < 0.8) say(words, 'lead', `${pick(dice, ['arc', 'line'])}:${n(between(dice, 0.2, 8), 2)}`);
    if (dice() < 0.3) say(words, 'overburn', n(between(dice, 0, 5), 2));
    if (dice() < 0.3) say(words, 'lead-out', n(between(dice, 0, 6), 2));
    say(words, 'feed', Math.round(between(dice, 300, 6000)));
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'drill') {
    say(words, 'bit', `drill:${diameter}`);
    say(words, 'depth', asked.depth);
    if (dice() < 0.6) say(words, 'peck', (asked.peck = n(Math.max(asked.depth / 40, between(dice, 0.2, 4)))));
    if (dice() < 0.3) say(words, 'dwell', n(between(dice, 0.1, 2), 1));
    asked.options = words.join(' ');
    return asked;
  }
  say(words, 'bit', `end:${diameter}`);
  say(words, 'depth', asked.depth);
  asked.perPass = n(Math.max(asked.depth / 12, dice() < 0.2 ? asked.depth : between(dice, 0.2, 4)));
  say(words, 'depth-per-pass', asked.perPass);
  if (dice() < 0.2) {
    const thin = n(Math.min(asked.perPass, asked.depth * 0.9) * between(dice, 0.05, 1));
    if (thin > 0.001 && thin < asked.depth) say(words, 'last-pass', (asked.lastPass = thin));
  }
  if (kind === 'line') {
    if (dice() < 0.6) say(words, 'join', (asked.join = n(between(dice, 0, 1), 2)));
    asked.options = words.join(' ');
    return asked;
  }
  if (!asked.climb) words.push('--conventional');
  if (kind === 'profile') {
    say(words, 'side', asked.side);
    if (dice() < 0.5) say(words, 'ramp', `${(asked.ramp = n(between(dice, 0.5, 30), 1))}deg`);
    if (dice() < 0.35) {
      asked.tabs = {
        count: Math.floor(between(dice, 1, 6)),
        length: n(between(dice, 0.5, 8), 2),
        height: n(between(dice, 0.2, 3), 2),
      };
      say(words, 'tabs', asked.tabs.count);
      say(words, 'tab', `${asked.tabs.length}x${asked.tabs.height}`);
    }
    if (dice() < 0.2) say(words, 'skin', (asked.skin = n(Math.min(asked.depth * 0.8, between(dice, 0.05, 0.5)))));
    if (dice() < 0.3) say(words, 'finish', (asked.finish = n(Math.min(0.5 * diameter, between(dice, 0.05, 0.6)))));
    if (dice() < 0.3) say(words, 'lead', `${pick(dice, ['arc', 'line'])}:${(asked.lead = n(between(dice, 0.5, 4)))}`);
    if (dice() < 0.2) say(words, 'overlap', n(between(dice, 0, 5)));
    asked.options = words.join(' ');
    return asked;
  }
  asked.step = n(diameter * (dice() < 0.25 ? between(dice, 0.9, 1) : between(dice, 0.1, 0.95)));
  say(words, 'step', `${asked.step}mm`);
  asked.ramp = dice() < 0.2 ? 0 : n(between(dice, 0.5, 30), 1);
  say(words, 'ramp', `${asked.ramp}deg`);
  if (kind === 'inlay') {
    if (dice() < 0.7) say(words, 'allowance', (asked.fit = n(Math.min(diameter / 4, 0.3) * between(dice, -1, 1))));
    if (dice() < 0.3) {
      asked.tabs = { count: Math.floor(between(dice, 1, 5)), length: n(between(dice, 0.5, 6), 2), height: n(between(dice, 0.2, 2), 2) }; // prettier-ignore
      say(words, 'tabs', asked.tabs.count);
      say(words, 'tab', `${asked.tabs.length}x${asked.tabs.height}`);
    }
    asked.options = words.join(' ');
    return asked;
  }
  if (dice() < 0.4) {
    words.push('--pattern lines', `--angle ${n(between(dice, 0, 180), 0)}deg`);
    asked.lines = true;
  }
  if (dice() < 0.4) say(words, 'finish', (asked.finish = n(Math.min(0.5 * diameter, between(dice, 0.02, 0.6)))));
  if (dice() < 0.4) words.push('--slots');
  if (dice() < 0.15) say(words, 'start-depth', (asked.startDepth = n(asked.depth * between(dice, 0, 0.6))));
  if (dice() < 0.3) {
    asked.clear = [diameter * between(dice, 1.7, 3), diameter * between(dice, 1.1, 1.6)]
      .slice(dice() < 0.6 ? 1 : 0)
      .map((d) => n(d, 2));
    for (const d of asked.clear) say(words, 'clear-bit', `end:${d}`);
  }
  asked.options = words.join(' ');
  return asked;
}

/** The same from the words of a command. */
export function askedFor(kind: Cut['kind'], options: string): Asked {
  const word = (name: string, fallback = '') => new RegExp(`--${name}[ =](\\S+)`).exec(options)?.[1] ?? fallback;
  const number = (name: string, fallback = 0) => parseFloat(word(name, String(fallback)));
  const [shape, width, tip = '0'] = word('bit', word('beam') ? `beam:${word('beam')}` : `kerf:${word('kerf')}`).split(':'); // prettier-ignore
  const diameter = parseFloat(width);
  const angle = shape.startsWith('v') ? parseFloat(shape.slice(1)) : 0;
  const depth = number('depth', number('pressed', number('max-depth', 200)));
  const tab = word('tab', '6x1.5').split('x').map(Number);
  return {
    kind,
    options,
    diameter,
    slope: Math.tan((angle * Math.PI) / 360),
    flat: parseFloat(tip) / 2,
    clear: [...options.matchAll(/--clear-bit end:(\S+)/g)].map((found) => parseFloat(found[1])),
    depth,
    startDepth: number('start-depth'),
    perPass: number('depth-per-pass', Math.min(depth, diameter)),
    lastPass: number('last-pass'),
    step: word('lines') ? 1 / number('lines') : number('step', kind === 'v-carve' ? 0.5 : 0.4 * diameter),
    finish: number('finish'),
    ramp: number('ramp', kind === 'profile' ? 0 : 5),
    climb: !options.includes('--conventional'),
    side: word('side', 'outside') as Asked['side'],
    tabs: { count: number('tabs'), length: tab[0], height: tab[1] },
    skin: number('skin'),
    lead: parseFloat(word('lead', 'none:0').split(':')[1] ?? '3'),
    peck: number('peck'),
    lines: word('pattern') === 'lines',
    fit: number('allowance', 0.06),
    join: number('join', 0.1),
    pattern: word('pattern', 'outline') as Asked['pattern'],
    angle: number('angle', 45),
    solid: word('fill') === 'solid',
    delay: number('pierce-delay'),
    cutHeight: number('cut-height'),
    power: number('power'),
    feed: number('feed'),
    passes: number('passes', BEAM.passes),
    kerf: number('kerf', diameter),
    overburn: number('overburn', BEAM.overburn),
    oneWay: word('ways') === 'one',
    earlier: number('earlier'),
  };
}
