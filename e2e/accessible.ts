import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, type Page } from '@playwright/test';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeRun {
  violations: { id: string; help: string; nodes: { html: string; failureSummary: string }[] }[];
}

const STANDARDS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** Runs the accessibility checker inside the page, as WCAG 2.2 AA asks: by day all of it, by night what colours change. */
export async function expectAccessible(page: Page, within = 'body'): Promise<void> {
  await page.evaluate(axe);
  for (const scheme of ['dark', 'light'] as const) {
    await page.emulateMedia({ colorScheme: scheme });
    await page.evaluate(async () => {
      // Some colours fade over to the other scheme, from the frame after the next.
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      await Promise.allSettled(document.getAnimations().map(({ finished }) => finished));
    });
    const { violations } = await page.evaluate(
      ([context, only]) =>
        (window as unknown as { axe: { run: (context: string, options: object) => Promise<AxeRun> } }).axe.run(
          context,
          {
            runOnly: only,
            // The library titles its dialogs with a <header>; inside a dialog that is no second banner of the page.
            rules: { 'landmark-no-duplicate-banner': { enabled: context === 'body' } },
          },
        ),
      [within, scheme === 'light' ? STANDARDS : ['wcag2aa']] as const,
    );
    expect(
      violations.map(
        ({ id, nodes }) => `${id}: ${nodes.map(({ html, failureSummary }) => `${html} ${failureSummary}`).join('; ')}`,
      ),
      `${scheme} scheme`,
    ).toEqual([]);
  }
}
