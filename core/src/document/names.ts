import { z } from 'zod';

/** How things in a job are named, so that others can refer to them. */
export const IdSchema = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);

/** A place on the sheet along one axis, mm. */
export const PlaceSchema = z.number().min(-10_000).max(10_000);
