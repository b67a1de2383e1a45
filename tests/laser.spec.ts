import {
  atRest,
  done,
  computed,
  connectAndHome,
  drawnAt,
  expect,
  goTo,
  lend,
  onScreen,
  startRun,
  test,
} from './kerbe.ts';
import { pointAt, tickAll } from './plasma-steps.ts';
import { carveMeanwhile, noteInLog, writePrograms } from './story-steps.ts';

test('plywood star tags: picture, ring and edge in one run, the lid opened on the way, while a board is carved', async ({
  shop,
  context,
}) => {
  const jobs = shop.url();
  await shop.getByRole('link', { name: /Star tags/ }).click();
  await computed(shop);

  // Stock: PVC is refused by its name; the old material comes back.
  await goTo(shop, 'Stock');
  const material = shop.getByLabel('material', { exact: true });
  await material.fill('PVC sheet');
  await material.press('Enter');
  await goTo(shop, 'Proof');
  await expect(shop.getByText(/“PVC sheet” is not burnt here/).first()).toBeVisible();
  await goTo(shop, 'Stock');
  await material.fill('birch plywood');
  await material.press('Enter');
  await computed(shop);

  // Cuts: the picture is toned, and how much of it is burnt follows.
  await goTo(shop, 'Cuts');
  const facts = shop.locator('[data-cut=comets] .facts');
  await expect(facts).toContainText('35 % power');
  const before = await facts.innerText();
  const brightness = shop.locator('[data-cut=comets]').getByLabel('brightness', { exact: true });
  await brightness.fill('20');
  await brightness.press('Enter');
  await expect(facts).toContainText('burnt');
  await expect(facts).not.toHaveText(before);
  const power = shop.locator('[data-cut=comets]').getByLabel('power', { exact: true });
  await power.fill('120');
  await power.press('Enter');
  await expect(shop.getByText(/at most 100/)).toBeVisible();
  await power.fill('40');
  await power.press('Enter');
  await expect(facts).toContainText('40 % power');

  await computed(shop);
  const [program] = await writePrograms(shop, ['star-tags-1-beam-0-12.nc']);
  expect([program.includes('M4 S0'), program.includes('S400'), /^[^(].*Z/m.test(program)]).toEqual([true, true, false]);

  // Set-up.
  await connectAndHome(shop, 'laser');
  await lend(shop, 'Lay the stock');
  await lend(shop, 'Put Beam 0.12 in the stand-in');
  await done(shop, 'Beam 0.12 is in');
  await expect(shop.getByText('Beam 0.12 was said to be in.')).toBeVisible();
  await pointAt(shop, 'the mark of zero');
  await done(shop, /The spot is on the lower left corner/);
  await expect(shop.getByText(/was pointed at \d\d:\d\d/)).toBeVisible();
  await pointAt(shop, 'a place far along the edge');
  await done(shop, 'The spot is on the edge along X');
  await expect(shop.getByRole('status').filter({ hasText: /turned by -?\d/ })).toBeVisible();
  await shop.getByRole('button', { name: 'Set the lens by its gauge' }).click();
  await shop.getByRole('button', { name: 'The lens is at its distance' }).click();
  await expect(shop.getByText(/It was focused \d\d:\d\d/)).toBeVisible();
  // Not armed, nothing goes.
  await expect(shop.getByRole('button', { name: 'Round the box' })).toBeDisabled();
  await shop.getByRole('button', { name: 'Turn the key: arm it' }).click();
  await tickAll(shop);
  await shop.getByRole('button', { name: 'Round the box' }).click();
  // Done in a moment: people step back from it, and tick again that they stay.
  await expect(shop.getByRole('checkbox', { name: /^Somebody stays/ })).not.toBeChecked();
  await atRest(shop);
  await tickAll(shop);

  const other = await carveMeanwhile(context, jobs);
  await startRun(shop);
  await expect(shop.getByText(/^Beam on, \d+ %$/)).toBeVisible();
  await shop.getByRole('button', { name: 'Open the lid' }).click();
  await expect(shop.getByText(/The lid is open and its switch has closed the beam/)).toBeVisible();
  await expect(shop.getByText('Beam off', { exact: true })).toBeVisible();
  await expect(shop.getByText('leaves that little unburnt')).toBeVisible();
  const goOn = shop.getByRole('button', { name: /^Go on/ });
  await expect(goOn).toBeDisabled();
  await shop.getByRole('button', { name: 'Close the lid' }).click();
  await goOn.click();
  await expect(shop.getByText(/Done\. It took/)).toBeVisible();
  await expect(shop.getByRole('timer')).toContainText('Leave the lid closed');
  const look = await (await shop.request.get(new URL('/api/benches/lantern-room/stand-in', jobs).href)).json();
  expect(look.damage).toEqual({ firedAtRest: 0, lidOpened: 1, flamedUp: 0, poisoned: 0, besideStock: 0 });
  await noteInLog(shop, ['Beam 0.12', '40 % power'], 'Clear; the rings a little pale.');
  await other.getByRole('button', { name: 'Stop', exact: true }).click();
  await atRest(other);
});

test('a test grid is a job made in one click, and its best square becomes the setting', async ({ shop }) => {
  await shop.getByRole('link', { name: /Star tags/ }).click();
  await computed(shop);
  await goTo(shop, 'Bits');
  await shop.getByRole('button', { name: 'Make a test grid for birch plywood' }).click();
  await expect(shop.getByRole('heading', { level: 1, name: 'Cuts' })).toBeVisible();
  await computed(shop);
  await expect(shop.locator('[data-cut]')).toHaveCount(31);
  await expect(shop.locator('[data-cut=labels] .facts')).toContainText('power');
  // The second square from the left in the fourth row.
  const square = { x: 22 + 13 + 5, y: 12 + 3 * 13 + 5 };
  const at = await onScreen(shop, square.x, square.y);
  await shop.mouse.click(at.x, at.y);
  const cut = shop.locator('[data-cut="p49-f4500"]');
  await expect(cut).toHaveClass(/active/);
  await expect(cut).toBeInViewport();
  expect((await drawnAt(shop, square.x, square.y))[3]).toBeGreaterThan(60);
  await shop.getByRole('button', { name: /Keep this as the setting of Beam 0\.12 for 3 mm of birch plywood/ }).click();
  await expect(shop.getByText(/has this setting for birch plywood now, here and in the shop’s table/)).toBeVisible();
  await goTo(shop, 'Bits');
  await expect(shop.getByLabel('engrave power in birch plywood, row 1')).toHaveValue('49');
  await expect(shop.getByLabel('engrave feed in birch plywood, row 1')).toHaveValue('4500');
});

test('a strip that finds how late the beam comes is a job in one click, and what it finds is kept with the bench', async ({
  shop,
}) => {
  await shop
    .getByRole('link', { name: /Star tags/ })
    .first()
    .click();
  await computed(shop);
  await goTo(shop, 'Bits');
  await shop.getByRole('button', { name: 'Make a strip that finds how late the beam comes' }).click();
  await expect(shop.getByRole('heading', { level: 1, name: 'Cuts' })).toBeVisible();
  await computed(shop);
  // The fourth square from the left: 0.4 ms more than the bench says.
  await expect(async () => {
    const at = await onScreen(shop, 6 + 3 * 15 + 5, 12 + 5);
    await shop.mouse.click(at.x, at.y);
    await expect(shop.locator('[data-cut="late-1-2"]')).toHaveClass(/active/, { timeout: 2000 });
  }).toPass();
  await shop.getByRole('button', { name: /^Keep 1\.2 ms as how late the beam of .+ comes$/ }).click();
  await expect(shop.getByText(/has it now, here and in the shop’s table/)).toBeVisible();
  const refused = await shop.request.put(new URL('/api/benches/nowhere/lag', shop.url()).href, {
    data: { lag: 0.001 },
    headers: { origin: new URL(shop.url()).origin },
  });
  expect([refused.status(), (await refused.json()).problem]).toEqual([404, 'There is no such bench in this shop.']);
});
