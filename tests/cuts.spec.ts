import { computed, drawnAt, expect, goTo, jobOf, outline, setNumber, test } from './kerbe.ts';

test('pockets, holes and inlays are made, ordered and timed through the interface', async ({ shop }) => {
  await shop.locator('a[href="/jobs/night-light/artwork"]').click();
  await computed(shop);
  await goTo(shop, 'Cuts');
  const facts = (cut: string) => shop.locator(`[data-cut=${cut}] .facts`);
  await expect(facts('lights')).toContainText('5 holes');
  await expect(facts('moon')).toContainText('2 bits');
  await expect(facts('star')).toContainText(/gap 0\.0(59|6) to 0\.06(1)? mm a side/);

  // A number changes what is cut, a bad one says so and loses nothing.
  const moon = shop.locator('[data-cut=moon]');
  await moon.getByLabel('depth', { exact: true }).fill('2 * 3');
  await moon.getByLabel('depth', { exact: true }).press('Enter');
  await expect(facts('moon')).toContainText('6 mm deepest');
  await moon.getByLabel('step', { exact: true }).fill('9');
  await moon.getByLabel('step', { exact: true }).press('Enter');
  await expect(moon).toContainText('The step is wider than the bit');
  await moon.getByLabel('step', { exact: true }).fill('1.3');
  await moon.getByLabel('step', { exact: true }).press('Enter');
  await expect(facts('moon')).toContainText('6 mm deepest');
  await moon.getByLabel('pattern of cut 2').selectOption('lines');
  await expect(moon.getByLabel('angle of the lines')).toBeVisible();
  await computed(shop);
  await expect(facts('moon')).toContainText('6 mm deepest');

  // Without the larger bit first, one bit does it.
  await moon.getByLabel('bit that clears first, number 1').selectOption({ label: 'no bit' });
  await computed(shop);
  await expect(facts('moon')).not.toContainText('2 bits');

  // The carver's own order breaks the trade's rule: said, and mended by a button.
  await shop.getByRole('button', { name: 'Make cut 1 later' }).click();
  await expect(shop.getByText('Usual is to drill, then carve')).toBeVisible();
  await expect(shop.locator('[data-cut]').first()).toHaveAttribute('data-cut', 'moon');
  await shop.getByRole('button', { name: 'Put them in the usual order' }).click();
  await expect(shop.locator('[data-cut]').first()).toHaveAttribute('data-cut', 'lights');

  // More settings: a lead and a skin for the cut-out.
  await shop.locator('[data-cut=edge]').getByRole('button', { name: 'edge' }).click();
  await shop.locator('[data-cut=edge]').getByText('More about how it is cut').click();
  await setNumber(shop, 'skin', '0.4');
  await computed(shop);
  await expect(facts('edge')).toContainText('11.7 mm deepest');

  await goTo(shop, 'Proof');
  await expect(shop.getByText('Pocket moon')).toBeVisible();
  await shop.getByRole('button', { name: 'Write the program' }).click();
  await expect(shop.getByRole('link', { name: 'night-light-plate.nc' })).toBeVisible();
});

