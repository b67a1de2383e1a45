import { z } from 'zod';

const Environment = z.object({
  DATABASE_URL: z.string().startsWith('postgres'),
  KERBE_RUNNER_URL: z.url(),
  KERBE_RUNNER_TOKEN: z.string().min(16),
  KERBE_STAND_IN_PORT: z.coerce.number().int(),
  /** The hands and eyes of whoever stands beside the simulated machine. */
  KERBE_STAND_IN_HANDS: z.url(),
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
