import { describe, expect, it } from 'vitest';
import { adviceTool } from '../../../tools/advise.ts';
import { answerLine } from '../../../tools/lines.ts';
import { adviceAnswerSchema } from './adviceLine.ts';

/** The line of the documentation. */
const line = {
  recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
  grinder: { stepMarks: 1, finer: 'down', secondsPerMark: 2.5, retentionG: null },
  house: { sureness: 0.92, risk: 0.2 },
  since: { newBag: false, hours: 14 },
  now: '2031-05-04T06:31:00Z',
  shots: [
    {
      at: '2031-05-04T06:30:10Z',
      setting: 30,
      doseG: 18.1,
      yieldG: 36.4,
      timeS: 22.1,
      firstDropS: 5,
      purgedG: 20,
      fault: null,
    },
  ],
};
const answer = (input: unknown): Record<string, unknown> =>
  JSON.parse(answerLine(adviceTool, JSON.stringify(input))) as Record<string, unknown>;

describe('the advice line', () => {
  it('answers the documented case in exactly the documented form', () => {
    const given = answer(line);
    expect(adviceAnswerSchema.parse(given)).toEqual(given);
    expect(given).toMatchObject({ action: 'move', setting: 28 });
    expect(given).not.toHaveProperty('doseG');
  });

  it('carries a dose only when the dose was wrong', () => {
    expect(answer({ ...line, shots: [{ ...line.shots[0], doseG: 19 }] })).toMatchObject({
      action: 'dose',
      doseG: 18,
      setting: 30,
    });
  });

  it('never advises off the dial, and says how close it comes where nothing in reach does better', () => {
    const shot = { setting: 30, doseG: 18, yieldG: 36, timeS: 19 };
    const grinder = { ...line.grinder, range: { min: 30, max: 60 } };
    const given = answer({ ...line, grinder, now: undefined, shots: [shot, shot, shot] });
    expect(given).toMatchObject({ setting: 30, action: 'repeat' });
    expect(given.closeEnough).toBeLessThan(0.5);
    expect(String(given.reasons)).toContain('The dial ends before the mark that would do');
    expect(answer({ ...line, grinder: { ...grinder, range: { min: 60, max: 30 } } })).toHaveProperty('error.path');
  });

  it('is told what was remembered, where the collar stands and which group it was', () => {
    const since = { newBag: false, hours: 1, setting: 28, timeS: 27.4, sdS: 0.8 };
    // Somebody turned it after it held: back, without a shot.
    expect(answer({ ...line, since, standsAt: 33, shots: [] })).toMatchObject({ action: 'move', setting: 28 });
    const shot = { setting: 28, doseG: 18, yieldG: 36, timeS: 27.2, group: 'left' };
    expect(answer({ ...line, since, now: undefined, shots: [shot] })).toMatchObject({ action: 'lock', setting: 28 });
    expect(answer({ ...line, since, standsAt: 26, now: undefined, shots: [shot] })).toMatchObject({
      action: 'repeat',
      setting: 26,
    });
  });

  it('does without everything optional', () => {
    const { house: _house, now: _now, ...bare } = line;
    const shots = [{ setting: 30, doseG: 18, yieldG: 36, timeS: 27 }];
    expect(answer({ ...bare, since: null, shots })).toHaveProperty('action');
    expect(answer({ ...bare, shots: [] })).toMatchObject({ action: 'repeat', purgeG: 0 });
  });

  it('lets time and events between shots add doubt, only when told the time', () => {
    const shots = [
      { ...line.shots[0], timeS: 27.4 },
      { ...line.shots[0], at: '2031-05-04T06:32:00Z', timeS: 27.4 },
    ];
    const sureness = (input: object): number => (answer(input).predicted as { inWindow: number }).inWindow;
    const fresh = sureness({ ...line, shots, now: '2031-05-04T06:33:00Z' });
    const later = sureness({ ...line, shots, now: '2031-05-04T10:33:00Z' });
    const newBag = sureness({
      ...line,
      shots,
      now: '2031-05-04T06:35:00Z',
      events: [{ at: '2031-05-04T06:34:00Z', kind: 'newBag' }],
    });
    expect(later).toBeLessThan(fresh);
    expect(newBag).toBeLessThan(fresh);
  });

  it.each([
    ['{', '', 'not JSON'],
    ['null', '', 'object'],
    ['{"recipe":1}', 'recipe', 'object'],
    [JSON.stringify({ ...line, extra: 1 }), '', 'extra'],
    [
      JSON.stringify({ ...line, recipe: { ...line.recipe, timeS: { min: 30, max: 25 } } }),
      'recipe.timeS',
      'min below max',
    ],
    [JSON.stringify({ ...line, shots: [{ ...line.shots[0], timeS: -1 }] }), 'shots.0.timeS', ''],
    [JSON.stringify({ ...line, shots: [{ ...line.shots[0], yieldG: 0 }] }), 'shots.0.yieldG', 'choked'],
  ])('names what is wrong with %s', (text, path, words) => {
    const { error } = JSON.parse(answerLine(adviceTool, text)) as { error: { path: string; message: string } };
    expect(error.path).toBe(path);
    expect(error.message).toContain(words);
  });
});
