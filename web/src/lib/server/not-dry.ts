import { sql } from 'kysely';

/** Of runs those that were to cut something: of a dry one nothing is on. */
export const NOT_DRY = sql<boolean>`coalesce((runs.settings->>'dry')::boolean, false) = false`;
