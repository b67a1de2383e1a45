import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { leaveBenches } from './leave-benches.ts';

/** A page of the test shop; no request may leave the machine, no error may be thrown. */
export const test = base.extend<{ shop: Page }>({
  shop: async ({ page, context }, use, info) => {
    const address = process.env.KERBE_ADDRESS!;
    const outside: string[] = [];
    const errors: string[] = [];
    context.on('request', (request) => {
      const url = new URL(request.url());
      // Hold and Stop go straight to the runner, on a port of its own.
      const ours =
        url.origin === new URL(address).origin || (url.hostname === '127.0.0.1' && url.pathname === '/press');
      if (!['blob:', 'data:'].includes(url.protocol) && !ours) outside.push(request.url());
    });
    page.on('response', (answer) => {
      if (answer.status() >= 500) errors.push(`${answer.status()} of ${answer.request().method()} ${answer.url()}`);
    });
    page.on('pageerror', (error) => errors.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !/status of 4\d\d/.test(message.text())) errors.push(message.text());
    });
    await page.goto(address);
    await use(page);
    if (info.status !== info.expectedStatus) {
      console.log(await told(page));
      await leaveBenches(page, address);
    }
    expect(outside, 'requests that left the machine').toEqual([]);
    expect(errors, 'errors in the page').toEqual([]);
  },
});
export { expect };

/** What the page of a test that failed says, in short. */
const told = async (page: Page) =>
  (
    await page
      .locator('body')
      .innerText()
      .catch(() => '')
  ).slice(0, 3000);

/** Goes to a stop by the route along the bottom. */
export async function goTo(page: Page, stop: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'The route of this job' })
    .getByRole('link', { name: new RegExp(`^${stop}`) })
    .click();
  await expect(page.getByRole('heading', { level: 1, name: stop })).toBeVisible();
}

/** Waits until nothing of a machine is on. */
export async function atRest(page: Page): Promise<void> {
  await expect(page.locator('html[data-bench-busy]')).toHaveCount(0);
}

/** Waits until the drawing belongs to the document. */
export async function computed(page: Page): Promise<void> {
  const proof = page.getByRole('navigation', { name: 'The route of this job' }).getByRole('link', { name: /^Proof/ });
  await expect(proof).not.toContainText('computing');
}

/** Presses a button that tells the bench something, and waits until that is done: what the page shows may be from before. */
export async function done(page: Page, name: string | RegExp): Promise<void> {
  const [answer] = await Promise.all([
    page.waitForResponse(/\/api\/benches\/[^/]+\/command$/),
    page.getByRole('button', { name, exact: typeof name === 'string' }).click(),
  ]);
  expect(answer.ok(), await answer.text()).toBe(true);
  const own = /benches\/([^/]+)/.exec(answer.url())![1];
  await expect
    .poll(async () => {
      const { benches } = await (await page.request.get(new URL('/api/benches', answer.url()).href)).json();
      return (benches as { id: string; bench: string }[]).find(({ id }) => id === own)?.bench;
    })
    .toMatch(/^(ready|unhomed)$/);
}

/** Lends a hand at the stand-in, and waits until it has done that. */
export async function lend(page: Page, name: string): Promise<void> {
  const [answer] = await Promise.all([
    page.waitForResponse((one) => /\/stand-in$/.test(one.url()) && one.request().method() === 'POST'),
    page.getByRole('button', { name, exact: true }).click(),
  ]);
  expect(answer.ok(), await answer.text()).toBe(true);
}

/** Sets a number in the card. */
export async function setNumber(page: Page, name: string, text: string): Promise<void> {
  const field = page.getByLabel(name, { exact: true }).first();
  await field.fill(text);
  await field.press('Enter');
}

/** Through the window: the plate is so far to the right, back and below the tip, mm. */
async function plateAway(page: Page): Promise<{ x: number; y: number; z: number }> {
  const caption = page.getByText('Through the window of the stand-in.').locator('..');
  // The window is looked through three times a second.
  await expect(caption).toContainText('below the tip');
  const text = await caption.innerText();
  const found = /([\d.]+) mm to the (right|left), ([\d.]+) mm (back|in front), and ([\d.]+) mm below/.exec(text);
  if (!found) throw new Error(`no distance in “${text}”`);
  return {
    x: Number(found[1]) * (found[2] === 'right' ? 1 : -1),
    y: Number(found[3]) * (found[4] === 'back' ? 1 : -1),
    z: Number(found[5]),
  };
}

