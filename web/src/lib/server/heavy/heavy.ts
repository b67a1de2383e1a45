import { config } from '../config.ts';
import { HeavyDesk } from './desk.ts';

let opened: HeavyDesk | undefined;

/** The shop's one desk for heavy work. */
export function heavy(): HeavyDesk {
  opened ??= new HeavyDesk(config().KERBE_HEAVY);
  return opened;
}
