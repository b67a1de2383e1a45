import type { ChartRow } from '../../tools/nozzle/fields.ts';

/** The fields of a cut that a nozzle's chart sets. */
export const CHARTED = ['kerf', 'feed', 'pierceHeight', 'pierceDelay', 'cutHeight'] as const;
export type Charted = Pick<ChartRow, (typeof CHARTED)[number]>;

/** Those fields of a row, and nothing else of it. */
export const charted = ({ kerf, feed, pierceHeight, pierceDelay, cutHeight }: Charted): Charted => ({ kerf, feed, pierceHeight, pierceDelay, cutHeight }); // prettier-ignore
