import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cleanSetting, directionOf, marksFiner, settingAt, settingsAbout, type Dial } from './dial.ts';

const down: Dial = { stepMarks: 1, finer: 'down', range: { min: 1, max: 40 } };
const up: Dial = { stepMarks: 0.1, finer: 'up', range: null };

describe('a dial', () => {
  it('counts finer marks down or up, as the grinder has it', () => {
    expect(marksFiner(down, 28, 30)).toBe(2);
    expect(marksFiner(up, 28, 30)).toBe(-2);
    expect(directionOf(down, 30, 28)).toBe('finer');
    expect(directionOf(up, 30, 28)).toBe('coarser');
    expect(directionOf(up, 30, 30)).toBeNull();
  });

  it('goes there and back again', () => {
    const dial = fc.constantFrom(down, up);
    fc.assert(
      fc.property(
        dial,
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: -50, max: 50 }),
        (one, tenths, steps) => {
          const reference = tenths / 10;
          const setting = settingAt(one, steps * one.stepMarks, reference);
          expect(marksFiner(one, setting, reference)).toBeCloseTo(steps * one.stepMarks, 9);
        },
      ),
      { seed: 20260305 },
    );
  });

  it('never shows floating point dust', () => {
    expect(settingAt(up, 0.3, 14)).toBe(14.3);
    expect(cleanSetting(0.1 + 0.2)).toBe(0.3);
    expect(Object.is(cleanSetting(-0.0001), 0)).toBe(true);
  });

  it('names what lies about a mark, nearest first, and never beyond the collar', () => {
    expect(settingsAbout(down, 30, 4, 1)).toEqual([27, 26, 25]);
    expect(settingsAbout(down, 30, 0, 1)).toEqual([30, 31, 29]);
    expect(settingsAbout(down, 2, 3, 1)).toEqual([1, 1, 1]);
    expect(settingsAbout({ ...up, range: { min: 4.9, max: 5.1 } }, 5, 0.3, 1)).toEqual([5.1, 5.1, 5.1]);
    expect(settingsAbout(down, 30, -1e9, 0)).toEqual([40]);
  });
});
