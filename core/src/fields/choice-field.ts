import { z } from 'zod';
import { type Field, FieldProblem } from './field.ts';

/**
 * One of several words, with what is said of each.
 * @example choice('side', { outside: 'outside the line', on: 'on the line' }).schema.safeParse('in').success // false
 */
export function choice<T extends string>(
  name: string,
  labels: Record<T, string>,
  { initial, option }: { initial?: NoInfer<T>; option?: string | false } = {},
): Field<T> {
  const values = Object.keys(labels) as T[];
  const schema = z.enum(values as [T, ...T[]]) as unknown as z.ZodType<T>;
  return {
    name,
    measure: 'choice',
    schema: initial === undefined ? schema : (schema.default(initial as never) as unknown as z.ZodType<T>),
    control: { is: 'choice', options: values.map((value) => ({ value, label: labels[value] })) },
    options:
      option === false
        ? []
        : [
            {
              name: option ?? name.split(' ')[0],
              read(text, { label }) {
                const found = values.find((value) => value === text);
                if (!found) throw new FieldProblem(`${label} is one of ${values.join(', ')}, not “${text}”.`);
                return found;
              },
            },
          ],
  };
}

/**
 * Yes or no, said in words; the option, if any, stands for the answer that is not usual.
 * @example flag('direction', { yes: 'climb', no: 'conventional' }).control.options[1].label // 'conventional'
 */
export function flag(
  name: string,
  labels: { yes: string; no: string },
  { initial, option }: { initial?: boolean; option?: { name: string; means: boolean } } = {},
): Field<boolean> {
  return {
    name,
    measure: 'choice',
    schema: initial === undefined ? z.boolean() : z.boolean().default(initial),
    control: {
      is: 'choice',
      options: [
        { value: 'yes', label: labels.yes },
        { value: 'no', label: labels.no },
      ],
    },
    options: option ? [{ name: option.name, bare: true, read: () => option.means }] : [],
    shown: (value) => (value ? 'yes' : 'no'),
    given: (shown) => shown === 'yes',
  };
}
