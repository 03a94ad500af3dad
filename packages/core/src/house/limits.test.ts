import { describe, expect, it } from 'vitest';
import { checkLimit, parseNumber } from './limits.ts';

describe('limits of what people type', () => {
  it.each([
    ['doseG', 18, 'usual'],
    ['doseG', 24, 'unusual'],
    ['doseG', 2.9, 'refused'],
    ['doseG', 30, 'unusual'],
    ['doseG', 30.1, 'refused'],
    ['yieldG', 60, 'unusual'],
    ['yieldG', 501, 'refused'],
    ['timeS', 0.9, 'refused'],
    ['timeS', 180, 'unusual'],
    ['firstDropS', 0, 'unusual'],
    ['purgeG', 101, 'refused'],
    ['doseG', Number.NaN, 'refused'],
    ['doseG', Infinity, 'refused'],
  ] as const)('%s of %d is %s', (quantity, value, verdict) => {
    expect(checkLimit(quantity, value)).toBe(verdict);
  });

  it('warns nobody of what the recipe itself asks for', () => {
    expect(checkLimit('yieldG', 252, 250)).toBe('usual');
    expect(checkLimit('yieldG', 120, 250)).toBe('unusual');
    expect(checkLimit('yieldG', 501, 500)).toBe('refused');
  });
});

describe('numbers as people type them', () => {
  it.each([
    ['18,2', 18.2],
    ['18.2', 18.2],
    [' 18 ', 18],
    ['18.2 g', 18.2],
    [',5', 0.5],
    ['7.', 7],
    ['-3', -3],
    ['27,5s', 27.5],
  ])('reads %s', (text, value) => {
    expect(parseNumber(text)).toBe(value);
  });

  it.each(['', 'abc', '1,2,3', '1.2.3', '1 2', 'g', '--1', '1e5', 'Infinity'])('does not read %j', (text) => {
    expect(parseNumber(text)).toBeNull();
  });
});
