import type { Session } from '@tempera/contract/team';
import type { StepBody } from '@tempera/core/facts';
import { v7 as uuidv7 } from 'uuid';
import { demoId } from '../apps/server/src/practice/demoBar.ts';
import { expect, openBench, test } from './bar.ts';

test('what taste decided is in force at the bench, on the wall card and in the journal, on every device', async ({
  ines: page,
}) => {
  const { person, site } = (await (await page.request.get('/api/session')).json()) as Session;
  /** A step of the opening, as another tablet sends it. */
  const step = async (body: StepBody): Promise<void> => {
    const sent = { id: uuidv7(), at: new Date().toISOString(), skewMs: null, personId: person.id, siteId: site.id };
    const answer = await page.request.post('/api/facts', {
      data: { ...sent, kind: 'step', grinderId: null, groupId: null, body },
    });
    expect(answer.status(), await answer.text()).toBe(201);
  };
  const grinderId = demoId('grinder House');
  await openBench(page, 'House', 'Group 1');
  const wall = await page.context().newPage();
  await wall.goto('/house/wall');
  await expect(wall.getByText('18.0 g in, 36.0 g out').first()).toBeVisible();
  const axes = { sourBitter: 1, weakStrong: null, body: null, sweetness: null };
  await step({ step: 'tasted', grinderId, tasterId: person.id, ...axes, notes: ['citrus'], tdsPct: null });
  await step({ step: 'tasteSettled', grinderId, change: { lever: 'yield', by: 0.06 } });

  // The bench and the card follow by themselves, and say what the recipe asks for.
  await expect(page.getByText(/38.2 g out/)).toBeVisible();
  await expect(page.getByText(/Changed for taste today: the recipe asks for 18.0 g in, 36.0 g out/)).toBeVisible();
  await expect(wall.getByText('18.0 g in, 38.2 g out')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/38.2 g out/)).toBeVisible();
  await page.locator('body').press('Space');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/the last drops make 38.2 g$/);
  await page.getByRole('button', { name: 'It was none' }).click();
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByText('Changed for taste: 6 % more in the cup')).toBeVisible();
  await expect(page.getByText('Tasted: sour to bitter 1, citrus')).toBeVisible();
});
