import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { test as base } from '@playwright/test';
import { type Shop, startShop } from '../command/src/shop.ts';

/** A shop of its own in real time: what stops by itself within moments means nothing on a clock that runs sixty times as fast. */
export const test = base.extend<object, { slow: Shop }>({
  slow: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads a fixture's needs from the pattern.
    async ({}, use) => {
      const data = mkdtempSync(`${tmpdir()}/kerbe-slow-`);
      const shop = await startShop({ data, web: 0, database: 0, rate: 1, seed: 4 });
      await use(shop);
      shop.stop();
      rmSync(data, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
});
