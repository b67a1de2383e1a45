import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import type { BasePreset, BaseTool } from '../document/tool.ts';
import { presetFor } from '../tools/preset-for.ts';
import { toolKindOf } from '../tools/kinds.ts';
import { suitToPreset } from './suit.ts';

/** Where the settings of a cut come from: a row of its tool for the material, another material's row, a person, or nowhere. */
export type Origin = 'row' | 'copied' | 'typed' | 'not known';

type Values = Record<string, unknown>;

/** The fields of a cut that its tool's settings for a material set. */
export function settingKeys(cut: BaseCut, tool: BaseTool): string[] {
  const values = Object.keys(toolKindOf(tool).preset).map((key) => [key, 1]);
  const [example] = [...tool.presets, Object.fromEntries(values) as BasePreset];
  const suited = { ...cut };
  for (const key of Object.keys(suited))
    if (typeof (suited as unknown as Values)[key] === 'number') (suited as unknown as Values)[key] = NaN;
  suitToPreset(suited, example);
  return Object.keys(suited).filter(
    (key) => typeof (cut as unknown as Values)[key] === 'number' && !Number.isNaN((suited as unknown as Values)[key]),
  );
}

/** The tool's rows for a material, and what it has for a thickness between two. */
function rowsFor(tool: BaseTool, stock: Job['stock']): BasePreset[] {
  const between = presetFor(tool, stock);
  return [...tool.presets.filter(({ material }) => material === stock.material), ...(between ? [between] : [])];
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Whether a value is what a row says; a cut may take less at once than the row allows. */
const asSaid = (key: string, value: unknown, row: unknown) =>
  key === 'depthPerPass' ? (value as number) <= (row as number) : same(value, row);

/** Whether a cut is set as a row of its tool for the material says. */
function asARow(cut: BaseCut, tool: BaseTool, stock: Job['stock']): boolean {
  const keys = settingKeys(cut, tool);
  return rowsFor(tool, stock).some((row) => {
    const suited = { ...cut };
    suitToPreset(suited, row);
    return keys.every((key) => asSaid(key, (cut as unknown as Values)[key], (suited as unknown as Values)[key]));
  });
}

/**
 * The settings of a cut that nobody has given for its material and tool: no row has them, and no person. Empty where all are
 * known. What was said for another material or with another tool does not count.
 */
export function unknownSettings(job: Pick<Job, 'bits' | 'stock'>, cut: BaseCut): string[] {
  const tool = job.bits.find(({ id }) => id === cut.bit);
  if (!tool) return [];
  const keys = settingKeys(cut, tool);
  const said = saidFor(job, cut);
  const left = said ? keys.filter((key) => !said.keys.includes(key)) : keys;
  return left.length > 0 && asARow(cut, tool, job.stock) ? [] : left;
}

/** What was said of a cut's settings, where it was said for this material and tool. */
function saidFor({ stock }: Pick<Job, 'stock'>, { settings, bit }: BaseCut): BaseCut['settings'] {
  return settings?.material === stock.material && settings.bit === bit ? settings : undefined;
}

/** Where the settings of a cut come from. */
export function settingsOrigin(job: Pick<Job, 'bits' | 'stock'>, cut: BaseCut): Origin {
  if (unknownSettings(job, cut).length > 0) return 'not known';
  return saidFor(job, cut)?.from ?? 'row';
}

/** What is kept of settings that a person gives a cut: which, how, and for what. */
export function saidSettings(
  job: Pick<Job, 'bits' | 'stock'>,
  cut: BaseCut,
  from: 'row' | 'typed' | 'copied',
  of?: string,
): BaseCut['settings'] {
  const tool = job.bits.find(({ id }) => id === cut.bit)!;
  return {
    from,
    material: job.stock.material,
    bit: cut.bit,
    keys: settingKeys(cut, tool),
    ...(of !== undefined && { of }),
  };
}

/** What is kept where a person types some settings of a cut: these, and those that were known before. */
export function typedSettings(
  job: Pick<Job, 'bits' | 'stock'>,
  cut: BaseCut,
  typed: readonly string[],
): BaseCut['settings'] {
  const unknown = unknownSettings(job, cut);
  const all = saidSettings(job, cut, 'typed')!;
  return { ...all, keys: all.keys.filter((key) => typed.includes(key) || !unknown.includes(key)) };
}

/**
 * Notes in a changed job which settings a person has given: those that differ from before though material and tool are the
 * same, and that no row of the tool has. What was known by a row stays known when that row is changed.
 */
export function noteSettings(before: Job, after: Job): void {
  for (const cut of after.cuts as BaseCut[]) {
    const tool = after.bits.find(({ id }) => id === cut.bit);
    const was = (before.cuts as BaseCut[]).find(({ id }) => id === cut.id);
    if (!tool || !was || was.bit !== cut.bit || before.stock.material !== after.stock.material) continue;
    const keys = settingKeys(cut, tool);
    const changed = keys.filter((key) => !same((was as unknown as Values)[key], (cut as unknown as Values)[key]));
    // What a row said when the cut was set stays known when the row is changed.
    if (changed.length === 0 && unknownSettings(before, was).length === 0 && unknownSettings(after, cut).length > 0)
      cut.settings = saidSettings(after, cut, 'row');
    if (changed.length === 0 || !same(was.settings, cut.settings) || asARow(cut, tool, after.stock)) continue;
    cut.settings = typedSettings(before, was, changed);
  }
}
