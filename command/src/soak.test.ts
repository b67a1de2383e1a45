import { expect, test } from 'vitest';
import { soak } from './soak.ts';

test.each([
  [['--help'], '--help is not understood: ./kerbe soak [--judge] --minutes 30'],
  [['judge'], 'judge is not understood'],
  [['--minutes'], '--minutes is not understood'],
  [['--minutes', 'ten'], '--minutes takes a number'],
  [['--fuzz', '--count=-1'], '--count takes a number'],
  [['--mutants', 'core/attic'], 'There is no room “core/attic”; there are core/artwork, '],
])('%j begins nothing and is answered with its use', async (args, said) => {
  await expect(soak(args)).rejects.toThrow(said);
});
