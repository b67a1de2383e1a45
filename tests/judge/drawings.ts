import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Font } from 'opentype.js';
import { FACE_FILES } from '../../core/src/artwork/faces.ts';
import { readFace } from '../../core/src/artwork/lettering.ts';
import { between, box, type Dice, type Loop, type Made, ring, whole, withoutSpikes } from './loops.ts';
import { type Page, plainPage, skewedPage } from './page-of.ts';
import { braid, coastline, dragon, gear, koch, scribble } from './wild-drawings.ts';

/** A drawing and the outlines that are meant by it, mm with y up, as the stock lies; even-odd inside. */
export interface Drawn {
  kind: string;
  svg: string;
  loops: Loop[];
  width: number;
  height: number;
  /** Its lines end where they are drawn to, and have no inside. */
  open?: boolean;
}

/** Distance between a curve and the chords that stand for it here, mm. */
const FLAT = 0.0005;
let flat = FLAT;

type Maker = (dice: Dice) => Made;

const blob = (dice: Dice, x: number, y: number, size: number, n: number): Loop => {
  const waves = Array.from({ length: 5 }, (_, k) => [between(dice, 0, 0.35 / (k + 1)), between(dice, 0, 7)]);
  return ring(
    x,
    y,
    (a) => size * (1 + waves.reduce((sum, [high, at], k) => sum + high * Math.sin((k + 2) * a + at), 0) / 2),
    n,
  );
};

/** The faces that come with Kerbe, and ten more of other weights and slants. */
const FACES = [
  ...Object.values(FACE_FILES),
  ...[
    'fraunces/100Thin/Fraunces_100Thin',
    'fraunces/300Light_Italic/Fraunces_300Light_Italic',
    'fraunces/900Black/Fraunces_900Black',
    'fraunces/900Black_Italic/Fraunces_900Black_Italic',
    'josefin-sans/100Thin/JosefinSans_100Thin',
    'josefin-sans/400Regular_Italic/JosefinSans_400Regular_Italic',
    'josefin-sans/700Bold/JosefinSans_700Bold',
    'rokkitt/100Thin/Rokkitt_100Thin',
    'rokkitt/400Regular/Rokkitt_400Regular',
    'rokkitt/900Black/Rokkitt_900Black',
  ].map((name) => `@expo-google-fonts/${name}.ttf`),
];

