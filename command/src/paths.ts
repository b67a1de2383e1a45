import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/** Where a running shop keeps its database, keys and journals. */
export const DATA = process.env.KERBE_DATA ?? `${ROOT}/.data`;
