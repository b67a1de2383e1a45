import { computed, drawnAt, expect, goTo, outline, setNumber, test } from './kerbe.ts';

/** Where a handle stands on the sheet, mm, as it tells it. */
async function placeOf(handle: import('@playwright/test').Locator): Promise<[number, number]> {
  const text = (await handle.getAttribute('aria-valuetext'))!;
  const [, x, y] = /^(-?[\d.]+), (-?[\d.]+) mm$/.exec(text.replace('−', '-'))!;
  return [Number(x), Number(y)];
}

/** Takes back all that was changed, back to the job as it was opened. */
async function undoAll(shop: import('@playwright/test').Page): Promise<void> {
  const undo = shop.getByRole('button', { name: 'Undo' });
  // The last step may still be on its way when the button is asked for again, and take it away under the pointer.
  await expect(async () => {
    if (await undo.isEnabled()) await undo.click({ timeout: 1000 });
    await expect(undo).toBeDisabled({ timeout: 500 });
  }).toPass();
  await computed(shop);
}

test('tabs and the start of a cut-out are moved along it by hand, and undone', async ({ shop }) => {
  // A copy of the plate as it came: other tests change the shop's own.
  await shop.getByLabel('Job file to open').setInputFiles('demo/jobs/night-light.kerbe.json');
  await expect(shop.getByRole('heading', { level: 1, name: 'Artwork' })).toBeVisible();
  await computed(shop);
  await goTo(shop, 'Cuts');
  await shop.locator('[data-cut=edge]').getByRole('button', { name: 'edge' }).click();
  const tab = shop.getByRole('slider', { name: 'Tab 1 of cut 4' });
  await expect(shop.getByRole('slider', { name: /^Tab \d of cut 4$/ })).toHaveCount(4);
  const before = await placeOf(tab);

  // Dragged aside, it stays on the path: the plate's edge, half the bit's 6.35 mm outside it.
  const box = (await tab.boundingBox())!;
  await shop.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await shop.mouse.down();
  await shop.mouse.move(box.x - 50, box.y - 40, { steps: 6 });
  await shop.waitForTimeout(300);
  await shop.mouse.up();
  await expect.poll(async () => (await placeOf(tab))[0]).not.toBe(before[0]);
  await computed(shop);
  const after = await placeOf(tab);
  expect(after[1]).toBeCloseTo(before[1], 1);
  expect(before[0] - after[0]).toBeGreaterThan(10);

  // By the keyboard as well, and taken away.
  await tab.focus();
  await shop.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await placeOf(tab))[0]).toBeCloseTo(after[0] + 10, 0);
  await computed(shop);
  await tab.focus();
  await shop.keyboard.press('Delete');
  await expect(shop.getByRole('slider', { name: /^Tab \d of cut 4$/ })).toHaveCount(3);
  await expect(shop.locator('[data-cut=edge]').getByLabel('number of tabs')).toHaveValue('3 tabs');

  // The start: moved, said in the card, and given back to Kerbe.
  const start = shop.getByRole('slider', { name: 'Start 1 of cut 4' });
  const chosen = await placeOf(start);
  await start.focus();
  await shop.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await placeOf(start))[0]).not.toBe(chosen[0]);
  await shop.locator('[data-cut=edge]').getByText('More about how it is cut').click();
  await expect(shop.getByLabel('start of the cut')).toHaveValue('chosen');
  await shop.getByLabel('start of the cut').selectOption('free');
  await computed(shop);
  expect(await placeOf(start)).toEqual(chosen);

  await undoAll(shop);
  await expect(shop.getByRole('slider', { name: /^Tab \d of cut 4$/ })).toHaveCount(4);
});

