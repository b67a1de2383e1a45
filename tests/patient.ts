/** How long tests wait for a database, ms: on a busy machine nothing fails for being late. */
export const PATIENT = { connection: 600_000, answer: 600_000 };
