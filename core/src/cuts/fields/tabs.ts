import { choice, flag } from '../../fields/choice-field.ts';
import { FieldProblem, type Values } from '../../fields/field.ts';
import { group } from '../../fields/group-field.ts';
import { listOf } from '../../fields/list-field.ts';
import { count, length, readQuantity } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import type { Slots } from '../../fields/slot.ts';
import { PLACE } from './places.ts';

const MOST = 100;
const SIZE = { above: 0, max: 100 };

const FIELDS = {
  count: count('number of tabs', 'tabs', { min: 0, max: MOST }),
  length: length('tab length', SIZE),
  height: length('tab height', SIZE),
  shape: choice('shape of the tabs', { square: 'square', ramped: 'ramped' }, { initial: 'square' }),
  /** Over a skin, or where the cut leaves stock below, they stand only if asked for. */
  anyway: flag(
    'where tabs stand',
    { yes: 'over what is left below, too', no: 'where the part would come free' },
    { initial: false },
  ),
  /** Places chosen by hand, on the sheet, mm; they take the place of the count. */
  at: listOf('places of tabs', PLACE, MOST),
};

/** What holds a part when it is cut out: `--tabs 4 --tab 6x1.5`. */
export const TABS = group('the tabs', FIELDS, {
  options: [
    { name: 'tabs', read: (text, { now, label }) => ({ ...now, count: readQuantity(text, 'count', { min: 0, max: MOST }, label) }) }, // prettier-ignore
    { name: 'tabs-anyway', bare: true, read: (_, { now }) => ({ ...now, anyway: true }) },
    {
      name: 'tab',
      read(text, { now, label }) {
        const parts = text.split(/x/i);
        if (parts.length !== 2)
          throw new FieldProblem(`“${text}” is no tab; write its length and height, for example 6x1.5.`);
        const [long, high] = parts.map((part) => readQuantity(part, 'length', { min: 0.1, max: SIZE.max }, label));
        return { ...now, length: long, height: high };
      },
    },
  ],
});

export type Tabs = Values<typeof FIELDS>;

/** “held by 4 tabs of 8 mm by 3 mm, square”. */
export function held(s: Slots<typeof FIELDS>, tabs: Tabs): Sentence {
  const standing = tabs.at.length || tabs.count;
  const number = {
    ...s.count,
    control: { ...s.count.control, suffix: standing === 1 ? 'tab' : 'tabs' } as typeof s.count.control,
    value: standing,
    set: (value: unknown) => {
      const { tabs: changed } = s.count.set(value) as { tabs: Tabs };
      return { tabs: { ...changed, at: [] } };
    },
  };
  return say`held by ${number}${standing > 0 && say` of ${s.length} by ${s.height}, ${s.shape}`}${standing > 0 && tabs.anyway && say`, ${s.anyway}`}`;
}
