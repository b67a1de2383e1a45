import { CutProblem } from './cut-problem.ts';

/** Names of materials with chlorine in them, which no laser may burn: also uPVC, CPVC and PVC-U. */
const CHLORINE =
  /(?<![a-z])[uc]?p[^a-z0-9]*v[^a-z0-9]*c(?:[^a-z0-9]*[uo])?(?![a-z])|vinyl|\bpvdc\b|chlori|(?:imitation|artificial|faux) leather/;
/** The same said not to be in it. */
const WITHOUT =
  /\b(?:pvc|vinyl|chlorine)[\s-]*free\b|\b(?:no|non|without|free (?:of|from))[\s-]+(?:pvc|vinyl|chlorine)\b/g;

/** Letters of other alphabets that look like these. */
const LOOK_ALIKE: Record<string, string> = {
  р: 'p',
  ρ: 'p',
  ѵ: 'v',
  ν: 'v',
  υ: 'v',
  с: 'c',
  ϲ: 'c',
  і: 'i',
  ι: 'i',
  п: 'n',
  у: 'y',
  γ: 'y',
  ӏ: 'l',
  о: 'o',
  ο: 'o',
  һ: 'h',
  г: 'r',
};

/** A name as it is read: small letters of one alphabet, nothing unseen, letters that stand apart drawn together. */
function asRead(name: string): string {
  return [...name.normalize('NFKC').toLowerCase()]
    .map((letter) => LOOK_ALIKE[letter] ?? letter)
    .join('')
    .normalize('NFD')
    .replace(/[\p{Mark}\p{Default_Ignorable_Code_Point}]/gu, '')
    .replace(/(?<![a-z0-9])([a-z])[^a-z0-9]+(?=[a-z](?![a-z0-9]))/g, '$1');
}

/**
 * Refuses what no beam may burn, by its name.
 * @throws {CutProblem} for PVC and its kin.
 * @example neverBurnt('birch plywood') // undefined
 */
export function neverBurnt(material: string): void {
  if (CHLORINE.test(asRead(material).replace(WITHOUT, '')))
    throw new CutProblem(
      `“${material}” is not burnt here: PVC and other plastics with chlorine give off hydrogen chloride, which harms lungs and eyes and eats the machine. Take another material at Stock.`,
    );
}
