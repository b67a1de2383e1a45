import AxeBuilder from '@axe-core/playwright';
import { changeBit, computed, expect, goTo, outline, setNumber, setUp, startRun, test } from './kerbe.ts';
import type { Page } from '@playwright/test';

async function newJob(page: Page, name: string): Promise<void> {
  await page.getByLabel('Called').fill(name);
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Artwork' })).toBeVisible();
}
const drop = (page: Page, name: string, content: string | Buffer) =>
  page
    .getByLabel('Drawing or picture to import')
    .setInputFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(content) });

const HOUSE = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80">
  <rect id="edge" x="2" y="2" width="116" height="76" rx="8"/>
  <path id="moon" d="M60 18L84 40L60 62L36 40Z"/></svg>`;

test('a drawing in layers: what is left out is said, and a cut takes a layer at once', async ({ shop }) => {
  await newJob(shop, 'In layers');
  await drop(
    shop,
    'layers.svg',
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80">
  <style>.guide { display: none } .ring { fill-rule: evenodd }</style>
  <g id="Frame"><rect id="edge" x="2" y="2" width="116" height="76" rx="8"/></g>
  <g id="Ornament"><path id="ring" class="ring" d="M20 20h40v40h-40zM30 30h20v20h-20z"/><circle id="dot" cx="90" cy="40" r="12"/></g>
  <rect id="help" class="guide" width="120" height="80"/><text x="9" y="9">Gate</text></svg>`,
  );
  await expect(shop.getByText('One hidden shape was left out (“help”).')).toBeVisible();
  await expect(shop.getByText('One piece of text was left out (“Gate”)')).toBeVisible();
  await goTo(shop, 'Cuts');
  await shop.getByRole('button', { name: 'Add a V-carve' }).click();
  // It took what lies in the frame by itself; a layer is taken out and in again at once.
  const layer = await outline(shop, 'Layer Ornament');
  const counted = (text: string) =>
    expect(shop.getByRole('tree').getByText(text, { exact: true }).last()).toBeVisible();
  await counted('2 of 2');
  await layer.click();
  await counted('0 of 2');
  await layer.click();
  await computed(shop);
  await expect(layer).toBeChecked();
  await expect(await outline(shop, 'edge')).not.toBeChecked();
  await (await outline(shop, 'ring')).click();
  await expect(layer).toHaveJSProperty('indeterminate', true);
  await (await outline(shop, 'ring')).click();
  await expect(shop.getByText('All changes kept')).toBeVisible();
  // The job's small picture fills its shapes by their own rules.
  await shop.getByRole('link', { name: 'Jobs' }).click();
  const picture = shop.locator('a', { hasText: 'In layers' }).locator('path.carved.solid');
  await expect(picture).toHaveCount(2);
  await expect(picture.first()).toHaveAttribute('fill-rule', 'evenodd');
});

test('a new job from an SVG of one’s own gets cuts, a proof and a program, and is carved', async ({ shop }) => {
  await newJob(shop, 'Moon gate');
  await drop(shop, 'moon.svg', HOUSE);
  await expect(shop.getByRole('button', { name: /^moon/ })).toContainText('2 shapes');
  // One dimension is typed, the other follows in proportion.
  await setNumber(shop, 'width', '2 * 58');
  await expect(shop.getByLabel('height', { exact: true })).toHaveValue(/^76 mm/);
  await setNumber(shop, 'width', '104.4');
  await expect(shop.getByLabel('height', { exact: true })).toHaveValue(/^68\.4 mm/);

  await goTo(shop, 'Cuts');
  // With nothing chosen it takes what suits it: the moon, and not the house around it.
  await shop.getByRole('button', { name: 'Add a V-carve' }).click();
  await expect(shop.getByText('It took one shape: the closed outlines that no cut has yet')).toBeVisible();
  await computed(shop);
  await expect(shop.locator('[data-cut=cut-1]')).toContainText('moon');
  await expect(shop.locator('[data-cut=cut-1] .facts')).toContainText('deepest');
  await shop.getByRole('button', { name: 'Choose shapes for it first' }).click();
  // By keyboard as well as by pointer: the house is the first shape of the sheet.
  const focused = shop.locator('svg [role=checkbox]');
  await focused.focus();
  await shop.keyboard.press('Space');
  await expect(focused).toBeChecked();
  await shop.getByRole('button', { name: 'Add a cut-out' }).click();
  await computed(shop);
  await expect(shop.locator('[data-cut=cut-2] .facts')).toContainText('passes');

  await setNumber(shop, 'number of tabs', '0');
  await expect(shop.getByText('Nothing holds the part')).toBeVisible();
  await shop.getByRole('button', { name: 'Add 4 tabs' }).click();
  await expect(shop.getByText('Nothing holds the part')).toHaveCount(0);

  await shop.getByRole('button', { name: 'Undo' }).click();
  await expect(shop.getByText('Nothing holds the part')).toBeVisible();
  await shop.reload();
  await expect(shop.getByText('Nothing holds the part')).toBeVisible();
  await shop.getByRole('button', { name: 'Redo' }).click();
  await expect(shop.getByText('Nothing holds the part')).toHaveCount(0);

  await goTo(shop, 'Proof');
  await shop.getByRole('button', { name: 'Write the program' }).click();
  await expect(shop.getByRole('link', { name: 'moon-gate.nc' })).toBeVisible();
  await shop.getByRole('button', { name: 'The carved piece' }).click();
  await expect(shop.getByRole('img', { name: /in three dimensions/ })).toBeVisible();

  await setUp(shop, 'V 60° 12.7');
  await startRun(shop);
  await changeBit(shop, 'End mill 6.35');
  await expect(shop.getByText(/Done\. It took/)).toBeVisible();
  await goTo(shop, 'Log');
  await expect(shop.getByRole('article').first()).toContainText('finished');
});

