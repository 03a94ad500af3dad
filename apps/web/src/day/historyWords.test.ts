import { habitAfterShot, type Habit } from '@tempera/core/calibration';
import { MS_PER_DAY, MS_PER_HOUR } from '@tempera/core/numbers';
import { describe, expect, it } from 'vitest';
import { habitWord } from './historyWords.ts';

const six = Date.parse('2031-05-04T06:00:00Z');

/** Three weeks of a grinder that changes by so much of ln T over its first three hours, and by no more after. */
function alikeDays(change: number): Habit {
  let habit: Habit | null = null;
  for (let day = 0; day < 21; day += 1)
    for (let hour = 0; hour <= 9; hour += 1) {
      const lnT = Math.log(27) + change * Math.min(1, hour / 3);
      const shot = { atMs: six + day * MS_PER_DAY + hour * MS_PER_HOUR, lnT, x: 0, variance: 0.003 };
      habit = habitAfterShot(habit, shot, { mean: 0.09, variance: 0 });
    }
  if (!habit) throw new Error('no day');
  return habit;
}

describe('what is said of a grinder’s days', () => {
  it('names which way, by how many seconds, in which hours, and the doubt', () => {
    const said = habitWord(alikeDays(0.08), 27);
    expect(said).toMatch(
      /^Day after day it slows by [12]\.\d s in its first 3 hours, give or take 0\.\d s\. That is foreseen\.$/,
    );
    expect(habitWord(alikeDays(-0.08), 27)).toContain('runs faster by');
  });

  it('calls nothing a habit that nobody would notice', () => {
    expect(habitWord(alikeDays(0.01), 27)).toBeNull();
  });
});