test('a cut of every kind can be added to a job of one’s own', async ({ shop }) => {
  await shop.getByLabel('Called').fill('All kinds');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await shop.getByLabel('Drawing or picture to import').setInputFiles({
    name: 'kinds.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">
        <rect id="tray" x="5" y="5" width="50" height="40"/><circle id="peg" cx="80" cy="20" r="3"/>
        <rect id="badge" x="70" y="30" width="40" height="20" rx="4"/></svg>`,
    ),
  });
  await expect(shop.getByRole('button', { name: /^kinds/ })).toContainText('3 shapes');
  await goTo(shop, 'Cuts');
  for (const [button, shape, fact] of [
    ['Add a pocket', 'tray', 'passes'],
    ['Add holes', 'peg', '1 hole'],
    ['Add an inlay', 'badge', 'gap'],
    ['Add an engraved line', 'badge', '0.58 mm wide'],
  ] as const) {
    // What is chosen before is what a new cut takes.
    const none = shop.getByRole('button', { name: 'Choose shapes for it first' });
    if (await none.isVisible()) await none.click();
    await (await outline(shop, shape)).click();
    await shop.getByRole('button', { name: button }).click();
    await computed(shop);
    await expect(shop.locator('li.active .facts')).toContainText(fact);
  }
  // The hole that will be there is drawn: as wide as the bit, in the middle of what was drawn.
  const { artwork } = await jobOf(shop);
  const [x, y] = [artwork[0].x + 80, artwork[0].y + 40];
  const dark = async (away: number) => (await drawnAt(shop, x + away, y + away))[3] > 120;
  expect([await dark(0), await dark(0.9), await dark(1.3)]).toEqual([true, true, false]);
  // A hole is not a square: the drill says what it takes.
  await shop.getByRole('button', { name: 'Choose shapes for it first' }).click();
  await (await outline(shop, 'tray')).click();
  await shop.getByRole('button', { name: 'Add holes' }).click();
  await expect(shop.getByText('None of the chosen outlines is a circle or a point')).toBeVisible();
});

test('what would make it quicker is measured, and done by a button', async ({ shop }) => {
  await shop.locator('a[href="/jobs/entrance-board/artwork"]').click();
  await computed(shop);
  await goTo(shop, 'Proof');
  await shop.getByRole('button', { name: 'Measure it' }).click();
  const lift = shop.getByRole('button', { name: /Do it ?: Lift .* between cuts/ });
  await expect(lift).toBeVisible();
  await lift.click();
  await goTo(shop, 'Stock');
  await expect(shop.getByLabel('lift', { exact: true })).toHaveValue('2 mm');
  await shop.getByRole('button', { name: 'Undo' }).click();
  await expect(shop.getByLabel('lift', { exact: true })).toHaveValue('6 mm');
});

test('another file takes the place of a drawing, and cuts hold on to the shapes that they know', async ({ shop }) => {
  const svg = (inside: string) => ({
    name: 'sky.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">${inside}</svg>`,
    ),
  });
  const [sun, moon, star] = [
    '<circle id="sun" cx="20" cy="30" r="9"/>',
    '<circle id="moon" cx="60" cy="30" r="7"/>',
    '<path d="M95 20h12v12h-12z"/>',
  ];
  await shop.getByLabel('Called').fill('Another sky');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await shop.getByLabel('Drawing or picture to import').setInputFiles(svg(sun + moon + star));
  await goTo(shop, 'Cuts');
  await (await outline(shop, 'moon')).click();
  await shop.getByRole('button', { name: 'Add a pocket' }).click();
  await computed(shop);
  const cut = shop.locator('li.active');
  await expect(cut).toContainText('moon');

  // Behind others now, and larger: the same moon.
  await goTo(shop, 'Artwork');
  await shop
    .getByLabel('Drawing or picture in place of sky')
    .setInputFiles(svg(star + '<rect id="house" width="9" height="9"/>' + sun + moon.replace('r="7"', 'r="8"')));
  await goTo(shop, 'Cuts');
  await computed(shop);
  await expect(await outline(shop, 'moon')).toBeChecked();
  await expect(shop.getByRole('tree').getByText('1 of 4', { exact: true })).toBeVisible();

  // No moon at all: said, and nothing else is cut in its place.
  await goTo(shop, 'Artwork');
  await shop.getByLabel('Drawing or picture in place of sky').setInputFiles(svg(star + sun));
  await goTo(shop, 'Cuts');
  await computed(shop);
  await expect(shop.getByText('One shape that this cut was for is no longer in sky')).toBeVisible();
  await outline(shop, 'sun');
  await expect(shop.getByRole('tree').getByText('0 of 2', { exact: true })).toBeVisible();
  await shop.getByRole('button', { name: 'Undo' }).click();
  await computed(shop);
  await expect(await outline(shop, 'moon')).toBeChecked();
});
