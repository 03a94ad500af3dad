import { request } from '@playwright/test';
import { expectAccessible } from './accessible.ts';
import { expect, test } from './bar.ts';

test('two scales are found, understood, put to a station and known again after a reload', async ({ ines: page }) => {
  await page.getByRole('link', { name: 'Devices' }).click();
  await expect(page.getByText('None yet. Find the first one below.')).toBeVisible();

  await page.getByRole('button', { name: 'A Bluetooth scale' }).click();
  const bar = page.getByRole('listitem', { name: 'Bar scale (simulated)' });
  await expect(bar).toContainText(/18\.[12] g/);
  await bar.getByRole('button', { name: 'Set it to nought' }).click();
  await expect(bar).toContainText(/0\.[01] g/);

  await page.getByRole('button', { name: 'A scale on a cable' }).click();
  const counter = page.getByRole('listitem', { name: 'Serial scale' });
  await expect(counter).toContainText('it sends ST + 0.640');
  await expectAccessible(page);
  await counter.getByRole('button', { name: /^0\.64 oz/ }).click();
  await expect(counter).toContainText('18.1 g');
  await counter.getByRole('textbox', { name: 'Its name' }).fill('Counter');
  const named = page.getByRole('listitem', { name: 'Counter' });
  await named.getByRole('combobox', { name: 'It stands at' }).selectOption('Group 1');

  await page.reload();
  await expect(named).toContainText('18.1 g');
  await expect(page.getByRole('listitem', { name: 'Bar scale (simulated)' })).toContainText(/\d\.\d g/);
  await expect(
    page
      .getByRole('listitem', { name: 'Counter' })
      .getByRole('combobox', { name: 'It stands at' })
      .locator('option:checked'),
  ).toHaveText('Group 1');
  await expectAccessible(page);

  await bar.getByRole('button', { name: 'Forget it' }).click();
  await bar.getByRole('button', { name: 'Yes, forget it' }).click();
  await expect(bar).toHaveCount(0);
});

test('what a bridge hears is offered, and stands on every open page', async ({ ines: page, bar }) => {
  const made = await page.request.post('/api/team/devices/code', { data: { name: 'Bridge' } });
  const { code } = (await made.json()) as { code: string };
  const bridge = await request.newContext({ baseURL: bar.base });
  expect((await bridge.post('/api/device', { data: { code } })).status()).toBe(204);
  const tell = (value: number, unit: string, device = 'window') =>
    bridge.post('/api/readings', { data: { readings: [{ device, value, unit }] } });
  await page.goto('/devices');
  await expect(async () => {
    await tell(21.4, '°C');
    await expect(page.getByRole('button', { name: /Hear .window/ })).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await page.getByRole('button', { name: /Hear .window/ }).click();
  const air = page.getByRole('listitem', { name: 'window' });
  await air.getByRole('combobox', { name: 'It is for' }).selectOption('the room’s air');
  await tell(21.4, '°C');
  await tell(61, '%');
  await expect(air).toContainText('21.4 °C, 61 %');
  // A machine's relay and counter, put to a group.
  await tell(0, 'on', 'Fern 1');
  await page.getByRole('button', { name: /Hear .Fern 1/ }).click();
  const machine = page.getByRole('listitem', { name: 'Fern 1' });
  await machine.getByRole('combobox', { name: 'It is for' }).selectOption('shots of a group');
  await machine.getByRole('combobox', { name: 'It stands at' }).selectOption('Group 1');
  await tell(1, 'on', 'Fern 1');
  await tell(182, 'count', 'Fern 1');
  await expect(machine).toContainText('pouring, count 182');
  await bridge.dispose();
});
