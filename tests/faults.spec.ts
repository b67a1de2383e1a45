import { computed, expect, goTo, prepareStandIn, test, touchOff } from './kerbe.ts';

test('a machine that does not answer, or falls silent, is said in a sentence', async ({ shop }) => {
  const machine = Number(process.env.KERBE_STAND_IN_PID);
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await goTo(shop, 'Set-up');
  const connect = shop.getByRole('button', { name: 'Connect the stand-in router' });
  await expect(connect.or(shop.getByRole('button', { name: 'Home', exact: true }))).toBeVisible();
  if (!(await connect.isVisible())) await shop.getByRole('button', { name: 'Disconnect' }).click();
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
});

test('the emergency stop ends a run with a sentence, and nothing entered is lost', async ({ shop }) => {
  await shop.getByRole('link', { name: /Comet trail marker/ }).click();
  await computed(shop);
  await prepareStandIn(shop, 'V 90° 12.7');
  await touchOff(shop);
  await shop.getByRole('button', { name: 'Take plate and clip away' }).click();
  await goTo(shop, 'Run');
  await shop.getByRole('checkbox').check();
  await shop.getByRole('button', { name: 'Start the run' }).click();
  await expect(shop.getByText(/carving, ([3-9]|[1-9]\d) %/)).toBeVisible({ timeout: 60_000 });
  // The clock of the test shop runs fast; held, the run waits for what comes next.
  await shop.getByRole('button', { name: 'Hold' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  await shop.getByRole('button', { name: 'Slower', exact: true }).click();
  await expect(shop.getByText('90 %')).toBeVisible();
  await goTo(shop, 'Set-up');
  await shop.getByRole('button', { name: 'Press the emergency stop' }).click();
  await goTo(shop, 'Run');
  await expect(shop.getByText(/emergency stop was pressed/).first()).toBeVisible();
  await expect(shop.getByText('The machine is not homed; home it at Set-up.')).toBeVisible();
  await goTo(shop, 'Set-up');
  await shop.getByRole('button', { name: 'Home', exact: true }).click();
  await expect(shop.getByRole('alert')).toContainText('release it');
  await shop.getByRole('button', { name: 'Release the emergency stop' }).click();
  await shop.getByRole('button', { name: /clear the stop/ }).click();
  await expect(shop.getByRole('link', { name: /^Set-up/ })).toContainText('connected');
  await goTo(shop, 'Log');
  const entry = shop.getByRole('article').first();
  await expect(entry).toContainText('broken off');
  await expect(entry).toContainText('emergency stop was pressed');
  await goTo(shop, 'Cuts');
  await expect(shop.getByRole('button', { name: 'Remove cut 1' })).toBeVisible();
});
