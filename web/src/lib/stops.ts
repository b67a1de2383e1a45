/** The eight stops of a job, in the order of the route. */
export const STOPS = [
  { name: 'artwork', title: 'Artwork' },
  { name: 'stock', title: 'Stock' },
  { name: 'bits', title: 'Bits' },
  { name: 'cuts', title: 'Cuts' },
  { name: 'proof', title: 'Proof' },
  { name: 'set-up', title: 'Set-up' },
  { name: 'run', title: 'Run' },
  { name: 'log', title: 'Log' },
] as const;

export type StopName = (typeof STOPS)[number]['name'];
