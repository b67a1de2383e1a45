import { CutProblem } from './cut-problem.ts';

/** Names of materials with chlorine in them, which no laser may burn. */
const CHLORINE = /\bp[\s.-]*v[\s.-]*c\b|polyvinyl|vinyl|\bpvdc\b|chlori|(?:imitation|artificial|faux) leather/i;

/**
 * Refuses what no beam may burn, by its name.
 * @throws {CutProblem} for PVC and its kin.
 * @example neverBurnt('birch plywood') // undefined
 */
export function neverBurnt(material: string): void {
  if (CHLORINE.test(material))
    throw new CutProblem(
      `“${material}” is not burnt here: PVC and other plastics with chlorine give off hydrogen chloride, which harms lungs and eyes and eats the machine. Take another material at Stock.`,
    );
}
