const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** Whether a request was addressed to this computer by a name of its own. @example isLoopback('127.0.0.1:4181') // true */
export const isLoopback = (host: string | undefined): boolean => LOOPBACK.test(host ?? '');
