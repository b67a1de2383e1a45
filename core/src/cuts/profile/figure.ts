import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<rect x="15" y="5" width="30" height="20"/>',
  bits: [{ id: 'e6', kind: 'end', diameter: 6 }],
  fields: { side: 'outside', depth: 12.5, depthPerPass: 4.2, tabs: { count: 2, length: 8, height: 3 } },
  caption: 'Profile outside the line, through the stock and a hair into the spoilboard',
};
