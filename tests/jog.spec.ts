import { atRest, expect, goTo } from './kerbe.ts';
import { test } from './slow-shop.ts';

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
  // What the bench says moves no button from under the finger, and is in view where the buttons are.
  await right.scrollIntoViewIfNeeded();
  const where = await right.boundingBox();
  await page.route('**/command', (route) => route.fulfill({ status: 409, json: { problem: 'This was refused.' } }));
  await right.click();
  await expect(page.getByRole('alert').filter({ hasText: 'This was refused.' })).toBeInViewport();
  expect(await right.boundingBox()).toEqual(where);
  await page.unroute('**/command');

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
  // However late it hears of it, it stands: the same place twice.
  let seen = NaN;
  const stands = async () => {
    const last = seen;
    seen = await tip();
    return seen === last;
  };
  await expect.poll(stands, { intervals: [250] }).toBe(true);
  const offline = await tip();
  expect(offline).toBeGreaterThan(again + 2);
  await page.waitForTimeout(1000);
  expect(await tip()).toBe(offline);
  await context.setOffline(false);
  await page.mouse.up();
  await atRest(page);
  await expect(page.getByText('The bench cannot be heard')).toHaveCount(0);
  // On a machine with much else to do a beat may come too late, which ends the move: it is pressed again.
  await expect(async () => {
    await page.mouse.up();
    await right.hover();
    await page.mouse.down();
    await page.waitForTimeout(400);
    expect(await tip()).toBeGreaterThan(offline + 2);
  }).toPass();
  await page.close();
  await new Promise((resolve) => setTimeout(resolve, 250));
  const gone = await tip();
  await new Promise((resolve) => setTimeout(resolve, 1000));
  expect(await tip()).toBe(gone);
});