/** Brings the bit over the plate by eye and by single steps, as an operator would: coarse ones first. */
async function bringOverPlateByEye(page: Page): Promise<void> {
  const caption = page.getByText('Through the window of the stand-in.').locator('..');
  const byHand = page.getByRole('region', { name: 'Move by hand' });
  const press = async (name: RegExp) => {
    const before = await caption.innerText();
    await byHand.getByRole('button', { name }).click();
    // One at a time: the next when it has moved, stands again, and the window has been looked through anew.
    await expect.poll(() => caption.innerText(), { intervals: [50] }).not.toBe(before);
    await atRest(page);
    await page.waitForTimeout(330);
  };
  for (const step of [100, 10, 1]) {
    await byHand.getByRole('button', { name: String(step), exact: true }).click();
    for (let i = 0; i < 40; i++) {
      const away = await plateAway(page);
      if (Math.abs(away.x) >= Math.max(step * 0.6, 4)) await press(away.x > 0 ? /X\+/ : /X−/);
      else if (Math.abs(away.y) >= Math.max(step * 0.6, 4)) await press(away.y > 0 ? /Y\+/ : /Y−/);
      else if (step < 100 && away.z > step + 6) await press(/Z−/);
      else break;
    }
  }
}

/** The same by steps of just the right length, which this page’s hand sends: for tests of what comes after. */
async function bringOverPlate(page: Page): Promise<void> {
  const byHand = page.getByRole('region', { name: 'Move by hand' });
  await byHand.getByRole('button', { name: '1', exact: true }).click();
  const [first] = await Promise.all([
    page.waitForRequest(/\/command$/),
    byHand.getByRole('button', { name: /X\+/ }).click(),
  ]);
  const headers = await first.allHeaders();
  await page.waitForTimeout(400);
  await atRest(page);
  await page.waitForTimeout(400);
  const away = await plateAway(page);
  const step = async (axis: 'x' | 'y' | 'z', by: number) => {
    for (let left = by; Math.abs(left) > 0.5;) {
      const most = axis === 'z' ? 25 : 100;
      const now = Math.max(-most, Math.min(most, left));
      // It is refused while the last one is still on.
      await expect
        .poll(async () => {
          const data = { command: 'step', axis, by: now, feed: axis === 'z' ? 1500 : 4000 };
          const answer = await page.request.post(first.url(), { headers, data });
          return answer.ok() ? '' : `${JSON.stringify(data)}: ${await answer.text()}`;
        })
        .toBe('');
      left -= now;
    }
  };
  await step('x', away.x);
  await step('y', away.y);
  await step('z', -(away.z - 6));
  await page.waitForTimeout(400);
  await atRest(page);
}

/** Set-up, with the stand-in connected and homed. */
export async function connectAndHome(page: Page, machine = 'router'): Promise<void> {
  await goTo(page, 'Set-up');
  const connect = page.getByRole('button', { name: `Connect the stand-in ${machine}` });
  const home = page.getByRole('button', { name: 'Home', exact: true });
  await expect(connect.or(home)).toBeVisible();
  if (await connect.isVisible()) await connect.click();
  await expect(home).toBeEnabled();
  await home.click();
  await page.waitForTimeout(400);
  await atRest(page);
  await expect(page.getByRole('list', { name: 'In this order' }).getByRole('listitem').nth(1)).toContainText('sensed');
}

/** Connects the stand-in, homes it, lays the stock, puts the bit in and says so, in the trade's order. */
export async function prepareStandIn(page: Page, bit: string): Promise<void> {
  await connectAndHome(page);
  await lend(page, 'Lay the stock');
  await lend(page, `Put ${bit} in the stand-in`);
  await done(page, `${bit} is in`);
  const lay = page.getByRole('button', { name: 'Lay the plate, clip on' });
  const away = page.getByRole('button', { name: 'Take plate and clip away' });
  await expect(lay.or(away)).toBeVisible();
  if (await away.isVisible()) await away.click();
  await lay.click();
}

/** Taps the plate, brings the bit over it and touches off. */
export async function touchOff(page: Page, bring: 'by-eye' | 'straight' = 'straight'): Promise<void> {
  await page.getByRole('button', { name: 'Tap the plate on the bit' }).click();
  await expect(page.getByText('the circuit was sensed to close')).toBeVisible();
  await (bring === 'by-eye' ? bringOverPlateByEye(page) : bringOverPlate(page));
  await done(page, 'Set zero');
  await expect(page.getByText(/Z was set \d\d:\d\d/)).toBeVisible();
}

