import { expect, instruction, signIn, test } from './bar.ts';

test.use({ moment: 'close' });

/** Late enough for all that a slow tablet reads after its first view. */
const SETTLED_MS = 4_000;
/** A clock that counts on may move by a hair; a button that somebody reaches for may not. */
const A_HAIR = 0.01;

test('nothing that is drawn moves from under a finger on a slow tablet, or a slow phone', async ({ page, context }) => {
  await signIn(page, 'Tobin');
  const slow = await context.newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  for (const [width, height] of [
    [1280, 800],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    for (const path of ['/', '/opening']) {
      await page.goto(path);
      await expect(instruction(page)).toBeVisible();
      await page.waitForTimeout(SETTLED_MS);
      const moved = await page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            new PerformanceObserver((list) => {
              // Only moves that nobody asked for have a value.
              resolve(list.getEntries().reduce((sum, entry) => sum + (entry as unknown as { value: number }).value, 0));
            }).observe({ type: 'layout-shift', buffered: true });
            // Nothing to tell: no entry is ever handed over.
            setTimeout(() => resolve(0), 500);
          }),
      );
      expect(moved, `${path} at ${width}`).toBeLessThan(A_HAIR);
    }
  }
});
