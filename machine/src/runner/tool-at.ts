import type { ProgramOrder } from './commands.ts';
import type { BitShape } from './zero.ts';

/**
 * The tool that is in at a line of a program: that of the cut in which the line lies, or of the next one, since what comes
 * before a cut belongs to it.
 */
export function toolAt({ cuts }: Pick<ProgramOrder, 'cuts'>, line: number): BitShape {
  return (cuts.find(({ to }) => line < to) ?? cuts[cuts.length - 1]).bit;
}
