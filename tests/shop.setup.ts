import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startShop } from '../command/src/shop.ts';

/** One shop for all browser tests: its own database, and a stand-in router whose clock runs fast. */
export default async function setup(): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(tmpdir(), 'kerbe-test-'));
  process.env.KERBE_QUIET = '1';
  const shop = await startShop({ data, web: 0, database: 0, rate: 60, seed: 11 });
  process.env.KERBE_ADDRESS = shop.address;
  process.env.KERBE_STAND_IN_PID = String(shop.parts.standIn.pid);
  return async () => {
    shop.stop();
    rmSync(data, { recursive: true, force: true });
  };
}
