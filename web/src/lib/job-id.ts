/** What the id of a job may be; anything else is no address of one. */
export const JOB_ID = /^[A-Za-z0-9_-]{1,60}$/;
