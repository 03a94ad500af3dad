import type { AnyFact, FactBodies, FactKind } from '@tempera/core/facts';
import { describe, expect, it } from 'vitest';
import { factLine } from './factLine.ts';

const fact = <K extends FactKind>(kind: K, body: Partial<FactBodies[K]>): AnyFact =>
  ({ id: 'x', kind, at: '2031-05-04T06:00:00Z', grinderId: 'g', groupId: null, body }) as unknown as AnyFact;
const shot = fact('shot', { doseG: 18, yieldG: 36.4, timeS: 22.1, setting: 30, flaw: null });

describe('facts in plain words', () => {
  it.each([
    [shot, '18.0 g in, 36.4 g out, 22.1 s at 30'],
    [
      fact('shot', { doseG: 18, yieldG: 36, timeS: 15, setting: 30, flaw: 'channel' }),
      '18.0 g in, 36.0 g out, 15.0 s at 30, flawed: channel',
    ],
    [fact('dose', { doseG: 18.2, grindTimeS: 9.1 }), 'Ground 18.2 g in 9.1 s'],
    [fact('dose', { doseG: 18.2, grindTimeS: null }), 'Weighed 18.2 g'],
    [fact('newBag', { roastedOn: '2031-05-01' }), 'Another bag went in, roasted 2031-05-01'],
    [fact('newBag', { roastedOn: null }), 'Another bag went in'],
    [fact('collarMove', { from: 30, to: 28, advisedTo: 28 }), 'Collar from 30 to 28'],
    [fact('collarMove', { from: 30, to: 29, advisedTo: 28 }), 'Collar from 30 to 29, against advice to go to 28'],
    [fact('purge', { purgeG: 11.5 }), 'Purged 11.5 g'],
    [fact('lock', { setting: 28, chance: 0.934, shotIds: ['a'] }), 'Locked at 28, 93 % sure from 1 shot'],
  ])('%#', (given, line) => {
    expect(factLine(given, null)).toBe(line);
  });

  it('says what a correction changed, and of what', () => {
    const correction = fact('correction', {
      factId: 'x',
      withdrawn: false,
      shot: { timeS: 27, flaw: 'uneven', firstDropS: null },
    });
    expect(factLine(correction, shot)).toBe(
      'Corrected the shot (18.0 g in, 36.4 g out, 22.1 s at 30): time 27.0 s, first drop not seen, flawed: uneven bed',
    );
    expect(factLine(fact('correction', { factId: 'x', withdrawn: true, shot: null }), null)).toBe(
      'Withdrew an earlier entry',
    );
  });
});
