import { choice } from '../../fields/choice-field.ts';
import { FieldProblem, type Values } from '../../fields/field.ts';
import { group } from '../../fields/group-field.ts';
import { length, readQuantity } from '../../fields/quantity-field.ts';
import { say, type Sentence } from '../../fields/sentence.ts';
import type { Slots } from '../../fields/slot.ts';

const LENGTH = { above: 0, max: 100 };
const FIELDS = {
  kind: choice('lead', { none: 'straight', line: 'by a line', arc: 'by an arc' }),
  length: length('lead length', LENGTH),
};

/** How the bit comes to the wall: `--lead arc:3`. */
export const LEAD = group('the lead', FIELDS, {
  initial: { kind: 'none', length: 3 },
  options: [
    {
      name: 'lead',
      read(text, { label }) {
        const found = /^(line|arc)(?::(.+))?$/.exec(text);
        if (!found) throw new FieldProblem(`“${text}” is no lead; write for example arc:3 or line:3.`);
        const long =
          found[2] === undefined ? 3 : readQuantity(found[2], 'length', { min: 0.1, max: LENGTH.max }, label);
        return { kind: found[1] as 'line' | 'arc', length: long };
      },
    },
  ],
});

/** “by an arc of 3 mm”. */
export const coming = (s: Slots<typeof FIELDS>, now: Values<typeof FIELDS>): Sentence =>
  say`${s.kind}${now.kind !== 'none' && say` of ${s.length}`}`;
