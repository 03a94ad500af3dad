import type { Page } from '@playwright/test';

/** Server and test are one process: its clock is the house's, and can be set forward. A tablet notices at its next answer. */
const RealDate = Date;
let aheadMs = 0;

class HouseDate extends RealDate {
  constructor(...given: [] | [number | string | Date]) {
    if (given.length === 0) super(HouseDate.now());
    else super(...given);
  }

  static override now(): number {
    return RealDate.now() + aheadMs;
  }
}

/** Lets minutes of the day pass, and looks at the page anew. */
export async function minutesPass(page: Page, minutes: number): Promise<void> {
  globalThis.Date = HouseDate as DateConstructor;
  aheadMs += minutes * 60_000;
  // The first answer tells the tablet what time it is.
  const answered = page.waitForResponse((answer) => new URL(answer.url()).pathname === '/api/bar');
  await page.reload();
  await answered;
}

/** The clock goes right again, for whatever this process does next. */
export function clockGoesRight(): void {
  globalThis.Date = RealDate;
  aheadMs = 0;
}
