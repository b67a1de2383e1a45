import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import type { BaseTool } from '../document/tool.ts';
import type { Clipper } from '../geometry/clipper.ts';
import { CutProblem } from '../ways/cut-problem.ts';
import { TOOL_KINDS, toolKindOf } from '../tools/kinds.ts';
import type { CutArtwork } from './cut-artwork.ts';
import type { CutPart } from './cut-part.ts';
import { kindOf } from './kinds.ts';

/** Why a cut is not made with a tool of another kind than it takes, in one sentence. */
export function wrongTool(cut: Pick<BaseCut, 'kind'>, tool: Pick<BaseTool, 'kind'>): string | undefined {
  const { bits, one } = kindOf(cut);
  if ((bits as readonly string[]).includes(tool.kind)) return undefined;
  const taken = bits.map((kind) => TOOL_KINDS[kind].one).join(' or ');
  return `${one[0].toUpperCase()}${one.slice(1)} cannot be made with ${toolKindOf(tool).one}; choose ${taken} for this cut.`;
}

/** A picture has a frame and greys, and no outline of what is seen on it. */
const pictureIn = (cut: Pick<BaseCut, 'kind'>): string =>
  `A picture is chosen, and it has no outlines that ${kindOf(cut).one} could follow; take it out of this cut, and bring in a drawing of it (SVG).`;

/**
 * The ordered paths of a cut, one for each bit it takes.
 * @throws with one sentence for what cannot be cut; see `cannotBeCut`.
 */
export async function partsOf(job: Job, cut: BaseCut, artwork: CutArtwork, clipper: Clipper): Promise<CutPart[]> {
  const bit = job.bits.find((b) => b.id === cut.bit);
  if (!bit) throw new CutProblem('This cut’s bit is no longer in the job; choose another.');
  const wrong = wrongTool(cut, bit);
  if (wrong) throw new CutProblem(wrong);
  if (!kindOf(cut).pictures && artwork.greys().length > 0) throw new CutProblem(pictureIn(cut));
  return kindOf(cut).make(job, cut, bit, artwork, clipper);
}
