import type { Page } from '@playwright/test';
import type { Shop } from '../command/src/shop.ts';
import { atRest, expect, goTo } from './kerbe.ts';
import { test } from './slow-shop.ts';

/** The machine as someone beside it sees it, whatever server and runner are at. */
const tip = async (shop: Shop) => ((await (await fetch(`${shop.hands}/look`)).json()) as { tip: { x: number } }).tip.x;

/** Where it stands: the same place twice, a good while apart. */
async function stands(shop: Shop): Promise<number> {
  let before = NaN;
  await expect
    .poll(
      async () => {
        const now = await tip(shop);
        const same = now === before;
        before = now;
        return same;
      },
      { intervals: [400] },
    )
    .toBe(true);
  return before;
}

async function homed(shop: Shop, page: Page): Promise<void> {
  await page.goto(shop.address);
  await page.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(page, 'Set-up');
  const connect = page.getByRole('button', { name: 'Connect the stand-in router' });
  const home = page.getByRole('button', { name: 'Home', exact: true });
  await expect(connect.or(home)).toBeVisible();
  if (await connect.isVisible()) await connect.click();
  await expect(home).toBeEnabled();
  await home.click();
  await expect(page.locator('html[data-bench-busy]')).toHaveCount(1);
  await atRest(page);
}

/** A long, slow step by hand: 100 mm that take twenty seconds. */
async function moves(shop: Shop, page: Page): Promise<void> {
  const own = await page.evaluate(() => sessionStorage.getItem('kerbe-page')!);
  const answer = await page.request.post(`${shop.address}api/benches/dome-workshop/command`, {
    headers: { 'x-kerbe-page': own },
    data: { command: 'step', axis: 'x', by: 100, feed: 300 },
  });
  expect(await answer.text()).not.toContain('problem');
  await expect.poll(() => tip(shop)).toBeGreaterThan(0.5);
}

test('with twenty tabs open Stop is answered, and so is all else', async ({ slow, page, context }) => {
  await homed(slow, page);
  const tabs: Page[] = [];
  for (let k = 0; k < 19; k++) {
    const tab = await context.newPage();
    await tab.goto(slow.address);
    tabs.push(tab);
  }
  const last = tabs.at(-1)!;
  await last.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(last, 'Set-up');
  await moves(slow, page);
  await last.getByRole('button', { name: 'Stop', exact: true }).click();
  const stood = await stands(slow);
  expect(stood).toBeLessThan(90);
  await expect(last.getByText('has not been answered')).toHaveCount(0);
  for (const tab of [page, ...tabs.slice(0, 3), last]) {
    const states = await tab.evaluate(
      async () => (await (await fetch('/api/benches')).json()) as { benches: unknown[] },
    );
    expect(states.benches.length).toBeGreaterThan(1);
  }
  // The first page still commands the bench: it is there, though it is hidden behind nineteen others.
  await moves(slow, page);
  await page.getByRole('button', { name: 'Hold', exact: true }).click();
  await stands(slow);
  for (const tab of tabs) await tab.close();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await atRest(page);
});

test('Stop and Hold of another page end a slow press, which moves nothing however long it is held on', async ({
  slow,
  page,
  context,
}) => {
  await homed(slow, page);
  const other = await context.newPage();
  await other.goto(slow.address);
  await other.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(other, 'Set-up');
  await page.getByLabel('speed by hand', { exact: true }).selectOption('300');
  const right = page.getByRole('button', { name: 'Move right (X+)' });
  for (const word of ['Stop', 'Hold', 'Stop', 'Hold']) {
    const before = await stands(slow);
    await right.hover();
    await page.mouse.down();
    // On a machine with much else to do a beat may come too late, which ends the move: it is pressed again.
    await expect(async () => {
      if ((await tip(slow)) < before + 0.5) {
        await page.mouse.up();
        await page.mouse.down();
      }
      expect(await tip(slow)).toBeGreaterThan(before + 0.5);
    }).toPass({ intervals: [600] });
    await other.getByRole('button', { name: word, exact: true }).click();
    const stood = await stands(slow);
    if (word === 'Hold') {
      const on = page.getByRole('button', { name: 'Go on' });
      await expect(on).toBeEnabled();
      await on.focus();
      await page.keyboard.press('Enter');
      await atRest(page);
    }
    expect(await stands(slow)).toBe(stood);
    await page.mouse.up();
  }
});

test('with the server’s own loop standing Stop goes straight to the runner', async ({ slow, page }) => {
  await homed(slow, page);
  await moves(slow, page);
  const server = slow.parts.web.pid!;
  process.kill(server, 'SIGSTOP');
  try {
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    expect(await stands(slow)).toBeLessThan(90);
    await expect(page.getByText('has not been answered')).toHaveCount(0);
  } finally {
    process.kill(server, 'SIGCONT');
  }
  await atRest(page);
});

test('a press that nobody answers is said in large words, with the machine’s own stop, until one is', async ({
  slow,
  page,
}) => {
  await homed(slow, page);
  await moves(slow, page);
  const runner = slow.parts.runner.pid!;
  process.kill(runner, 'SIGSTOP');
  try {
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    const said = page.getByRole('alert').filter({ hasText: 'Stop has not been answered' });
    await expect(said).toContainText('Use the emergency stop at Dome workshop router itself');
    // Read from where one stands: it lies over nothing that stops the machine.
    const size = await said.getByRole('heading').evaluate((h) => parseFloat(getComputedStyle(h).fontSize));
    expect(size).toBeGreaterThanOrEqual(40);
    await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeInViewport();
    if (process.env.KERBE_SHOTS) await page.screenshot({ path: `${process.env.KERBE_SHOTS}/unanswered.png` });
    // By itself: nothing has been heard for two seconds.
    await stands(slow);
  } finally {
    process.kill(runner, 'SIGCONT');
  }
  await expect(page.getByText('has not been answered')).toHaveCount(0);
  await stands(slow);
});

test('without a link it says that Stop does not reach the machine', async ({ slow, page }) => {
  await homed(slow, page);
  await page.getByRole('button', { name: 'Disconnect' }).click();
  await expect(page.getByRole('button', { name: 'Connect the stand-in router' })).toBeVisible();
  const answer = await page.evaluate(async () => {
    const { doors } = (await (await fetch('/api/benches')).json()) as { doors: { url: string; token: string }[] };
    const body = (token: string) => JSON.stringify({ token, command: 'stop', press: 'a', page: 'p', name: '' });
    const ask = async (token: string) => {
      const response = await fetch(doors[0].url, { method: 'POST', body: body(token) });
      return [response.status, await response.text()];
    };
    return [await ask(doors[0].token), await ask('x'.repeat(64))];
  });
  expect(answer[0]).toEqual([409, expect.stringContaining('go by the machine’s own stop')]);
  expect(answer[1][0]).toBe(401);
});
