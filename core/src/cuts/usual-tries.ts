import { usualStep } from '../tools/turned.ts';
import type { BaseTool } from '../document/tool.ts';

/** A change of a cut’s fields that may let it be made. */
export interface Try {
  label: string;
  fields: Record<string, unknown>;
}

/** A usual step of the cut’s own bit. */
export const withUsualStep = (own: BaseTool | undefined): Try[] =>
  own ? [{ label: 'Use a step of 40 % of the bit', fields: { step: usualStep(own) } }] : [];

/** No bit that clears before the cut’s own. */
export const withOneBit = ({ clearBits }: { clearBits: readonly string[] }, own: BaseTool | undefined): Try[] =>
  clearBits.length > 0 ? [{ label: `Use ${own?.name ?? 'one bit'} alone`, fields: { clearBits: [] } }] : [];

/** No wood left for a last round. */
export const withoutFinish = ({ finish }: { finish: number }): Try[] =>
  finish > 0 ? [{ label: 'Cut without a finish allowance', fields: { finish: 0 } }] : [];

/** A way in that finds room anywhere. */
export const byARamp = (own: BaseTool | undefined): Try[] =>
  own ? [{ label: 'Go in by a ramp of 5°', fields: { entry: { kind: 'ramp', angle: 5 } } }] : [];