const MAKERS: Record<string, Maker> = {
  blob: (dice) => ({ loops: [blob(dice, 0, 0, between(dice, 4, 18), whole(dice, 20, 160))] }),
  'short segments': (dice) => {
    const size = between(dice, 4, 12);
    return { loops: [ring(0, 0, () => size + between(dice, -0.01, 0.01), whole(dice, 150, 500))] };
  },
  star: (dice) => {
    const [n, out, inner] = [whole(dice, 3, 14), between(dice, 3, 15), between(dice, 0.3, 0.8)];
    return {
      loops: [
        Array.from({ length: 2 * n }, (_, k): [number, number] => {
          const r = (k % 2 ? out * inner : out) * between(dice, 0.9, 1.1);
          return [r * Math.cos((Math.PI * k) / n), r * Math.sin((Math.PI * k) / n)];
        }),
      ],
    };
  },
  comb: (dice) => {
    const [teeth, tooth, gap, high, back] = [
      whole(dice, 2, 8),
      between(dice, 0.4, 6),
      between(dice, 0.1, 4),
      between(dice, 3, 14),
      between(dice, 1, 6),
    ];
    const loop: Loop = [
      [0, -back],
      [teeth * (tooth + gap) - gap, -back],
    ];
    for (let k = teeth - 1; k >= 0; k--) {
      const x = k * (tooth + gap);
      loop.push([x + tooth, high], [x, high]);
      if (k > 0) loop.push([x, 0], [x - gap, 0]);
    }
    return { loops: [loop] };
  },
  spiral: (dice) => {
    const [turns, wide, pitch] = [between(dice, 1, 2.5), between(dice, 0.8, 4), between(dice, 5, 8)];
    const n = 60;
    const arm = (r: number) =>
      Array.from({ length: n + 1 }, (_, k): [number, number] => {
        const a = (2 * Math.PI * turns * k) / n;
        const d = 2 + (pitch * a) / (2 * Math.PI) + r;
        return [d * Math.cos(a), d * Math.sin(a)];
      });
    return { loops: [[...arm(wide / 2), ...arm(-wide / 2).reverse()]] };
  },
  hairline: (dice) => {
    const [w, h] = [between(dice, 8, 25), between(dice, 8, 25)];
    const slit = between(dice, 0.01, 0.2);
    const x = between(dice, 2, w - 2);
    const loop: Loop = [[0, 0], [x - slit / 2, 0], [x - slit / 2, h * 0.7], [x + slit / 2, h * 0.7], [x + slit / 2, 0], [w, 0], [w, h], [0, h]]; // prettier-ignore
    return { loops: [loop] };
  },
  islands: (dice) => {
    const [w, h] = [between(dice, 14, 40), between(dice, 14, 40)];
    const loops: Loop[] = [box(0, 0, w, h)];
    const nx = whole(dice, 1, 3);
    for (let k = 0; k < nx; k++)
      loops.push(
        blob(dice, ((k + 0.5) * w) / nx, h / 2 + between(dice, -1, 1), (between(dice, 0.2, 0.8) * w) / nx / 2.2, 40),
      );
    return { loops };
  },
  'near-touching': (dice) => {
    const gap = 10 ** between(dice, -4, -2);
    const [w, h] = [between(dice, 4, 20), between(dice, 4, 20)];
    const r = between(dice, 0.1, 0.3) * Math.min(w, h);
    const side = whole(dice, 0, 2);
    const y = between(dice, r + 0.3, h - r - 0.3);
    if (side === 0) return { loops: [box(0, 0, w, h), ring(r + gap, y, () => r, 48, Math.PI)] };
    if (side === 1) return { loops: [box(0, 0, w, h), box(gap, y - r, r, 2 * r)] };
    return { loops: [box(0, 0, w, h), ring(w / 2 - r - gap / 2, h / 2, () => r * 0.99, 40, 0), ring(w / 2 + r * 0.97 + gap, h / 2, () => r * 0.99, 40, Math.PI)] }; // prettier-ignore
  },
  touching: (dice) => {
    const n = whole(dice, 3, 30);
    const turn = between(dice, 0, 7);
    const r = between(dice, 2, 8);
    const first = ring(0, 0, () => r, n, turn);
    // The second takes two corners of the first, as rounded as the drawing writes them.
    const [a, b] = [first[0], first[1]];
    const [nx, ny] = [b[1] - a[1], a[0] - b[0]];
    const s = between(dice, 0.3, 2);
    const t = between(dice, 0.2, 0.8);
    const p: [number, number] = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
    return {
      loops: [
        first,
        dice() < 0.5
          ? [p, [p[0] + s * nx + s, p[1] + s * ny], [p[0] + s * nx, p[1] + s * ny + s]]
          : [b, a, [a[0] + s * nx, a[1] + s * ny], [b[0] + s * nx, b[1] + s * ny]],
      ],
    };
  },
  curves: (dice) => {
    const n = whole(dice, 3, 7);
    const size = between(dice, 5, 18);
    const points = ring(0, 0, () => size * between(dice, 0.6, 1), n);
    const handle = size * between(dice, 0.2, 0.55);
    const commands = [`M${points[0].join(' ')}`];
    const loop: Loop = [];
    points.forEach((p, k) => {
      const q = points[(k + 1) % n];
      const [ap, aq] = [p, q].map(([x, y]) => Math.atan2(y, x) + Math.PI / 2);
      const c1: [number, number] = [p[0] + handle * Math.cos(ap), p[1] + handle * Math.sin(ap)];
      const c2: [number, number] = [q[0] - handle * Math.cos(aq), q[1] - handle * Math.sin(aq)];
      commands.push(`C${[...c1, ...c2, ...q].join(' ')}`);
      loop.push(...bezier([p, c1, c2, q]));
    });
    return { loops: [loop], curves: [[...commands, 'Z']] };
  },
  letters: (dice) => {
    const font = face(FACES[whole(dice, 0, FACES.length - 1)]);
    const all = 'ABCDEFGHIKLMNOPQRSTUVWXYZabdefghkmnpqrstuvwxyz0123456789&';
    const text = Array.from({ length: whole(dice, 1, 3) }, () => all[whole(dice, 0, all.length - 1)]).join('');
    const made: Made = { loops: [], curves: [] };
    let at: [number, number] = [0, 0];
    let [loop, commands]: [Loop, string[]] = [[], []];
    const close = () => {
      if (loop.length === 0) return;
      made.loops.push(loop);
      made.curves!.push([...commands, 'Z']);
      [loop, commands] = [[], []];
    };
    // Apart, so that no letter lies over another: the inside is even-odd.
    let x0 = 0;
    const size = between(dice, 8, 40);
    for (const letter of text) {
      for (const c of font.getPath(letter, x0, 0, size).commands) {
        if (c.type === 'Z') continue;
        if (c.type === 'M') close();
        const to: [number, number] = [c.x, -c.y];
        if (c.type === 'C') {
          const [c1, c2]: Loop = [[c.x1, -c.y1], [c.x2, -c.y2]]; // prettier-ignore
          commands.push(`C${[...c1, ...c2, ...to].join(' ')}`);
          loop.push(...bezier([at, c1, c2, to]));
        } else if (c.type === 'Q') {
          const q: [number, number] = [c.x1, -c.y1];
          commands.push(`Q${[...q, ...to].join(' ')}`);
          loop.push(...bezier([at, q, to]));
        } else {
          commands.push(`${c.type}${to.join(' ')}`);
          loop.push(to);
        }
        at = to;
      }
      close();
      x0 += font.getAdvanceWidth(letter, size) + size * 0.1;
    }
    return made;
  },
  many: (dice) => {
    const loops: Loop[] = [];
    const pitch = between(dice, 6, 14);
    for (let i = 0; i < whole(dice, 2, 4); i++)
      for (let j = 0; j < whole(dice, 1, 3); j++)
        loops.push(blob(dice, i * pitch, j * pitch, pitch * between(dice, 0.15, 0.36), whole(dice, 4, 40)));
    return { loops };
  },
  slots: (dice) => {
    const loops: Loop[] = [];
    for (let k = 0; k < whole(dice, 1, 4); k++) loops.push(box(k * 12, 0, between(dice, 1, 8), between(dice, 5, 30)));
    return { loops };
  },
  scribble,
  dragon,
  koch,
  braid,
  gear,
  coastline,
};

