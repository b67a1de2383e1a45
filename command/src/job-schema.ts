import { z } from 'zod';
import { JobFileSchema } from '@kerbe/core/job/job-file';

/** The JSON Schema of a job file, as text. `docs/job.schema.json` holds it; a test compares the two. */
export function jobSchemaText(): string {
  return JSON.stringify(z.toJSONSchema(JobFileSchema, { io: 'input' }), null, 2) + '\n';
}
