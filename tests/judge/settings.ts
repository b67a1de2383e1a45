import type { Cut } from '../../core/src/cuts/kinds.ts';

type Dice = () => number;
const between = (dice: Dice, low: number, high: number) => low + dice() * (high - low);
const pick = <T>(dice: Dice, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(dice() * list.length))];
const n = (value: number, decimals = 3) => Number(value.toFixed(decimals));

/** What a cut was asked for, as the judge needs it, and as the command takes it. */
export interface Asked {
  kind: Cut['kind'];
  options: string;
  /** Diameter of the bit, mm. */
  diameter: number;
  /** Of a V-bit: half-width gained a mm of depth, and the radius of its flat tip, mm. */
  slope: number;
  flat: number;
  clear: number[];
  depth: number;
  startDepth: number;
  perPass: number;
  lastPass: number;
  step: number;
  finish: number;
  /** Degrees; 0 plunges. */
  ramp: number;
  climb: boolean;
  side: 'outside' | 'inside' | 'on';
  tabs: { count: number; length: number; height: number };
  skin: number;
  lead: number;
  peck: number;
  lines: boolean;
  /** Of the pair of an inlay, mm a side: a gap, or below 0 a press. */
  fit: number;
  /** Of lines: how near their ends are joined. */
  join: number;
  /** Of a drag point: how its lines fill, at which angle, degrees, and whether stripes may stay. */
  pattern: 'outline' | 'hatch' | 'cross' | 'rings';
  angle: number;
  solid: boolean;
  /** Of an arc: seconds at a pierce, and how high it cuts, mm; its kerf stands where others have a diameter. */
  delay: number;
  cutHeight: number;
}

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
  };
  const words: string[] = [];
  const say = (name: string, value: string | number) => words.push(`--${name} ${value}`);
  if (dice() < 0.15) words.push('--no-arcs');
  if (dice() < 0.2) say('units', 'in');
  if (dice() < 0.2) say('zero', 'centre');
  if (kind === 'v-carve') {
    const angle = pick(dice, [15, 20, 30, 60, 60, 90, 90, 120, 150, n(between(dice, 10, 170), 1)]);
    const tip = dice() < 0.4 ? n(between(dice, 0, Math.min(0.8, diameter / 2)), 2) : 0;
    asked.slope = Math.tan((angle * Math.PI) / 360);
    asked.flat = tip / 2;
    say('bit', `v${angle}:${diameter}${tip ? `:${tip}` : ''}`);
    asked.depth = dice() < 0.6 ? n(between(dice, 0.1, 6)) : 200;
    if (asked.depth < 200) say('max-depth', asked.depth);
    asked.step = n(between(dice, 0.1, 1.5));
    say('step', `${asked.step}mm`);
    if (dice() < 0.3) say('depth-per-pass', (asked.perPass = n(between(dice, 0.3, 4))));
    if (dice() < 0.15 && asked.depth > 0.5)
      say('start-depth', (asked.startDepth = n(between(dice, 0, asked.depth / 2))));
    if (dice() < 0.3) for (const d of [6, 3].slice(dice() < 0.5 ? 1 : 0)) asked.clear.push(d);
    for (const d of asked.clear) say('clear-bit', `end:${d}`);
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'drag') {
    // The line's width stands where others have a diameter, and how far it is pressed where they have a depth.
    asked.diameter = n(between(dice, 0.05, 1.2), 2);
    asked.depth = n(between(dice, 0.1, 5), 2);
    say('bit', `drag:${asked.diameter}`);
    say('pressed', asked.depth);
    say('pattern', (asked.pattern = pick(dice, ['outline', 'hatch', 'cross', 'rings'] as const)));
    asked.solid = dice() < 0.5;
    asked.step = n(asked.diameter * (asked.solid ? between(dice, 0.3, 1) : between(dice, 0.5, 3)));
    if (asked.pattern !== 'outline') {
      say('step', `${asked.step}mm`);
      say('angle', `${(asked.angle = n(between(dice, -180, 180), 1))}deg`);
      say('fill', asked.solid ? 'solid' : 'textured');
    } else if (dice() < 0.6) say('join', (asked.join = n(between(dice, 0, 1), 2)));
    if (dice() < 0.2) say('passes', Math.floor(between(dice, 2, 4)));
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'plasma') {
    asked.diameter = n(between(dice, 0.4, 3), 2);
    say('kerf', asked.diameter);
    asked.side = pick(dice, ['outside', 'outside', 'inside'] as const);
    say('side', asked.side);
    asked.delay = n(between(dice, 0, 1.5), 2);
    asked.cutHeight = n(between(dice, 0.5, 3), 2);
    say('pierce-delay', asked.delay);
    say('cut-height', asked.cutHeight);
    say('pierce-height', n(asked.cutHeight + between(dice, 0, 3), 2));
    say('thickness', n(between(dice, 0.5, 12), 2));
    if (dice() < 0.8) say('lead', `${pick(dice, ['arc', 'line'])}:${n(between(dice, 0.2, 8), 2)}`);
    if (dice() < 0.3) say('overburn', n(between(dice, 0, 5), 2));
    if (dice() < 0.3) say('lead-out', n(between(dice, 0, 6), 2));
    say('feed', Math.round(between(dice, 300, 6000)));
    asked.options = words.join(' ');
    return asked;
  }
  if (kind === 'drill') {
    say('bit', `drill:${diameter}`);
    say('depth', asked.depth);
    if (dice() < 0.6) say('peck', (asked.peck = n(Math.max(asked.depth / 40, between(dice, 0.2, 4)))));
    if (dice() < 0.3) say('dwell', n(between(dice, 0.1, 2), 1));
    asked.options = words.join(' ');
    return asked;
  }
  say('bit', `end:${diameter}`);
  say('depth', asked.depth);
  asked.perPass = n(Math.max(asked.depth / 12, dice() < 0.2 ? asked.depth : between(dice, 0.2, 4)));
  say('depth-per-pass', asked.perPass);
  if (dice() < 0.2) {
    const thin = n(Math.min(asked.perPass, asked.depth * 0.9) * between(dice, 0.05, 1));
    if (thin > 0.001 && thin < asked.depth) say('last-pass', (asked.lastPass = thin));
  }
  if (kind === 'line') {
    if (dice() < 0.6) say('join', (asked.join = n(between(dice, 0, 1), 2)));
    asked.options = words.join(' ');
    return asked;
  }
  if (!asked.climb) words.push('--conventional');
  if (kind === 'profile') {
    say('side', asked.side);
    if (dice() < 0.5) say('ramp', `${(asked.ramp = n(between(dice, 0.5, 30), 1))}deg`);
    if (dice() < 0.35) {
      asked.tabs = {
        count: Math.floor(between(dice, 1, 6)),
        length: n(between(dice, 0.5, 8), 2),
        height: n(between(dice, 0.2, 3), 2),
      };
      say('tabs', asked.tabs.count);
      say('tab', `${asked.tabs.length}x${asked.tabs.height}`);
    }
    if (dice() < 0.2) say('skin', (asked.skin = n(Math.min(asked.depth * 0.8, between(dice, 0.05, 0.5)))));
    if (dice() < 0.3) say('finish', (asked.finish = n(Math.min(0.26 * diameter, between(dice, 0.05, 0.5)))));
    if (dice() < 0.3) say('lead', `${pick(dice, ['arc', 'line'])}:${(asked.lead = n(between(dice, 0.5, 4)))}`);
    if (dice() < 0.2) say('overlap', n(between(dice, 0, 5)));
    asked.options = words.join(' ');
    return asked;
  }
  asked.step = n(diameter * (dice() < 0.25 ? between(dice, 0.9, 1) : between(dice, 0.1, 0.95)));
  say('step', `${asked.step}mm`);
  asked.ramp = dice() < 0.2 ? 0 : n(between(dice, 0.5, 30), 1);
  say('ramp', `${asked.ramp}deg`);
  if (kind === 'inlay') {
    if (dice() < 0.7) say('allowance', (asked.fit = n(Math.min(diameter / 4, 0.3) * between(dice, -1, 1))));
    if (dice() < 0.3) {
      asked.tabs = { count: Math.floor(between(dice, 1, 5)), length: n(between(dice, 0.5, 6), 2), height: n(between(dice, 0.2, 2), 2) }; // prettier-ignore
      say('tabs', asked.tabs.count);
      say('tab', `${asked.tabs.length}x${asked.tabs.height}`);
    }
    asked.options = words.join(' ');
    return asked;
  }
  if (dice() < 0.4) {
    words.push('--pattern lines', `--angle ${n(between(dice, 0, 180), 0)}deg`);
    asked.lines = true;
  }
  if (dice() < 0.4) say('finish', (asked.finish = n(Math.min(0.26 * diameter, between(dice, 0.02, 0.5)))));
  if (dice() < 0.4) words.push('--slots');
  if (dice() < 0.15) say('start-depth', (asked.startDepth = n(asked.depth * between(dice, 0, 0.6))));
  if (dice() < 0.3) {
    asked.clear = [diameter * between(dice, 1.7, 3), diameter * between(dice, 1.1, 1.6)]
      .slice(dice() < 0.6 ? 1 : 0)
      .map((d) => n(d, 2));
    for (const d of asked.clear) say('clear-bit', `end:${d}`);
  }
  asked.options = words.join(' ');
  return asked;
}

/** The same from the words of a command. */
export function askedFor(kind: Cut['kind'], options: string): Asked {
  const word = (name: string, fallback = '') => new RegExp(`--${name}[ =](\\S+)`).exec(options)?.[1] ?? fallback;
  const number = (name: string, fallback = 0) => parseFloat(word(name, String(fallback)));
  const [shape, width, tip = '0'] = word('bit', `kerf:${word('kerf')}`).split(':');
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
    step: number('step', kind === 'v-carve' ? 0.5 : 0.4 * diameter),
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
  };
}
