import { formatFeed, formatLength } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';
import type { AnyField, Control, FieldSet, Values } from './field.ts';
import { fieldsOf, type GroupField } from './group-field.ts';

/** A value of a cut where it stands in a sentence: what it is called, what it shows, and what setting it changes. */
export interface Slot {
  name: string;
  control: Control;
  value: unknown;
  /** The fields of the cut that change, by name, where the control gives a value. */
  set(shown: unknown): Record<string, unknown>;
}

export type Slots<F extends FieldSet> = { [K in keyof F]: F[K] extends GroupField<infer G> ? Slots<G> : Slot };

/**
 * The slots of some fields, by their names; those of a group stand in one object.
 * @example slotsOf({ depth: length('depth', { above: 0, max: 200 }) }, { depth: 3 }).depth.set(4) // { depth: 4 }
 */
export function slotsOf<F extends FieldSet>(
  fields: F,
  values: Values<F>,
  put: (changed: Record<string, unknown>) => Record<string, unknown> = (changed) => changed,
): Slots<F> {
  const slots = Object.entries(fields).map(([key, field]): [string, unknown] => {
    const value = (values as Record<string, unknown>)[key];
    const inner = fieldsOf(field);
    if (inner && value !== undefined)
      return [key, slotsOf(inner, value as never, (changed) => put({ [key]: { ...(value as object), ...changed } }))];
    return [key, slotOf(field, value, (given) => put({ [key]: given }))];
  });
  return Object.fromEntries(slots) as Slots<F>;
}

/** A field’s slot, of a value that may lie anywhere. */
export function slotOf(field: AnyField, value: unknown, set: (value: unknown) => Record<string, unknown>): Slot {
  return {
    name: field.name,
    control: field.control,
    value: field.shown ? (field.shown(value) as unknown) : value,
    set: (shown) => set(field.given ? (field.given(shown) as unknown) : shown),
  };
}

/** A choice that is no field of its own, and sets others: “in one go” or “in passes”. */
export const choiceSlot = <T extends string>(
  name: string,
  labels: Record<T, string>,
  value: NoInfer<T>,
  set: (chosen: T) => Record<string, unknown>,
): Slot => ({
  name,
  control: { is: 'choice', options: (Object.keys(labels) as T[]).map((key) => ({ value: key, label: labels[key] })) },
  value,
  set: (chosen) => set(chosen as T),
});

/** What a slot shows, as text. @example slotText(step, 'mm') // '0.5 mm' */
export function slotText({ control, value }: Slot, unit: LengthUnit): string {
  if (control.is === 'choice') return control.options.find((option) => option.value === value)?.label ?? String(value);
  if (control.is !== 'quantity') return String(value);
  const number = value as number;
  if (control.quantity === 'length') return formatLength(number, unit, 3);
  if (control.quantity === 'feed') return formatFeed(number, unit);
  if (control.quantity === 'angle') return `${Math.round(number * 1000) / 1000}°`;
  return [Math.round(number * 1000) / 1000, control.suffix].filter((part) => part !== undefined).join(' ');
}

/** A number that must not be more than something else allows: a tip narrower than its bit. */
export const atMost = (slot: Slot, max: number): Slot =>
  slot.control.is === 'quantity'
    ? { ...slot, control: { ...slot.control, max: Math.min(max, slot.control.max) } }
    : slot;
