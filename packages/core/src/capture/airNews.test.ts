import { describe, expect, it } from 'vitest';
import { isAirNews } from './airNews.ts';

const MIN = 60_000;
const told = { tempC: 21, humidityPct: 55, atMs: 0 };

describe('when the air is written down', () => {
  it.each([
    ['never told', { tempC: 21, humidityPct: 55 }, null, 0, true],
    ['the same within the hour', { tempC: 21.5, humidityPct: 57 }, told, 40 * MIN, false],
    ['the same after an hour', { tempC: 21, humidityPct: 55 }, told, 60 * MIN, true],
    ['warmer by two degrees', { tempC: 23, humidityPct: 55 }, told, 15 * MIN, true],
    ['drier by five points', { tempC: 21, humidityPct: 50 }, told, 15 * MIN, true],
    ['a door that was open for a minute', { tempC: 15, humidityPct: 80 }, told, 3 * MIN, false],
  ])('%s', (_, now, last, nowMs, news) => {
    expect(isAirNews(now, last, nowMs)).toBe(news);
  });
});