test('what a tip cannot enter and what no bit reaches is marked, and explained under the sheet', async ({ shop }) => {
  await shop.getByLabel('Called').fill('Hairlines');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await shop.getByLabel('Drawing or picture to import').setInputFiles({
    name: 'thin.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">
        <path d="M10 10h40v8h-40zM50 13.9h40v0.2h-40z"/><rect x="10" y="30" width="40" height="20"/></svg>`,
    ),
  });
  await goTo(shop, 'Bits');
  await shop
    .getByRole('button', { name: /V 60° 12\.7/ })
    .first()
    .click();
  await setNumber(shop, 'tip', '0.5');
  await goTo(shop, 'Cuts');
  await (await outline(shop, 'path 1')).click();
  await shop.getByRole('button', { name: 'Add a V-carve' }).click();
  await shop
    .locator('li.active')
    .getByLabel(/^bit of cut/)
    .selectOption({ label: 'V 60° 12.7' });
  await computed(shop);
  await expect(shop.getByText('too thin for the tip')).toBeVisible();
  await expect(shop.getByText(/narrower than the 0\.5 mm tip/)).toBeVisible();

  // What no cut has yet is what a new one takes by itself: the rectangle.
  await shop.getByRole('button', { name: 'Add a pocket' }).click();
  await expect(shop.getByText('It took one shape: the closed outlines that no cut has yet')).toBeVisible();
  await computed(shop);
  await expect(shop.getByText('left standing', { exact: true })).toBeVisible();

  // Round both shapes: the start of one loop is moved, the other stays.
  await shop.getByRole('button', { name: 'Choose shapes for it first' }).click();
  await (await outline(shop, 'thin')).click();
  await shop.getByRole('button', { name: 'Add a cut-out' }).click();
  await computed(shop);
  const starts = shop.getByRole('slider', { name: /^Start \d of cut 3$/ });
  await expect(starts).toHaveCount(2);
  const [first, second] = [await placeOf(starts.nth(0)), await placeOf(starts.nth(1))];
  await starts.nth(1).focus();
  await shop.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await placeOf(starts.nth(1)))[0]).not.toBe(second[0]);
  await computed(shop);
  expect(await placeOf(starts.nth(0))).toEqual(first);
  await shop.locator('li.active').getByText('More about how it is cut').click();
  await expect(shop.locator('li.active')).toContainText('each of its loops at its mark on the sheet');
  await starts.nth(1).focus();
  await shop.keyboard.press('Delete');
  await expect.poll(() => placeOf(starts.nth(1))).toEqual(second);

  await goTo(shop, 'Proof');
  await expect(shop.getByRole('table', { name: 'Time and way of each bit' }).getByRole('row')).toHaveCount(3);
});

test('a pin is gone round or over, and outlines are refitted within a number', async ({ shop }) => {
  await shop.getByLabel('Called').fill('Traced');
  await shop.getByRole('button', { name: 'Make it' }).click();
  const points = Array.from({ length: 900 }, (_, i) => {
    const a = (2 * Math.PI * i) / 900;
    const r = 24 + 5 * Math.cos(3 * a) + 0.015 * Math.sin(i * 12.9898);
    return `${(60 + r * Math.cos(a)).toFixed(3)} ${(40 + r * Math.sin(a)).toFixed(3)}`;
  });
  await shop.getByLabel('Drawing or picture to import').setInputFiles({
    name: 'traced.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><path d="M${points.join('L')}z"/></svg>`,
    ),
  });
  await expect(shop.getByText('Its outlines have 900 nodes.')).toBeVisible();
  await setNumber(shop, 'refit within', '0.04');
  await computed(shop);
  const sentence = await shop.getByText('Its outlines have 900 nodes.').innerText();
  const [, left, off] = /: ?(\d+) are left, and no edge moves by more than ([\d.]+) mm/.exec(sentence)!;
  expect(Number(left)).toBeLessThan(90);
  expect(Number(off)).toBeLessThanOrEqual(0.04);
  await setNumber(shop, 'refit within', '-1');
  await expect(shop.getByRole('alert')).toContainText('The refit within');
  await shop.keyboard.press('Escape');

  await goTo(shop, 'Stock');
  await shop.getByRole('button', { name: 'Add a pin' }).click();
  await expect(shop.getByText('Between cuts the bit goes over or round these')).toBeVisible();
  await expect(shop.getByLabel('pin-1 height')).toHaveValue('12 mm');
});

test('a program from elsewhere is seen on this job’s stock, timed and checked', async ({ shop }) => {
  await shop.getByLabel('Job file to open').setInputFiles('demo/jobs/night-light.kerbe.json');
  await expect(shop.getByRole('heading', { level: 1, name: 'Artwork' })).toBeVisible();
  await computed(shop);
  await goTo(shop, 'Proof');
  const read = (text: string) =>
    shop
      .getByLabel('Program to read')
      .setInputFiles({ name: 'other.ngc', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await read('this is no program');
  await expect(shop.getByRole('region', { name: 'Another program' }).getByRole('alert')).toContainText(
    /No move could be read|holds no moves/,
  );
  // One that would be followed for minutes is given up by a press, and leaves nothing behind.
  await read('G21 G90\nF900\n#1=0\no100 while [#1 LT 1500000]\n#1=[#1+1]\no100 endwhile\nG1 X10\nM2\n');
  const reading = shop.getByRole('status').filter({ hasText: 'Reading the program' });
  await reading.getByRole('button', { name: 'Cancel' }).click();
  await expect(reading).toHaveCount(0);
  await expect(shop.getByRole('region', { name: 'Another program' }).getByRole('alert')).toHaveCount(0);
  await read('G21 G90\nT2 M6\nG0 X20 Y20 Z5\nG1 Z-2 F300\nG1 X120 F1200\nG2 X120 Y60 I0 J20\nG1 X20\nG0 Z5\nM30\n');
  const section = shop.getByRole('region', { name: 'Another program' });
  await expect(section).toContainText('other.ngc is drawn on the sheet');
  await expect(section).toContainText('2 mm deepest, bit 2');
  await expect(section).toContainText('It keeps to the stock');
  const inked = async (x: number, y: number) => (await drawnAt(shop, x, y))[3] > 60;
  await expect.poll(() => inked(70, 20)).toBe(true);
  expect(await inked(70, 40)).toBe(false);
  // Its findings follow the job: on a thinner board it goes into the spoilboard.
  await goTo(shop, 'Stock');
  for (const corner of ['lower left', 'lower right', 'upper right', 'upper left'])
    await setNumber(shop, `thickness ${corner}`, '1.5');
  await computed(shop);
  await goTo(shop, 'Proof');
  await expect(section).toContainText('0.5 mm into the spoilboard');
  await section.getByRole('button', { name: 'Show this job’s own paths again' }).click();
  await expect(section).not.toContainText('other.ngc');
  await goTo(shop, 'Stock');
  await undoAll(shop);
});
