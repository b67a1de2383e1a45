import { z } from 'zod';

const BenchDoorSchema = z.object({
  id: z.string(),
  name: z.string(),
  runner: z.url(),
  /** Port of the simulated machine. */
  standIn: z.number().int(),
  /** The hands and eyes of whoever stands beside it. */
  hands: z.url(),
});
export type BenchDoor = z.infer<typeof BenchDoorSchema>;

const Environment = z.object({
  DATABASE_URL: z.string().startsWith('postgres'),
  /** As who its tables are changed by a new version; the same where it is left out. */
  DATABASE_OWNER_URL: z.string().startsWith('postgres').optional(),
  /** The linked benches: where the runner of each is, and its machine. */
  KERBE_BENCHES: z
    .string()
    .transform((text): unknown => JSON.parse(text))
    .pipe(z.array(BenchDoorSchema).min(1)),
  KERBE_RUNNER_TOKEN: z.string().min(16),
  /** Folder in which the bench runner finds programs by their hash. */
  KERBE_PROGRAMS: z.string(),
  KERBE_DEMO: z.string(),
  /** The script of a process for heavy work. */
  KERBE_HEAVY: z.string(),
});

/** What `./kerbe start` hands over in the environment. */
export function config(): z.infer<typeof Environment> {
  const parsed = Environment.safeParse(process.env);
  if (!parsed.success) throw new Error('The server lacks its settings; start it with ./kerbe start.');
  return parsed.data;
}
