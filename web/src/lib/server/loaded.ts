import { error } from '@sveltejs/kit';
import { refusalOf } from './refusal.ts';

/** What a page is made from; what goes wrong becomes a page that says so. */
export async function loaded<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (problem) {
    const refusal = refusalOf(problem);
    if (refusal) error(refusal.status, refusal.problem);
    throw problem;
  }
}
