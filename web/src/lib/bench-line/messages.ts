import type { PageAt, Told } from './hub';

/** What a page says to whoever has the stream. `lock` is the name of a lock that the page holds for as long as it is there. */
export interface FromPage {
  key: string;
  at: PageAt;
  lock: string;
}

/** What it hears. */
export type ToPage = Told;
