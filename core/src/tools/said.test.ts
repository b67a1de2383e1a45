import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { BaseTool } from '../document/tool.ts';
import { sentenceText } from '../fields/sentence.ts';
import { TOOL_KINDS, toolKindOf, type ToolKindName } from './kinds.ts';
import { presses } from './presses.ts';
import { ToolSchema } from './tool-schema.ts';
import { shapeInWords, toolShape } from './tool-shape.ts';

/**
 * Promises held here: all that is said of a tool of each kind is what was read when it was written (whoever changes it reads it
 * again: `npx vitest run core/src/tools/said -u`); its picture is the same to the left and to the right, stands on its tip, and
 * is as wide as it is said to be; a text that the command line takes is of one kind.
 */
const turned = {
  shank: 6.35,
  flute: 22,
  presets: [{ material: 'oak', feed: 1700, plunge: 430, speed: 17_500, depthPerPass: 2.6 }],
};
const row = {
  material: 'mild steel',
  thickness: 3,
  kerf: 1.5,
  feed: 2600,
  pierceHeight: 3.8,
  pierceDelay: 0.4,
  cutHeight: 1.6,
  volts: 118,
};
const burnt = {
  material: 'birch plywood',
  thickness: 3,
  cutPower: 80,
  cutFeed: 600,
  cutPasses: 1,
  scorePower: 10,
  scoreFeed: 900,
  fillPower: 20,
  fillFeed: 3000,
  fillLines: 8,
};
const TOOLS = [
  { id: 'v', name: 'V 60', kind: 'v', diameter: 12.7, tip: 0.4, angle: 60, ...turned, flute: 10.6 },
  { id: 'w', name: 'V with edges too long', kind: 'v', diameter: 12.7, tip: 0, angle: 90, ...turned },
  { id: 'n', name: 'V of no known angle', kind: 'v', diameter: 12.7, tip: 0, ...turned },
  { id: 'e', name: 'End mill', kind: 'end', diameter: 4.5, ...turned },
  { id: 'd', name: 'Drill', kind: 'drill', diameter: 3.2, ...turned },
  { id: 'f', name: 'Drill with a flat point', kind: 'drill', diameter: 3.2, angle: 135, ...turned },
  {
    id: 'p',
    name: 'Point',
    kind: 'drag',
    diameter: 7,
    shank: 6,
    angle: 120,
    width: 0.3,
    travel: 2.5,
    force: 9,
    standOut: null,
    presets: [],
  },
  {
    id: 'q',
    name: 'Point with a nose',
    kind: 'drag',
    diameter: 7,
    shank: 6,
    angle: 90,
    width: 0.2,
    travel: 2.5,
    force: 9,
    standOut: 0.4,
    presets: [],
  },
  {
    id: 'z',
    name: 'Nozzle',
    kind: 'nozzle',
    diameter: 11,
    shank: 14,
    amps: 45,
    presets: [row, { ...row, thickness: 8, kerf: 2.1 }],
  },
  { id: 'y', name: 'Nozzle without a chart', kind: 'nozzle', diameter: 11, shank: 14, amps: 65, presets: [] },
  { id: 'b', name: 'Beam', kind: 'beam', diameter: 0.12, shank: 30, focus: 38, presets: [burnt] },
  { id: 'c', name: 'Beam without settings', kind: 'beam', diameter: 0.2, shank: 30, focus: 7, presets: [] },
].map((tool) => ToolSchema.parse(tool) as BaseTool);

function said(tool: BaseTool): string {
  const kind = toolKindOf(tool);
  const lines = (['mm', 'in'] as const).flatMap((unit) => [
    sentenceText(kind.sentence(tool), unit),
    `Note: ${kind.note?.(tool, unit) ?? 'none'}`,
    `Amiss: ${kind.amiss?.(tool, unit) ?? 'nothing'}`,
    `In words: ${shapeInWords(tool, unit)}`,
  ]);
  let leaves = 'not known';
  try {
    leaves = JSON.stringify(kind.leaves(tool), (_, value: unknown) =>
      typeof value === 'number' ? Math.round(value * 1e6) / 1e6 : value,
    );
  } catch (error) {
    leaves = (error as Error).message;
  }
  const takes = ['oak', 'mild steel', 'slate'].map(
    (material) => `${material} ${kind.takes?.(tool, material) ?? 'not known'}`,
  );
  return [
    `## ${tool.name}, ${kind.one}`,
    ...lines,
    `Leaves: ${leaves}`,
    `Presses: ${presses(tool)}`,
    `Edges: ${kind.edges?.(tool) ?? 'none'}`,
    `Takes at once: ${takes.join(', ')}`,
    `Shape: ${JSON.stringify(toolShape(tool))}`,
  ].join('\n');
}

test('what is said of tools is what was read', async () => {
  await expect(`${TOOLS.map(said).join('\n\n')}\n`).toMatchFileSnapshot('./said.txt');
});

