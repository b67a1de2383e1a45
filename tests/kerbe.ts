import { test as base, expect, type Page } from '@playwright/test';

/** A page of the test shop; no request may leave the machine, no error may be thrown. */
export const test = base.extend<{ shop: Page }>({
  shop: async ({ page, context }, use) => {
    const address = process.env.KERBE_ADDRESS!;
    const outside: string[] = [];
    const errors: string[] = [];
    context.on('request', (request) => {
      const url = new URL(request.url());
      if (!['blob:', 'data:'].includes(url.protocol) && url.origin !== new URL(address).origin)
        outside.push(request.url());
    });
    page.on('pageerror', (error) => errors.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !/status of 4\d\d/.test(message.text())) errors.push(message.text());
    });
    await page.goto(address);
    await use(page);
    expect(outside, 'requests that left the machine').toEqual([]);
    expect(errors, 'errors in the page').toEqual([]);
  },
});
export { expect };

/** Goes to a stop by the route along the bottom. */
export async function goTo(page: Page, stop: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'The route of this job' })
    .getByRole('link', { name: new RegExp(`^${stop}`) })
    .click();
  await expect(
    page.getByRole('heading', { level: 1, name: stop }).or(page.getByRole('button', { name: /^(Hold|Go on)$/ })),
  ).toBeVisible();
}

/** Waits until the drawing belongs to the document. */
export async function computed(page: Page): Promise<void> {
  const proof = page.getByRole('navigation', { name: 'The route of this job' }).getByRole('link', { name: /^Proof/ });
  await expect(proof).not.toContainText('computing', { timeout: 30_000 });
}

/** Sets a number in the card. */
export async function setNumber(page: Page, name: string, text: string): Promise<void> {
  const field = page.getByLabel(name, { exact: true }).first();
  await field.fill(text);
  await field.press('Enter');
}

/** Brings the bit over the plate by eye and by the buttons, as an operator would: coarse steps first. */
export async function bringOverPlate(page: Page): Promise<void> {
  const caption = page.getByText('Through the window of the stand-in.').locator('..');
  const read = async () => {
    const text = await caption.innerText();
    const found = /([\d.]+) mm to the (right|left), ([\d.]+) mm (back|in front), and ([\d.]+) mm below/.exec(text);
    if (!found) throw new Error(`no distance in “${text}”`);
    return {
      x: Number(found[1]) * (found[2] === 'right' ? 1 : -1),
      y: Number(found[3]) * (found[4] === 'back' ? 1 : -1),
      z: Number(found[5]),
    };
  };
  for (const step of [100, 10, 1]) {
    await page.getByRole('button', { name: String(step), exact: true }).click();
    for (let i = 0; i < 40; i++) {
      await page.waitForTimeout(350);
      const away = await read();
      if (Math.abs(away.x) >= Math.max(step * 0.6, 4))
        await page.getByRole('button', { name: away.x > 0 ? /X\+/ : /X−/ }).click();
      else if (Math.abs(away.y) >= Math.max(step * 0.6, 4))
        await page.getByRole('button', { name: away.y > 0 ? /Y\+/ : /Y−/ }).click();
      else if (step < 100 && away.z > step + 6) await page.getByRole('button', { name: /Z−/ }).click();
      else break;
    }
  }
}

/** Connects the stand-in, homes it, lays the stock and brings the bit over the plate, in the trade's order. */
export async function prepareStandIn(page: Page, bit: string): Promise<void> {
  await goTo(page, 'Set-up');
  const connect = page.getByRole('button', { name: 'Connect the stand-in router' });
  const home = page.getByRole('button', { name: 'Home', exact: true });
  await expect(connect.or(home)).toBeVisible();
  if (await connect.isVisible()) await connect.click();
  await home.click();
  await expect(page.getByRole('list', { name: 'In this order' }).getByRole('listitem').nth(1)).toContainText('seen');
  await page.getByRole('button', { name: 'Lay the stock' }).click();
  await page.getByRole('button', { name: `Put ${bit} in` }).click();
  await page.getByRole('button', { name: 'Lay the plate, clip on' }).click();
}

/** Taps the plate, brings the bit over it and touches off. */
export async function touchOff(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Tap the plate on the bit' }).click();
  await expect(page.getByText('has been seen to close.')).toBeVisible();
  await bringOverPlate(page);
  await page.getByRole('button', { name: 'Set zero' }).click();
  await expect(page.getByText(/Zero was set at/)).toBeVisible({ timeout: 60_000 });
}
