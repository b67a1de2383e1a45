/** Numbers that have broken readers before. */
const NUMBERS = [
  '0', '-0', '1e13', '-1e13', '1e300', '1e400', '-1e308', '5e-324', '1e-9', 'NaN', 'Infinity', '99999999999999999999',
  '2147483648', '4294967296', '0.1', '-1', '1e', '.', '--5', '1,5', '0x10', '1e5', '123456', '9999', '0.0000001',
]; // prettier-ignore

export type Random = () => number;

export const upTo = (rng: Random, n: number): number => Math.floor(rng() * n);
export const oneOf = <T>(rng: Random, list: readonly T[]): T => list[upTo(rng, list.length)];

/** What one kind of text is broken with. */
export interface Dictionary {
  /** Pieces of its own language. */
  words: readonly string[];
  /** What opens and closes one more level. */
  nest: readonly [string, string];
}

/** A text with one to four things done to it that a hand, a disk or an attacker might. */
export function mutated(source: string, rng: Random, { words, nest }: Dictionary): Uint8Array {
  let text = source;
  const at = () => upTo(rng, text.length + 1);
  const slice = (): [number, number] => {
    const from = at();
    return [from, Math.min(text.length, from + 1 + upTo(rng, oneOf(rng, [4, 40, 400])))];
  };
  const put = (from: number, to: number, middle: string) => {
    text = (text.slice(0, from) + middle + text.slice(to)).slice(0, 3_000_000);
  };
  const changes: (() => void)[] = [
    () => {
      const numbers = [...text.matchAll(/-?\d*\.?\d+(?:e[-+]?\d+)?/gi)];
      for (let k = 1 + upTo(rng, 3); k > 0 && numbers.length > 0; k--) {
        const found = oneOf(rng, numbers);
        if (text.slice(found.index).startsWith(found[0]))
          put(found.index, found.index + found[0].length, oneOf(rng, NUMBERS));
      }
    },
    () => {
      const [from, to] = slice();
      put(to, to, text.slice(from, to).repeat(oneOf(rng, [1, 2, 20, 500, 5000])));
    },
    () => {
      const depth = oneOf(rng, [2, 70, 5000, 100_000]);
      const [from, to] = slice();
      put(from, to, nest[0].repeat(depth) + text.slice(from, to) + (rng() < 0.7 ? nest[1].repeat(depth) : ''));
    },
    () => put(at(), text.length, ''),
    () => {
      const [from, to] = slice();
      put(from, to, '');
    },
    () => {
      const [from, to] = slice();
      const moved = text.slice(from, to);
      put(from, to, '');
      const where = at();
      put(where, where, moved);
    },
    () => {
      const where = at();
      put(where, where, oneOf(rng, words));
    },
    () => {
      const [from, to] = slice();
      put(from, to, oneOf(rng, words));
    },
    () => {
      const where = at();
      put(
        where,
        where,
        oneOf(rng, ['\0', '\ufeff', '\u2028', '\u{1f600}', '\u0301'.repeat(40), '\r', '\x1b[2J', '\\ud800', '﷽']),
      );
    },
    () => {
      const lines = text.split('\n');
      for (let k = lines.length - 1; k > 0; k--) {
        const other = upTo(rng, k + 1);
        [lines[k], lines[other]] = [lines[other], lines[k]];
      }
      text = lines.join('\n');
    },
  ];
  for (let k = 1 + upTo(rng, 4); k > 0; k--) oneOf(rng, changes)();
  const bytes = Buffer.from(text);
  const last = rng();
  if (last < 0.04) return Buffer.from(text, 'utf16le');
  if (last < 0.12)
    for (let k = 1 + upTo(rng, 8); k > 0 && bytes.length; k--) bytes[upTo(rng, bytes.length)] = upTo(rng, 256);
  return bytes;
}

/** A text in which only some numbers are others: most of what comes of it can still be read. */
export function nudged(source: string, rng: Random): Uint8Array {
  const numbers = [...source.matchAll(/-?\d*\.?\d+(?:e[-+]?\d+)?/gi)];
  const chosen = new Set(Array.from({ length: 1 + upTo(rng, 6) }, () => upTo(rng, numbers.length)));
  let text = '';
  let from = 0;
  numbers.forEach(({ index, 0: number }, k) => {
    if (!chosen.has(k)) return;
    const other =
      rng() < 0.2 ? oneOf(rng, NUMBERS) : String(Number(number) * oneOf(rng, [-1, 0, 0.001, 0.5, 1.01, 3, 40]));
    text += source.slice(from, index) + other;
    from = index + number.length;
  });
  return Buffer.from(text + source.slice(from));
}

type Json = unknown;

/** A document with one to four of its values changed into what they should not be. */
export function mutatedJson(document: Json, rng: Random): Json {
  const whole = structuredClone(document);
  let root = whole;
  for (let k = 1 + upTo(rng, 4); k > 0; k--) {
    // Copies only at the last: what is put into one of them would be put into all, and be too long to send.
    const changed = (value: Json) => strange(rng, value, k === 1);
    const places: [holder: Record<string, Json>, key: string][] = [];
    const visit = (value: Json) => {
      if (value === null || typeof value !== 'object' || places.length > 5000) return;
      for (const key of Object.keys(value)) {
        places.push([value as Record<string, Json>, key]);
        visit((value as Record<string, Json>)[key]);
      }
    };
    visit(root);
    if (places.length === 0 || rng() < 0.02) {
      root = changed(root);
      continue;
    }
    const [holder, key] = oneOf(rng, places);
    if (rng() < 0.15) delete holder[key];
    else if (rng() < 0.1)
      holder[oneOf(rng, ['__proto__', 'constructor', 'toString', '', 'x\0', '\ud800'])] = holder[key];
    else holder[key] = changed(holder[key]);
  }
  return root;
}

/** About how long a value is as JSON. */
const sizeOf = (value: Json): number => (JSON.stringify(value) ?? '').length + 1;

function strange(rng: Random, value: Json, grow: boolean): Json {
  const made: (() => Json)[] = [
    () => null,
    () => oneOf(rng, [0, -0, -1, 1e-300, 1e13, -1e308, 0.1, 2 ** 53, 1e-9, 3, 255, 99999]),
    () => (typeof value === 'number' ? value * oneOf(rng, [-1, 1e3, 1e-3, 1e9, 1.5]) : String(JSON.stringify(value))),
    () =>
      oneOf(rng, [
        '',
        'x',
        'a\0b',
        '\ud800',
        '\udc00x',
        '﷽'.repeat(300),
        'constructor',
        '../../etc/passwd',
        '1e5',
        'v-carve',
        'pocket',
        'all',
      ]),
    () => 'x'.repeat(oneOf(rng, [200, 5000, 300_000])),
    () => true,
    () => [],
    () => ({}),
    () =>
      grow ? Array.from({ length: Math.min(oneOf(rng, [3, 300, 30_000]), 3e6 / sizeOf(value)) }, () => value) : [],
    () => Array.from({ length: oneOf(rng, [3, 300, 100_000]) }, () => ({})),
    () => {
      let deep: Json = value;
      for (let k = oneOf(rng, [3, 300, 1000]); k > 0; k--) deep = rng() < 0.5 ? [deep] : { a: deep };
      return deep;
    },
  ];
  return oneOf(rng, made)();
}
