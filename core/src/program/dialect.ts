export const DIALECT_NAMES = ['plain', 'operator-spindle'] as const;

/** How a controller wants its RS-274 text; differences are data, not code. */
export interface Dialect {
  decimals: number;
  /** Start the spindle by M3, or stop (M0) and ask the operator to. */
  spindle: 'program' | 'operator';
  /** One program with bit changes (M6), or one for each bit. */
  bits: 'one-program' | 'one-each';
}

export const DIALECTS: Record<(typeof DIALECT_NAMES)[number], Dialect> = {
  plain: { decimals: 3, spindle: 'program', bits: 'one-program' },
  'operator-spindle': { decimals: 3, spindle: 'operator', bits: 'one-each' },
};
