import { describe, expect, test } from 'vitest';
import { pathForTests } from '../motion/path-for-tests.ts';
import { joinPaths } from '../motion/path.ts';
import { TOOL_KINDS, toolKindOf } from './kinds.ts';
import { takenOut, widthLeft } from './leaves.ts';
import { profileOf } from './profile-of.ts';
import type { Bit } from './turned.ts';
import type { VBit } from './v/fields.ts';

const mill: Bit = { id: 'm', name: 'Mill', kind: 'end', diameter: 6, shank: 6, flute: 20, presets: [] };
const v: VBit = { ...mill, kind: 'v', angle: 60, tip: 0.2 };

describe('what kinds of tool leave', () => {
  test('a V-bit, an end mill and a drill of 118° where nobody says otherwise (common practice)', () => {
    expect(profileOf(v)).toMatchObject({ flat: 0.1, radius: 3 });
    expect(profileOf(v).slope).toBeCloseTo(Math.tan(Math.PI / 6), 12);
    expect(profileOf(mill)).toEqual({ flat: 3, slope: 0, radius: 3 });
    expect(profileOf({ ...mill, kind: 'drill' }).slope).toBeCloseTo(Math.tan((59 * Math.PI) / 180), 12);
  });
  test('a V-bit without an angle cannot be used, and says what to do', () => {
    expect(() => profileOf({ ...v, angle: null } as VBit)).toThrow('has no angle; give it one at Bits');
    // It is drawn all the same.
    expect(toolKindOf({ kind: 'v' }).picture({ ...v, angle: null } as VBit).parts.length).toBeGreaterThan(1);
  });
  test('widths at the top of the stock: 2·(t + d·tan α), and the width of marks, kerfs and burns at any depth', () => {
    expect(widthLeft({ kind: 'groove', profile: profileOf(v) }, 2)).toBeCloseTo(0.2 + 4 * Math.tan(Math.PI / 6), 12);
    expect(widthLeft({ kind: 'groove', profile: profileOf(v) }, 0)).toBe(0);
    expect([0, 3].map((depth) => widthLeft({ kind: 'mark', width: 0.3 }, depth))).toEqual([0.3, 0.3]);
    expect(widthLeft({ kind: 'burn', spot: 0.2 }, 1)).toBe(0.2);
    expect(takenOut({ kind: 'kerf', width: 1.5, depth: 2 })).toEqual({ flat: 0.75, slope: 0, radius: 0.75 });
    expect(takenOut({ kind: 'mark', width: 1 })).toBeUndefined();
  });
});

test('how the command line says a tool', () => {
  const given = (kind: string, ...sizes: number[]) =>
    Object.values(TOOL_KINDS)
      .map((of) => of.given(kind, sizes))
      .find((found) => found !== undefined);
  expect(given('v60', 12.7, 0.2)).toEqual({ kind: 'v', diameter: 12.7, tip: 0.2, angle: 60 });
  // A tip as wide as the bit is no V-bit.
  expect(given('v60', 3, 3)).toBeUndefined();
  expect(given('end', 6)).toEqual({ kind: 'end', diameter: 6 });
  expect(given('ball', 6)).toBeUndefined();
  // A second size would do nothing.
  expect([given('end', 6, 1), given('drill', 3, 1)]).toEqual([undefined, undefined]);
});

test('paths one after the other keep what each of their moves is', () => {
  const joined = joinPaths([pathForTests([0, 0, 5, 1, 0, -1], [0, 300]), pathForTests([2, 0, 5, 3, 0, -1], [0, 600])]);
  expect([...joined.rapid]).toEqual([1, 0, 1, 0]);
  expect([...joined.power]).toEqual([0, 1, 0, 1]);
  expect([...joined.feed]).toEqual([0, 300, 0, 600]);
});
