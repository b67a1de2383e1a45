import {
  changeBit,
  computed,
  expect,
  goTo,
  prepareStandIn,
  setNumber,
  startRun,
  test,
  tickTheList,
  touchOff,
} from './kerbe.ts';
import { doneWithoutThePage, holdBySpace, noteInLog, writePrograms } from './story-steps.ts';

test('from artwork to a carved board on the stand-in router', async ({ shop }) => {
  await shop.getByRole('link', { name: /Entrance board/ }).click();
  await computed(shop);

  // The wording is changed, and the carving follows.
  await goTo(shop, 'Cuts');
  const deepest = shop.locator('[data-cut=carve] .facts');
  await expect(deepest).toContainText('6.5 mm deepest');
  const before = await deepest.innerText();
  await goTo(shop, 'Artwork');
  await shop.getByRole('button', { name: /^Words/ }).click();
  await shop.getByRole('textbox', { name: 'Words', exact: true }).fill('Fernhill\nDome');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await computed(shop);
  await goTo(shop, 'Cuts');
  await expect(deepest).toContainText('deepest');
  await expect(deepest).not.toHaveText(before);

  // A number takes a sum; the section and the time follow.
  await setNumber(shop, 'depth limit', '1/4 in + 0.15');
  await expect(shop.getByLabel('depth limit').first()).toHaveValue('6.5 mm');
  await setNumber(shop, 'depth limit', '4 + 1');
  await expect(deepest).toContainText('5 mm deepest');
  await expect(shop.getByRole('img', { name: /Section through the work, deepest groove 5 mm/ })).toBeVisible();

  const [program] = await writePrograms(shop, ['entrance-board.nc']);
  await expect(
    shop.getByRole('rowheader', { name: 'between the cuts and back, spindle starts', exact: true }),
  ).toBeVisible();
  expect(program).toMatch(/^\(Entrance board - revision \d+, \d{4}-\d\d-\d\d\)/);
  expect(program).toMatch(/T1 M6/);
  expect(program).toMatch(/G1 .*Z-4\.999|Z-5\b/);

  // Set-up in the trade's order.
  await prepareStandIn(shop, 'V 60° 12.7');
  await expect(shop.getByRole('button', { name: 'Set zero' })).toBeDisabled();
  await expect(shop.getByText('tap the plate against the bit first')).toBeVisible();
  await touchOff(shop, 'by-eye');
  const goThere = shop.getByRole('button', { name: 'Go to zero: up, across, down' });
  await expect(goThere).toBeDisabled();
  await expect(shop.getByText('Tick at Set-up that plate and clip are taken away first.')).toBeVisible();
  await goTo(shop, 'Run');
  await expect(shop.getByText(/plate and clip are taken away/).first()).toBeVisible();
  await goTo(shop, 'Set-up');
  await tickTheList(shop);
  await goThere.click();
  await expect(shop.getByText('X 0 Y 0 Z 6 mm')).toBeVisible();

  // The run, held once, with a bit change.
  await startRun(shop);
  await holdBySpace(shop);
  await changeBit(shop, 'End mill 6.35');

  await doneWithoutThePage(shop);
  await noteInLog(
    shop,
    ['V 60° 12.7, 5 mm deep', /Planned \d+ min \d\d s, took \d+ min \d\d s at the work and/],
    'Letters clean; one more coat of oil.',
  );
  await shop.getByRole('article').first().getByRole('button', { name: 'Run it again' }).click();
  await expect(shop.getByRole('heading', { level: 1, name: 'Set-up' })).toBeVisible();
});
