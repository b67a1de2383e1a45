import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { test as base } from '@playwright/test';
import { type Shop, startShop } from '../command/src/shop.ts';
import { atRest, expect, goTo } from './kerbe.ts';

// In real time: a stop within 250 ms means nothing on a clock that runs sixty times as fast.
const test = base.extend<object, { slow: Shop }>({
  slow: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads a fixture's needs from the pattern.
    async ({}, use) => {
      const data = mkdtempSync(`${tmpdir()}/kerbe-jog-`);
      const shop = await startShop({ data, web: 0, database: 0, rate: 1, seed: 4 });
      await use(shop);
      shop.stop();
      rmSync(data, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
});

test('a move by hand lasts as long as the press, and ends with the page', async ({ slow, page, context }) => {
  const tip = async () => {
    const look = await (await fetch(`${slow.address}api/benches/dome-workshop/stand-in`)).json();
    return look.tip.x as number;
  };
  await page.goto(slow.address);
  await page.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(page, 'Set-up');
  await page.getByRole('button', { name: 'Connect the stand-in router' }).click();
  await expect(page.getByRole('button', { name: 'Home', exact: true })).toBeEnabled();
  await page.getByRole('button', { name: 'Home', exact: true }).click();
  await page.waitForTimeout(500);
  await atRest(page);

  const right = page.getByRole('button', { name: 'Move right (X+)' });
  await right.scrollIntoViewIfNeeded();
  await right.hover();
  await page.mouse.down();
  await page.waitForTimeout(900);
  const before = await tip();
  expect(before).toBeGreaterThan(4);
  await page.mouse.up();
  await page.waitForTimeout(250);
  const stood = await tip();
  await page.waitForTimeout(1000);
  expect(await tip()).toBe(stood);

  // By the keyboard, and let go in the middle of it.
  await right.focus();
  await page.keyboard.down('Enter');
  await page.waitForTimeout(600);
  await page.keyboard.up('Enter');
  await page.waitForTimeout(250);
  const again = await tip();
  expect(again).toBeGreaterThan(stood + 2);
  await page.waitForTimeout(600);
  expect(await tip()).toBe(again);

  // The network of the page is gone while the button is down; then the page itself.
  await right.hover();
  await page.mouse.down();
  await page.waitForTimeout(600);
  await context.setOffline(true);
  await page.waitForTimeout(300);
  const offline = await tip();
  expect(offline).toBeGreaterThan(again + 2);
  await page.waitForTimeout(1000);
  expect(await tip()).toBe(offline);
  await context.setOffline(false);
  await page.mouse.up();
  await atRest(page);
  // What it says while it hears nothing stands over the buttons, which move up once it hears again.
  await expect(page.getByText('The bench cannot be heard')).toHaveCount(0);
  await right.hover();
  await page.mouse.down();
  await expect.poll(tip).toBeGreaterThan(offline + 2);
  await page.close();
  await new Promise((resolve) => setTimeout(resolve, 250));
  const gone = await tip();
  await new Promise((resolve) => setTimeout(resolve, 1000));
  expect(await tip()).toBe(gone);
});