describe.each(TOOLS.map((tool) => [tool.name, tool] as const))('the picture of %s', (_, tool) => {
  const picture = (changed: object = {}, pressed?: number) =>
    toolKindOf(tool).picture({ ...tool, ...changed } as BaseTool, pressed).parts;
  const points = (parts: ReturnType<typeof picture>, look: string) =>
    parts.filter((part) => part.look === look).flatMap((part) => [...part.points]);
  const scaled = fc.integer({ min: 3, max: 40 });

  test('is even, closed in itself and stands on its tip', () => {
    fc.assert(
      fc.property(scaled, scaled, (diameter, shank) => {
        const parts = picture({ diameter, shank });
        for (const { look, points } of parts) {
          if (look === 'line') continue;
          // What is on the left is on the right, and turns in one sense.
          const there = (list: readonly (readonly [number, number])[]) =>
            list.map(([x, z]) => `${x === 0 ? 0 : x.toFixed(9)} ${z.toFixed(9)}`).sort();
          expect(there(points.map(([x, z]) => [-x, z] as const))).toEqual(there(points));
          const area = points.reduce((sum, [x, z], k) => {
            const [nx, nz] = points[(k + 1) % points.length];
            return sum + x * nz - nx * z;
          }, 0);
          expect(Math.abs(area)).toBeGreaterThan(1e-3);
        }
        const cutter = points(parts, 'cutter');
        expect(Math.min(...cutter.map(([, z]) => z))).toBe(0);
        const held = points(parts, 'shank');
        expect(Math.max(...held.map(([, z]) => z))).toBe(1000);
        expect(Math.max(...held.filter(([, z]) => z === 1000).map(([x]) => x))).toBe(shank / 2);
      }),
    );
  });
});

test('how a bit is made: as wide as it is, its edges as long, its cone as steep', () => {
  const outline = (name: string) => {
    const tool = TOOLS.find((one) => one.name === name)!;
    return toolKindOf(tool)
      .picture(tool)
      .parts.find(({ look }) => look === 'cutter')!.points;
  };
  const high = (name: string) => Math.max(...outline(name).map(([, z]) => z));
  const wide = (name: string) => 2 * Math.max(...outline(name).map(([x]) => x));
  expect([wide('V 60'), wide('End mill'), wide('Drill'), wide('Beam')].map((x) => Number(x.toFixed(6)))).toEqual([
    12.7,
    4.5,
    3.2,
    Number((0.12 + ((30 / 3 - 0.12) * 6) / 38).toFixed(6)),
  ]);
  expect([high('V with edges too long'), high('End mill'), high('Drill')]).toEqual([22, 22, 22]);
  // Where edges are said to be shorter than the cone is, the cone stands.
  expect(high('V 60')).toBeCloseTo((12.7 - 0.4) / 2 / Math.tan(Math.PI / 6), 9);
  const [, tip, shoulder] = outline('V 60');
  expect(tip[0]).toBeCloseTo(0.2, 9);
  expect((shoulder[0] - tip[0]) / shoulder[1]).toBeCloseTo(Math.tan(Math.PI / 6), 9);
  // A beam is widest at its lens, and no wider than that where the lens is near.
  expect(wide('Beam without settings')).toBeCloseTo(0.2 + ((10 - 0.2) * 6) / 7, 9);
});

test('a point that is pressed gives as far, and the body comes down by it', () => {
  const parts = (name: string, pressed: number) => {
    const tool = TOOLS.find((one) => one.name === name)!;
    return toolKindOf(tool).picture(tool, pressed).parts;
  };
  const lowest = (name: string, pressed: number) => Math.min(...parts(name, pressed)[1].points.map(([, z]) => z));
  const long = (name: string, pressed: number) => {
    const z = parts(name, pressed)
      .find(({ look }) => look === 'line')!
      .points.map(([, z]) => z);
    return Math.max(...z) - Math.min(...z);
  };
  for (const name of ['Point', 'Point with a nose']) expect(long(name, 0) - long(name, 1.25)).toBeCloseTo(1.25, 9);
  expect(lowest('Point', 0) - lowest('Point', 1.25)).toBeCloseTo(1.25, 9);
  // A nose rides on the work as far over the tip as it stands out.
  expect([lowest('Point with a nose', 0), lowest('Point with a nose', 1.25)]).toEqual([0.4, 0.4]);
});

test('a written tool is of one kind', () => {
  const kinds = Object.keys(TOOL_KINDS) as ToolKindName[];
  const of = (word: string, ...sizes: number[]) =>
    kinds.filter((kind) => TOOL_KINDS[kind].given(word, sizes) !== undefined);
  expect([of('v60', 12.7), of('end', 6), of('drill', 3), of('drag', 0.3), of('nozzle', 45), of('beam', 0.2)]).toEqual([
    ['v'],
    ['end'],
    ['drill'],
    ['drag'],
    ['nozzle'],
    ['beam'],
  ]);
  expect([
    of('v', 12.7),
    of('saw', 3),
    of('end', 6, 1),
    of('drill', 3, 1),
    of('v60', 3, 4),
    of('vv60', 12),
    of('v60x', 12),
  ]).toEqual([[], [], [], [], [], [], []]);
  expect(TOOL_KINDS.v.given('v22.5', [6, 0.2])).toEqual({ kind: 'v', diameter: 6, tip: 0.2, angle: 22.5 });
  expect(TOOL_KINDS.drag.given('drag', [0.3])).toMatchObject({ width: 0.3, standOut: null });
  expect(TOOL_KINDS.drag.given('drag', [0.3, 0.2])).toMatchObject({ width: 0.3, standOut: 0.2 });
  expect(TOOL_KINDS.nozzle.given('nozzle', [])).toMatchObject({ amps: 45 });
});

test('with a nose or without: what the words set', () => {
  const [without, nosed] = ['Point', 'Point with a nose'].map((name) => TOOLS.find((one) => one.name === name)!);
  const nose = (tool: BaseTool) =>
    toolKindOf(tool)
      .sentence(tool)
      .find((part) => typeof part !== 'string' && part.name === 'nose') as Exclude<
      ReturnType<typeof toolKindOf>['sentence'] extends (t: never) => (infer P)[] ? P : never,
      string
    >;
  expect([nose(without).value, nose(nosed).value]).toEqual(['none', 'rides']);
  expect([nose(without).set('rides'), nose(nosed).set('none')]).toEqual([{ standOut: 0.254 }, { standOut: null }]);
});
