import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<path d="M8 4H28V26H8ZM36 4H54V26H36Z" fill-rule="evenodd"/>',
  bits: [{ id: 'beam', kind: 'beam', diameter: 0.6, shank: 30, focus: 40 }],
  fields: { kerf: 0.6, side: 'outside', power: 80, feed: 600 },
  caption: 'Two parts cut out, half the kerf of 0.6 mm outside their lines',
};