export const DRAWING_KINDS = Object.keys(MAKERS);

/** A drawing by chance: mostly small, some large; one compound path, or one path a loop where none lies in another. */
export function drawingFrom(dice: Dice, kind = DRAWING_KINDS[whole(dice, 0, DRAWING_KINDS.length - 1)]): Drawn {
  const thrown: number[] = [];
  let made = MAKERS[kind](() => {
    thrown.push(dice());
    return thrown[thrown.length - 1];
  });
  const scale = dice() < 0.06 ? between(dice, 3, 20) : dice() < 0.3 ? between(dice, 0.3, 1) : 1;
  if (scale > 1) {
    // Once more, with chords that are as near to their curves when they are larger.
    flat = FLAT / scale;
    made = MAKERS[kind](() => thrown.shift()!);
    flat = FLAT;
  }
  const margin = between(dice, 0, 8);
  const all = made.loops.flat();
  const [minX, minY] = [Math.min(...all.map(([x]) => x)), Math.min(...all.map(([, y]) => y))];
  const width = (Math.max(...all.map(([x]) => x)) - minX) * scale + 2 * margin;
  const height = (Math.max(...all.map(([, y]) => y)) - minY) * scale + 2 * margin;
  const decimals = dice() < 0.5 ? 6 : 4;
  const round = (v: number) => Number(v.toFixed(decimals));
  const h = round(height);
  const page: Page = dice() < 0.3 ? skewedPage(dice) : plainPage;
  const right = (x: number) => round((x - minX) * scale + margin);
  const down = (y: number) => round(height - ((y - minY) * scale + margin));
  const paths = made.loops.map((loop, k) => {
    const commands = made.curves?.[k];
    if (!commands) return `M${loop.map(([x, y]) => page.written(right(x), down(y)).join(' ')).join('L')}Z`;
    return commands
      .map((command) => {
        const numbers = command.slice(1).split(' ').filter(Boolean).map(Number);
        const place = (i: number) => page.written(right(numbers[2 * i]), down(numbers[2 * i + 1]));
        const places = Array.from({ length: numbers.length / 2 }, (_, i) => place(i));
        return command[0] + places.flat().join(' ');
      })
      .join('');
  });
  const apart = ['many', 'slots'].includes(kind) && dice() < 0.5;
  const body = apart
    ? paths.map((d) => `<path d="${d}"/>`).join('')
    : `<path fill-rule="evenodd" d="${paths.join('')}"/>`;
  const w = round(width);
  return {
    kind,
    svg: page.svg(w, h, body),
    loops: made.loops.map((loop) => withoutSpikes(loop.map(([x, y]) => [right(x), h - down(y)]))),
    width: w,
    height: h,
  };
}

