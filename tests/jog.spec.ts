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

  /** The same place twice: however late it hears of a release, it stands then. */
  let seen = NaN;
  const stands = async () => {
    const last = seen;
    seen = await tip();
    return seen === last;
  };
  const standing = async () => {
    seen = NaN;
    await expect.poll(stands, { intervals: [250] }).toBe(true);
    return seen;
  };
  /** Pressed until it has gone on from a place: a beat that comes too late on a busy machine ends a press, as it should. */
  const goOnFrom = (place: number, press: () => Promise<void>, release: () => Promise<void>) =>
    expect(async () => {
      await release();
      await press();
      await expect.poll(tip, { timeout: 3000 }).toBeGreaterThan(place + 2);
    }).toPass();
  const byMouse = [
    async () => {
      await right.hover();
      await page.mouse.down();
    },
    () => page.mouse.up(),
  ] as const;

  const first = await standing();
  await goOnFrom(first, ...byMouse);
  await page.mouse.up();
  const stood = await standing();
  await page.waitForTimeout(1000);
  expect(await tip()).toBe(stood);

  // By the keyboard, and let go in the middle of it.
  await right.focus();
  await goOnFrom(
    stood,
    () => page.keyboard.down('Enter'),
    () => page.keyboard.up('Enter'),
  );
  await page.keyboard.up('Enter');
  const again = await standing();
  await page.waitForTimeout(600);
  expect(await tip()).toBe(again);

  // The network of the page is gone while the button is down; then the page itself.
  await goOnFrom(again, ...byMouse);
  await context.setOffline(true);
  await standing();
  const offline = await tip();
  expect(offline).toBeGreaterThan(again + 2);
  await page.waitForTimeout(1000);
  expect(await tip()).toBe(offline);
  await context.setOffline(false);
  await page.mouse.up();
  await atRest(page);
  await expect(page.getByText('The bench cannot be heard')).toHaveCount(0);
  await goOnFrom(offline, ...byMouse);
  await page.close();
  await new Promise((resolve) => setTimeout(resolve, 250));
  const gone = await tip();
  await new Promise((resolve) => setTimeout(resolve, 1000));
  expect(await tip()).toBe(gone);
});
