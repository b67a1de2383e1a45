import { z } from 'zod';
import { BENCH_BASE, type BaseBench } from '../../document/bench.ts';
import { text } from '../../schema/text.ts';

/** A word of a controller, with what belongs to it: “M3 S1”. */
const Word = text(24, 1).regex(/^[GM]\d+(\.\d)?( [A-Z]-?\d+(\.\d+)?)*$/);

/** A plasma table's bench: what every bench has, how its torch finds the sheet, and the words of its controller. */
export const PlasmaBenchSchema = z.object({
  ...BENCH_BASE,
  kind: z.literal('plasma'),
  /** How the sheet is felt: by a head that floats and gives, or by a current through the nozzle as soon as it touches. */
  touch: z.object({
    by: z.enum(['head', 'ohmic']),
    /** How much further the Z axis goes before that is noticed, mm; nothing by current. */
    offset: z.number().min(0).max(20),
    /** How far under the sheet it is looked for, mm. */
    search: z.number().positive().max(60),
  }),
  /** Seconds from the arc’s word until it stands. */
  transfer: z.number().min(0).max(10),
  /** Who takes the kerf off. */
  kerfBy: z.enum(['here', 'controller']),
  words: z.object({
    on: Word,
    off: Word,
    /** Height control: as high over the sheet as the arc’s voltage says, or level. */
    follow: Word,
    level: Word,
    /** The controller leads the torch left or right of its way, by half its kerf, and along it again. */
    left: Word.default('G41 D1'),
    right: Word.default('G42 D1'),
    along: Word.default('G40'),
  }),
  /** Where the pointer’s spot lies from the torch’s middle, mm; null where there is none. */
  pointer: z.object({ x: z.number().min(-500).max(500), y: z.number().min(-500).max(500) }).nullable(),
  /** What takes the fume. */
  fume: z.enum(['water', 'downdraught', 'none']),
});

export type PlasmaBench = z.infer<typeof PlasmaBenchSchema>;

/** A bench as a plasma table’s. @throws {Error} where it is another, which is a fault of ours. */
export function plasmaOf(bench: BaseBench): PlasmaBench {
  if (bench.kind !== 'plasma') throw new Error(`“${bench.name}” is no plasma table.`);
  return bench as PlasmaBench;
}