/** Round holes for drilling, and other outlines among them; `loops` holds the middles, one a loop. */
export function holesFrom(dice: Dice): Drawn {
  const [w, h] = [between(dice, 20, 120), between(dice, 20, 120)];
  const round = (v: number) => Number(v.toFixed(4));
  const loops: Loop[] = [];
  const parts: string[] = [];
  const pitch = between(dice, 4, 12);
  for (let x = pitch / 2; x < w; x += pitch)
    for (let y = pitch / 2; y < h; y += pitch) {
      if (dice() < 0.5 || loops.length > 60) continue;
      const [cx, cy] = [round(x + between(dice, -1, 1)), round(y + between(dice, -1, 1))];
      const r = round(pitch * between(dice, 0.05, 0.3));
      loops.push([[cx, round(h) - cy]]);
      parts.push(
        dice() < 0.5
          ? `<circle cx="${cx}" cy="${cy}" r="${r}"/>`
          : `<path d="M${cx - r} ${cy}A${r} ${r} 0 0 0 ${cx + r} ${cy}A${r} ${r} 0 0 0 ${cx - r} ${cy}Z"/>`,
      );
    }
  if (dice() < 0.3) parts.push(`<path d="M1 1L3 1L2 2.5Z"/>`);
  return {
    kind: 'holes',
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${round(w)}mm" height="${round(h)}mm" viewBox="0 0 ${round(w)} ${round(h)}">${parts.join('')}</svg>`,
    loops,
    width: round(w),
    height: round(h),
  };
}

/** Points of a curve behind its first, its chords within `flat`. */
function bezier(points: Loop): Loop {
  const n = points.length - 1;
  let bend = 0;
  for (let k = 1; k < n; k++)
    bend = Math.max(
      bend,
      Math.hypot(
        points[k - 1][0] - 2 * points[k][0] + points[k + 1][0],
        points[k - 1][1] - 2 * points[k][1] + points[k + 1][1],
      ),
    );
  const count = Math.max(1, Math.ceil(Math.sqrt((n * (n - 1) * bend) / 8 / flat)));
  return Array.from({ length: count }, (_, k) => {
    const t = (k + 1) / count;
    let row = points;
    while (row.length > 1)
      row = row
        .slice(1)
        .map((p, i): [number, number] => [row[i][0] + t * (p[0] - row[i][0]), row[i][1] + t * (p[1] - row[i][1])]);
    return row[0];
  });
}

const faces = new Map<string, Font>();
function face(name: string): Font {
  let font = faces.get(name);
  if (!font) {
    const bytes = readFileSync(createRequire(import.meta.url).resolve(name));
    faces.set(name, (font = readFace(bytes)));
  }
  return font;
}

/** A drawing of straight paths on a page in mm, as it stands in a file. */
export function drawingOf(svg: string): Drawn {
  const [, w, h] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!;
  const loops = [...svg.matchAll(/ d="([^"]*)"/g)].flatMap(([, d]) =>
    d
      .split(/[Zz]/)
      .filter((part) => part.trim())
      .map((part): Loop => {
        const numbers = part.match(/-?[\d.]+(?:e-?\d+)?/g)!.map(Number);
        return Array.from({ length: numbers.length / 2 }, (_, k) => [numbers[2 * k], Number(h) - numbers[2 * k + 1]]);
      }),
  );
  return { kind: 'file', svg, loops, width: Number(w), height: Number(h) };
}

/** The same with every outline left open at its end; among straight lines, one that comes back to where it began ends before. */
export function opened(drawn: Drawn): Drawn {
  const straight = !/[CQ]/.test(drawn.svg);
  const svg = drawn.svg
    .replace(/ d="[^"]*"/g, (d) => d.replace(/z/gi, ''))
    .replace(COMES_BACK, straight ? 'M$1$2' : '$&')
    .replaceAll('<path ', '<path fill="none" stroke="black" ');
  const loops = drawn.loops.map((loop) => (straight && near(loop[0], loop.at(-1)!) ? loop.slice(0, -1) : loop));
  return { ...drawn, svg, loops, kind: `${drawn.kind}, open`, open: true };
}

const COMES_BACK = /M([^MLCQ"]+)((?:L[^MLCQ"]+)+)L\1(?=[M"])/g;
const near = ([ax, ay]: [number, number], [bx, by]: [number, number]) => Math.hypot(bx - ax, by - ay) < 1e-6;
