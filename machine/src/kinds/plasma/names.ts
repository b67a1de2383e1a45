/** What a plasma table's bench can be at besides what every bench can be. */
export const PLASMA_STATES = ['finding-sheet', 'feeling-sheet'] as const;

/** Those of them that can be held, and gone on with. */
export const PLASMA_HOLDABLE = [
  'finding-sheet',
  'feeling-sheet',
] as const satisfies readonly (typeof PLASMA_STATES)[number][];

/** Those that only a plasma table has; it has those of a pointer, too. */
export const PLASMA_COMMANDS = ['nozzle-in', 'feel-sheet'] as const;
