/** A field of a job, and another value for it. */
export interface Leaf {
  path: (string | number)[];
  to: unknown;
}

/** Values that a field of this name has elsewhere, where no rule gives another. */
const OTHERS: Record<string, string[]> = {
  unit: ['mm', 'in'],
  zeroXY: ['lower-left', 'upper-right', 'centre'],
  zeroZ: ['stock', 'spoilboard'],
  pattern: ['rings', 'lines', 'outline', 'hatch'],
  side: ['outside', 'inside', 'on'],
};

/**
 * Every number, word, switch and list of a value with something else in its place; what is not allowed is among it.
 * @example { a: 1, b: ['x'] }: a is 1.37, a is 2, b is [], b.0 is “xx”
 */
export function leavesOf(value: unknown, path: (string | number)[] = []): Leaf[] {
  const name = String(path.at(-1));
  if (typeof value === 'number')
    return [
      { path, to: value * 1.07 + 0.3 },
      { path, to: value + 1 },
    ];
  if (typeof value === 'boolean') return [{ path, to: !value }];
  if (typeof value === 'string') {
    const others = OTHERS[name]?.filter((other) => other !== value);
    return (others ?? [`${value}${value.at(-1) ?? 'x'}`]).map((to) => ({ path, to }));
  }
  if (Array.isArray(value)) {
    const fewer = value.length > 0 ? [{ path, to: value.slice(1) as unknown }] : [];
    return [...fewer, ...value.flatMap((each, k) => leavesOf(each, [...path, k]))];
  }
  if (value && typeof value === 'object')
    return Object.entries(value).flatMap(([k, each]) => leavesOf(each, [...path, k]));
  return [];
}

/** A value with one field changed; the value itself stays as it is. */
export function withLeaf<T>(value: T, { path, to }: Leaf): T {
  const out = structuredClone(value);
  let at = out as Record<string | number, unknown>;
  for (const step of path.slice(0, -1)) at = at[step] as Record<string | number, unknown>;
  at[path.at(-1)!] = to;
  return out;
}
