import type { Operation } from 'fast-json-patch';
import type { Remark } from './remark.ts';
import type { Job } from '../document/job.ts';
import type { LeftRemark } from '../document/left-remark.ts';

/** A remark that was left on purpose, with why, by whom and when. */
export interface Left {
  remark: Remark;
  why: LeftRemark;
}

/** What keeps a program or a start back cannot be left. */
export const mayBeLeft = ({ weight, withholds }: Pick<Remark, 'weight' | 'withholds'>): boolean =>
  weight === 'advice' && !withholds;

/** A short mark of a text: FNV-1a of 32 bits, from memory, in hexadecimal digits. */
function markOf(text: string): string {
  let hash = 0x811c9dc5;
  for (const byte of new TextEncoder().encode(text)) hash = Math.imul(hash ^ byte, 0x01000193) >>> 0;
  return hash.toString(16).padStart(8, '0');
}

/** A mark of what a remark is about: what it says, the outlines and the bit of its cut, and the stock. */
export function causeOf(job: Job, remark: Pick<Remark, 'text' | 'cut'>): string {
  const cut = job.cuts.find(({ id }) => id === remark.cut);
  const bit = job.bits.find(({ id }) => id === cut?.bit);
  const { material, corners } = job.stock;
  return markOf(JSON.stringify([remark.text, cut?.kind, cut?.targets, bit, material, corners]));
}

/** Remarks that stand, and those that were left on purpose and whose cause is still the same. */
export function sortLeft(job: Job, remarks: readonly Remark[]): { remarks: Remark[]; left: Left[] } {
  const left: Left[] = [];
  const stand = remarks.filter((remark) => {
    const cause = mayBeLeft(remark) ? causeOf(job, remark) : undefined;
    const why = job.left?.find((one) => one.remark === remark.id && one.cause === cause);
    if (why) left.push({ remark, why });
    return !why;
  });
  return { remarks: stand, left };
}

/**
 * The change that leaves a remark as it is, for a reason.
 * @param by what the person is called; may be empty. @param at when, ISO 8601 in UTC.
 */
export function leaveIt(job: Job, remark: Remark, reason: string, by: string, at: string): Operation[] {
  const others = (job.left ?? []).filter((one) => one.remark !== remark.id);
  const own = { remark: remark.id, cause: causeOf(job, remark), reason, by, at };
  return [{ op: 'add', path: '/left', value: [...others, own] }];
}

/** The change that lets a remark stand again. */
export const letItStand = (job: Job, remark: Remark): Operation[] => [
  { op: 'add', path: '/left', value: (job.left ?? []).filter((one) => one.remark !== remark.id) },
];

/** As much of a left remark as its words need. */
interface LeftInShort {
  remark: Pick<Remark, 'text'>;
  why: Pick<LeftRemark, 'reason' | 'by' | 'at'>;
}

/**
 * A left remark in words, for headings and the log, each as it goes on from “this program”.
 * @example leftWords({ remark: { text: 'The floor is fine.' }, why: { reason: 'a lamp hides it', by: 'Ilse', at: '2026-05-04T10:00:00Z' } }) // ['leaves a remark as it is: The floor is fine', 'leaves it so by Ilse, 2026-05-04: a lamp hides it']
 */
export function leftWords({ remark, why }: LeftInShort): string[] {
  const plain = (text: string) => text.replace(/\.$/, '');
  const who = [why.by && `by ${why.by}`, why.at.slice(0, 10)].filter(Boolean).join(', ');
  return [`leaves a remark as it is: ${plain(remark.text)}`, `leaves it so ${who}: ${plain(why.reason)}`];
}
