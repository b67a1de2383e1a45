import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: `<path fill-rule="evenodd" d="M10 3H50V27H10ZM28 10H34V20H28Z"/>`,
  bits: [{ id: 'e3', kind: 'end', diameter: 3 }],
  fields: { depth: 6, depthPerPass: 2, step: 1.2 },
  caption: 'Pocket with an island, 6 mm deep in three passes',
};