/** Takes plate and clip away and ticks the list to its end. */
export async function tickTheList(page: Page): Promise<void> {
  const away = page.getByRole('button', { name: 'Take plate and clip away' });
  await expect(away.or(page.getByRole('button', { name: 'Lay the plate, clip on' }))).toBeVisible();
  if (await away.isVisible()) await away.click();
  const list = page.getByRole('list', { name: 'In this order' });
  for (const box of await list.getByRole('checkbox').all()) {
    // The bench has the last word on what is ticked; what shows is what it answered.
    if (!(await box.isChecked())) await box.click();
    await expect(box).toBeChecked();
  }
}

/** Everything at Set-up, from connecting to the ticked list. */
export async function setUp(page: Page, bit: string): Promise<void> {
  await prepareStandIn(page, bit);
  await touchOff(page);
  await tickTheList(page);
}

/** Starts the run, once its checks are shown. */
export async function startRun(page: Page): Promise<void> {
  await goTo(page, 'Run');
  await expect(page.getByRole('region', { name: 'Checks of this program' })).toBeVisible();
  await page.getByRole('button', { name: 'Start the run' }).click();
  await expect(page.locator('html[data-bench-busy]')).toHaveCount(1);
}

/** Sets the feed of what runs, so that what happens in it lasts long enough to be seen by a page that is kept waiting. */
export async function feedAt(page: Page, percent: number): Promise<void> {
  const row = page.locator('.override').filter({ hasText: 'Feed' });
  for (;;) {
    const now = Number.parseInt(await row.locator('.figure').innerText());
    if (now === percent) return;
    await row.getByRole('button', { name: now > percent ? 'Slower' : 'Faster' }).click();
    await expect(row.locator('.figure')).not.toHaveText(`${now} %`);
  }
}

/** The acts of a bit change: made safe, changed, released, cleared, confirmed. */
export async function changeBit(page: Page, bit: string): Promise<void> {
  await expect(page.getByRole('heading', { name: `Bit change: ${bit}` })).toBeVisible();
  await lend(page, 'Press the emergency stop');
  await lend(page, `Put ${bit} in the stand-in`);
  await lend(page, 'Release the emergency stop');
  await page.getByRole('button', { name: 'Clear the stop', exact: true }).click();
  const confirm = page.getByRole('button', { name: /is in: measure it/ });
  await expect(confirm).toBeEnabled();
  await confirm.click();
}

/** The box of an outline in the list of the card, with its branch opened. */
export async function outline(page: Page, name: string | RegExp): Promise<Locator> {
  const tree = page.getByRole('tree', { name: 'Outlines' });
  if (!(await tree.isVisible())) await page.getByText(/^Outlines (of this|for a new) cut/).click();
  const box = tree.getByRole('checkbox', { name, exact: typeof name === 'string' });
  const folded = tree.locator('[aria-expanded=false] .fold').first();
  // Its drawing may still be on the way.
  await expect(async () => {
    while (!(await box.first().isVisible()) && (await folded.isVisible())) await folded.click();
    expect(await box.first().isVisible()).toBe(true);
  }).toPass();
  return box.first();
}

/** Where a place of the sheet, mm, is on the screen. */
export async function onScreen(page: Page, x: number, y: number): Promise<{ x: number; y: number }> {
  const svg = page.locator('svg[data-frame]');
  const [k, left, base] = (await svg.getAttribute('data-frame'))!.split(' ').map(Number);
  const box = (await svg.boundingBox())!;
  return { x: box.x + left + k * x, y: box.y + base - k * y };
}

/** The colour that is drawn at a place of the sheet, mm: red, green, blue and how much, 0 … 255. */
export async function drawnAt(page: Page, x: number, y: number): Promise<number[]> {
  const at = await onScreen(page, x, y);
  return page.locator('canvas').first().evaluate((canvas: HTMLCanvasElement, { x: px, y: py }) => {
    const box = canvas.getBoundingClientRect();
    const [i, j] = [((px - box.left) * canvas.width) / box.width, ((py - box.top) * canvas.height) / box.height];
    const copy = document.createElement('canvas').getContext('2d')!;
    copy.drawImage(canvas, -Math.round(i), -Math.round(j));
    return [...copy.getImageData(0, 0, 1, 1).data];
  }, at); // prettier-ignore
}

/** The job of a page as the server has it. */
export async function jobOf(
  page: Page,
): Promise<{ artwork: { x: number; y: number }[]; stock: { length: number; width: number } }> {
  const id = /jobs\/([^/]+)/.exec(page.url())![1];
  return (await (await page.request.get(new URL(`/api/jobs/${id}`, page.url()).href)).json()).job;
}
