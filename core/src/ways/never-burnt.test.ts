import { expect, test } from 'vitest';
import { neverBurnt } from './never-burnt.ts';

test.each([
  'PVC',
  'pvc foam',
  'P.V.C.',
  'P V C',
  'p-v-c sheet',
  'P  v\tC',
  'uPVC',
  'PVC-U',
  'CPVC',
  'PVC2',
  '3 mm PVC',
  'PVC/ABS',
  'foam (PVC)',
  // Letters of other alphabets, wide ones, and ones that are not seen.
  'РVС',
  'ΡVC',
  'ＰＶＣ',
  'P\u200bV\u200bC',
  'P\u00adVC',
  'Ⅴinyl',
  'ѵіnyl',
  'V I N Y L',
  'vinyl',
  'Polyvinyl chloride',
  'poly-vinyl',
  'PVDC',
  'chlorinated rubber',
  'faux leather',
  // Said not to be in one part of it.
  'PVC-free foam on PVC',
  'no PVC, but vinyl',
])('%j is not burnt', (name) => {
  expect(() => neverBurnt(name)).toThrow(/hydrogen chloride/);
});

test.each([
  'birch plywood',
  'acrylic',
  'PVC-free foam',
  'PVC free',
  'foam without PVC',
  'non-PVC banner',
  'free of PVC',
  'chlorine-free paper',
  'leather',
  'POM',
  'PETG',
  'pine, vc grade',
  'MDF type P, V cut',
  'cork',
  'P 4 V 2 C',
])('%j is', (name) => {
  expect(() => neverBurnt(name)).not.toThrow();
});
