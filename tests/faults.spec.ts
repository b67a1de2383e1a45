import {
  atRest,
  changeBit,
  computed,
  expect,
  goTo,
  lend,
  setUp,
  startRun,
  test,
  tickTheList,
  touchOff,
} from './kerbe.ts';

test('a machine that does not answer, or falls silent, is said in a sentence', async ({ shop }) => {
  const machine = Number(process.env.KERBE_STAND_IN_PID);
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(shop, 'Set-up');
  const connect = shop.getByRole('button', { name: 'Connect the stand-in router' });
  await expect(connect.or(shop.getByRole('button', { name: 'Home', exact: true }))).toBeVisible();
  if (!(await connect.isVisible())) await shop.getByRole('button', { name: 'Disconnect' }).click();
  await expect(connect).toBeEnabled();
  process.kill(machine, 'SIGSTOP');
  try {
    await connect.click();
    await expect(shop.getByRole('alert')).toContainText('The machine does not answer; check that it is switched on');
  } finally {
    process.kill(machine, 'SIGCONT');
  }
  await expect(async () => {
    await connect.click();
    await expect(shop.getByRole('button', { name: 'Home', exact: true })).toBeVisible({ timeout: 3000 });
  }).toPass();
  process.kill(machine, 'SIGSTOP');
  try {
    await expect(shop.getByRole('alert')).toContainText('The machine has fallen silent');
    await expect(shop.getByRole('link', { name: /^Set-up/ })).toContainText('link lost');
  } finally {
    process.kill(machine, 'SIGCONT');
  }
  await expect(async () => {
    await connect.click();
    await expect(shop.getByRole('button', { name: 'Home', exact: true })).toBeVisible({ timeout: 3000 });
  }).toPass();
});

test('the emergency stop ends a run with a sentence, and nothing entered is lost', async ({ shop }) => {
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await computed(shop);
  await setUp(shop, 'V 90° 12.7');
  await startRun(shop);
  await expect(shop.getByText(/carving, ([3-9]|[1-9]\d) %/)).toBeVisible();
  // The clock of the test shop runs fast; held, the run waits for what comes next.
  await shop.getByRole('button', { name: 'Hold' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  await shop.getByRole('button', { name: 'Slower', exact: true }).click();
  await expect(shop.getByText('90 %')).toBeVisible();
  await goTo(shop, 'Set-up');
  await lend(shop, 'Press the emergency stop');
  await goTo(shop, 'Run');
  await expect(shop.getByText(/emergency stop was pressed/).first()).toBeVisible();
  await goTo(shop, 'Set-up');
  await expect(shop.getByText(/leaves its position in doubt/)).toBeVisible();
  await expect(shop.getByRole('button', { name: 'Home', exact: true })).toBeDisabled();
  await lend(shop, 'Release the emergency stop');
  await shop.getByRole('button', { name: /clear the stop/ }).click();
  await expect(shop.getByRole('button', { name: 'Home', exact: true })).toBeEnabled();
  await goTo(shop, 'Log');
  const entry = shop.getByRole('article').first();
  await expect(entry).toContainText('broken off');
  await expect(entry).toContainText('emergency stop was pressed');
  await expect(entry).toContainText(/The last line made was \d/);
  await goTo(shop, 'Cuts');
  await expect(shop.getByRole('button', { name: 'Remove cut 1' })).toBeVisible();
});

test('Stop lifts and ends, the zero holds, and the run is taken up again to its end', async ({ shop }) => {
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await computed(shop);
  await setUp(shop, 'V 90° 12.7');
  await startRun(shop);
  await expect(shop.getByText(/carving, ([3-9]|[1-9]\d) %/)).toBeVisible();
  await shop.getByRole('button', { name: 'Hold' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  // Hold again holds; it does not let go.
  await shop.getByRole('button', { name: 'Hold' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  await shop.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(shop.getByText(/Stopped after line \d/)).toBeVisible();
  await atRest(shop);
  // The list asks anew for what people let go of when a machine ends.
  await expect(shop.getByText(/hearing and eyes are protected/)).toBeVisible();
  await goTo(shop, 'Set-up');
  await expect(shop.getByText(/Z was set/)).toBeVisible();
  await tickTheList(shop);
  await goTo(shop, 'Run');
  const again = shop.getByRole('region', { name: 'Take the broken run up again' });
  await again.getByRole('checkbox').check();
  // The job has not changed since, so its program is checked already.
  await again.getByRole('button', { name: /^Take it up at line/ }).click();
  await changeBit(shop, 'End mill 6.35');
  await expect(shop.getByText(/Done\. It took/)).toBeVisible();
  await goTo(shop, 'Log');
  await expect(shop.getByRole('article').first()).toContainText('It took up a broken run at line');
});

test('a zero is only what it was: another surface, another job, a board that was moved', async ({ shop }) => {
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await computed(shop);
  await setUp(shop, 'V 90° 12.7');
  await goTo(shop, 'Stock');
  await shop.getByLabel('zero height').selectOption({ label: 'the top of the stock' });
  await goTo(shop, 'Set-up');
  await expect(shop.getByText(/counts its depths from another surface/)).toBeVisible();
  await goTo(shop, 'Run');
  await expect(shop.getByText(/counts its depths from another surface/)).toBeVisible();
  await expect(shop.getByRole('button', { name: 'Start the run' })).toHaveCount(0);
  await shop.getByRole('button', { name: 'Undo' }).click();
  await goTo(shop, 'Set-up');
  await expect(shop.getByText(/Z was set/)).toBeVisible();
  await shop.getByRole('button', { name: 'The board was moved' }).click();
  await expect(shop.getByText('the board was moved since it was set')).toBeVisible();
  await shop.getByRole('button', { name: 'Lay the plate, clip on' }).click();
  await touchOff(shop);
  await shop.getByRole('link', { name: 'All jobs' }).click();
  await shop.getByRole('link', { name: /Night-light plate/ }).click();
  await computed(shop);
  await goTo(shop, 'Set-up');
  await expect(shop.getByText(/it was set for another job/)).toBeVisible();
  await expect(shop.getByRole('img', { name: 'Both boards on the table' })).toBeVisible();
});

test('a second page watches, holds and stops, and asks before it commands', async ({ shop, context }) => {
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await computed(shop);
  await setUp(shop, 'V 90° 12.7');
  await startRun(shop);
  await shop.getByRole('button', { name: 'Hold' }).click();
  const other = await context.newPage();
  await other.goto(process.env.KERBE_ADDRESS!);
  // Hold and Stop are on the list of jobs as well.
  await other.getByRole('button', { name: 'Hold' }).click();
  await expect(other.getByRole('button', { name: 'Go on' })).toBeDisabled();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeEnabled();
  await other.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(other, 'Run');
  await other.getByRole('button', { name: 'Ask to take over' }).click();
  await shop.getByRole('button', { name: 'Let them' }).click();
  await expect(other.getByRole('button', { name: 'Go on' })).toBeEnabled();
  await other.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(other.getByText(/Stopped after line/)).toBeVisible();
  await other.close();
});
