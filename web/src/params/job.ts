import { JOB_ID } from '$lib/job-id';

export const match = (param: string): boolean => JOB_ID.test(param);