test('bad input gets a sentence and loses nothing', async ({ shop }) => {
  await newJob(shop, 'Bad luck');
  const alert = shop.getByRole('alert').first();
  await drop(shop, 'letter.pdf', '%PDF-1.4 nothing to see');
  await expect(alert).toContainText('not an SVG drawing');
  await drop(shop, 'bad.svg', '<svg><script>alert(1)</script></svg>');
  await expect(alert).toContainText('holds a script');
  await drop(shop, 'entity.svg', '<!DOCTYPE svg [<!ENTITY x "y">]><svg><text>&x;</text></svg>');
  await expect(alert).toContainText('declares entities');
  await drop(shop, 'text.svg', '<svg><text>Hello</text></svg>');
  await expect(alert).toContainText('turn the text into outlines');
  await drop(shop, 'none.svg', '<svg width="0" height="0"><rect width="5" height="5"/></svg>');
  await expect(alert).toContainText('no size');
  await drop(shop, 'huge.svg', Buffer.alloc(20_000_000, 'M0 0 L9 9 '));
  await expect(alert).toContainText('20.0 MB, and the most is 8 MB');
  await expect(shop.getByText('0 items')).toBeVisible();

  await goTo(shop, 'Stock');
  const length = shop.getByLabel('length', { exact: true });
  await length.fill('12..5');
  await length.press('Enter');
  await expect(alert).toContainText('two decimal points');
  await expect(length).toHaveValue('12..5');
  await length.fill('-3 in');
  await length.press('Enter');
  await expect(alert).toContainText('must be between');
  await length.press('Escape');
  await expect(length).toHaveValue('300 mm');
  await setNumber(shop, 'length', '250');
  await expect(shop.getByText('All changes kept')).toBeVisible();
});

test('two windows on one job never overwrite each other silently', async ({ shop, context }) => {
  await newJob(shop, 'Twice open');
  await goTo(shop, 'Stock');
  const other = await context.newPage();
  await other.goto(shop.url());
  await expect(other.getByLabel('length', { exact: true })).toHaveValue('300 mm');
  // The other window hears of a change by itself.
  await setNumber(shop, 'length', '310');
  await expect(other.getByLabel('length', { exact: true })).toHaveValue('310 mm');
  // A window that heard nothing saves on an old revision.
  const stranger = await context.browser()!.newContext();
  const third = await stranger.newPage();
  await third.goto(shop.url());
  await expect(third.getByLabel('length', { exact: true })).toHaveValue('310 mm');
  await setNumber(shop, 'length', '320');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await setNumber(third, 'width', '99');
  await expect(third.getByText('This job was changed in another window.')).toBeVisible();
  for (const width of ['98', '97']) {
    await third.waitForTimeout(500);
    await setNumber(third, 'width', width);
  }
  await third.getByRole('button', { name: 'What the other made' }).click();
  await expect(third.getByLabel('length', { exact: true })).toHaveValue('320 mm');
  await expect(third.getByLabel('width', { exact: true })).toHaveValue('150 mm');
  // What was given up comes back by no later change, nor by a step back from it.
  await setNumber(third, 'length', '330');
  await expect(third.getByText('All changes kept')).toBeVisible();
  await third.getByRole('button', { name: 'Undo' }).click();
  await expect(third.getByLabel('length', { exact: true })).toHaveValue('320 mm');
  await expect(third.getByLabel('width', { exact: true })).toHaveValue('150 mm');
  await stranger.close();
});

test('pages are strict about scripts, and read well to everyone', async ({ shop }) => {
  const response = await shop.goto(shop.url());
  const policy = response!.headers()['content-security-policy'];
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  const scan = async (name: string) => {
    const { violations } = await new AxeBuilder({ page: shop })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
      .analyze();
    expect(
      violations.map(
        (v) =>
          `${name}: ${v.id} ${v.nodes
            .map((n) => n.target.join(' '))
            .slice(0, 3)
            .join(', ')}`,
      ),
    ).toEqual([]);
  };
  await scan('jobs');
  await shop.locator('a[href="/jobs/meridian-plate/artwork"]').click();
  await computed(shop);
  for (const stop of ['Artwork', 'Stock', 'Bits', 'Cuts', 'Proof', 'Set-up', 'Run', 'Log']) {
    await goTo(shop, stop);
    await shop.waitForTimeout(400);
    await scan(stop);
  }
});
