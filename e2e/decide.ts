import type { Page } from '@playwright/test';
import type { PolicyVersion } from '@tempera/contract/policy';
import { expect } from './bar.ts';

/** Decides in the office how the house works from now on. */
export async function decide(page: Page, choice: Partial<PolicyVersion>): Promise<void> {
  const answered = await page.request.get('/api/house/policies');
  const { versions } = (await answered.json()) as { versions: PolicyVersion[] };
  const newest = versions.reduce((last, one) => (one.version > last.version ? one : last));
  const { version, reason: _, changedBy: __, changedAt: ___, ...choices } = newest;
  const change = { ...choices, ...choice, basedOn: version, reason: 'tried out' };
  const answer = await page.request.post('/api/house/policies', { data: change });
  expect(answer.status(), await answer.text()).toBe(201);
}
