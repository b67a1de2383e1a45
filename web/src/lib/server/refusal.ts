import { Told } from '@kerbe/core/schema/told';
import { z } from 'zod';
import { sentenceFor } from '@kerbe/core/schema/sentence-for';

/** An answer that is not what was asked for, as one sentence and with its HTTP status. */
export class Refused extends Told {
  override name = 'Refused';
  constructor(
    message: string,
    readonly status: number,
    readonly reason?: string,
  ) {
    super(message);
  }
}

export interface Refusal {
  status: number;
  problem: string;
  reason?: string;
}

/** The database, said as something the carver can wait for or see to. */
const DATABASE_AWAY =
  'The shop’s records cannot be reached at the moment; Kerbe starts them again by itself. What you entered stays in this window.';
const DISK_FULL = 'The disk is full, so this could not be kept; make room on it and try again.';

/** PostgreSQL: connection exceptions, shutting down, starting up, cancelled for taking too long, no connection left. */
const AWAY = /^(08...|57P0.|57014|53300)$/;

/** PostgreSQL: characters that no text holds, numbers out of range, text that is no value of its kind. */
const UNKEEPABLE = /^22(021|P05|P02|003)$/;

/**
 * What an error says to whoever asked; nothing where it is a fault of ours.
 * @example refusalOf(new Refused('This job does not exist.', 404)) // { status: 404, problem: 'This job does not exist.' }
 */
export function refusalOf(error: unknown): Refusal | undefined {
  if (error instanceof Refused) return { status: error.status, problem: error.message, reason: error.reason };
  if (error instanceof z.ZodError)
    return { status: 400, problem: `This could not be taken: ${lowered(sentenceFor(error))}` };
  if (error instanceof Told) return { status: 422, problem: error.message };
  // Of the web server's own limit, which holds for every route.
  if ((error as { status?: unknown } | undefined)?.status === 413)
    return { status: 413, problem: 'This is larger than anything Kerbe takes; make it smaller and try again.' };
  const code = String((error as { code?: unknown } | undefined)?.code ?? '');
  if (code === 'ENOSPC' || code === '53100') return { status: 507, problem: DISK_FULL };
  if (UNKEEPABLE.test(code))
    return {
      status: 400,
      problem: 'This holds a character or a number that cannot be kept or looked up; check the address.',
    };
  if (isDatabaseAway(error)) return { status: 503, problem: DATABASE_AWAY };
  return undefined;
}

/** Whether an error says that the database cannot be reached, or does not answer in time. */
function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code, message } = error as Error & { code?: string };
  if (code && AWAY.test(code)) return true;
  if (error instanceof AggregateError) return error.errors.some(isDatabaseAway);
  return (
    ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ENOENT', 'ETIMEDOUT'].includes(code ?? '') ||
    /^(Connection terminated|timeout (exceeded )?when trying to connect|Query read timeout|Client has encountered a connection error)/i.test(
      message,
    )
  );
}

function lowered(sentence: string): string {
  return sentence[0].toLowerCase() + sentence.slice(1);
}
