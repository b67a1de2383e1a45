import { z } from 'zod';
import { BENCH_BASE, type BaseBench } from '../../document/bench.ts';
import { text } from '../../schema/text.ts';

/** A word of a controller: “M4”. */
const Word = text(24, 1).regex(/^[GM]\d+(\.\d)?( [A-Z]-?\d+(\.\d+)?)*$/);

/** What makes the beam, with the wavelength that is usual for it, nm. */
export const SOURCES = { diode: 450, co2: 10_600, fibre: 1064 } as const;

/** A laser's bench: what every bench has, its source, and the words of its controller. */
export const LaserBenchSchema = z.object({
  ...BENCH_BASE,
  kind: z.literal('laser'),
  source: z.enum(['diode', 'co2', 'fibre']),
  /** Of the beam at full power. */
  watts: z.number().positive().max(20_000),
  /** What full power is in the controller's words: 255, 1000. */
  full: z.number().positive().max(1_000_000),
  /** Power goes down with the speed wherever the head slows, or stays. */
  follows: z.boolean(),
  words: z.object({
    on: Word,
    off: Word,
    /** Air that is blown on the work; null where it is switched by hand. */
    airOn: Word.nullable(),
    airOff: Word.nullable(),
  }),
  /** What shows where the beam will be: a cross of light beside it, the beam itself at so much power, or nothing. */
  pointer: z
    .discriminatedUnion('by', [
      z.object({ by: z.literal('cross'), x: z.number().min(-500).max(500), y: z.number().min(-500).max(500) }),
      z.object({ by: z.literal('beam'), percent: z.number().positive().max(5) }),
    ])
    .nullable(),
  /** A lid whose switch closes the beam when it is opened. */
  lid: z.boolean(),
  exhaust: z.boolean(),
  /** How long the smoke is drawn off before the lid is opened, s. */
  smoke: z.number().min(0).max(3600).default(30),
});

export type LaserBench = z.infer<typeof LaserBenchSchema>;

/** A bench as a laser's. @throws {Error} where it is another, which is a fault of ours. */
export function laserOf(bench: BaseBench): LaserBench {
  if (bench.kind !== 'laser') throw new Error(`“${bench.name}” is no laser.`);
  return bench as LaserBench;
}

/** Where its pointer's spot lies from the beam, mm: beside it, or in it; nothing where it has none. */
export const spotOf = ({ pointer }: Pick<LaserBench, 'pointer'>): { x: number; y: number } | undefined =>
  pointer === null ? undefined : pointer.by === 'cross' ? { x: pointer.x, y: pointer.y } : { x: 0, y: 0 };
