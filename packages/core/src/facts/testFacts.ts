import type { AnyFact, FactBodies, FactKind } from './fact.ts';
import type { StepBody, StepFact } from './stepFact.ts';

/** The one way to make facts in tests: each a minute after the one before. */
export function factMaker(start = '2031-05-04T06:00:00Z') {
  let made = 0;
  return <K extends FactKind>(kind: K, body: Partial<FactBodies[K]> = {}, minutes?: number): AnyFact => {
    made += 1;
    const at = new Date(Date.parse(start) + (minutes ?? made) * 60_000).toISOString();
    return {
      id: `00000000-0000-7000-8000-${String(made).padStart(12, '0')}`,
      kind,
      at,
      personId: 'person',
      grinderId: 'grinder',
      groupId: 'group',
      body: { ...defaults[kind], ...body },
    } as AnyFact;
  };
}

/** The same for steps of the bar. */
export function stepMaker(start = '2031-05-04T06:00:00Z') {
  let made = 0;
  return (body: StepBody, minutes?: number, personId = 'person'): StepFact => {
    made += 1;
    return {
      id: `00000000-0000-7000-8000-1${String(made).padStart(11, '0')}`,
      kind: 'step',
      at: new Date(Date.parse(start) + (minutes ?? made) * 60_000).toISOString(),
      personId,
      grinderId: null,
      groupId: null,
      body,
    };
  };
}

const defaults: FactBodies = {
  shot: {
    recipeVersionId: 'recipe',
    setting: 30,
    doseG: 18,
    yieldG: 36,
    timeS: 27,
    firstDropS: 6,
    flaw: null,
    measuredBy: 'scale',
    trace: null,
  },
  dose: { setting: 30, doseG: 18, grindTimeS: 9.3, measuredBy: 'scale' },
  collarMove: { from: 30, to: 28, advisedTo: 28 },
  purge: { purgeG: 12 },
  seen: { setting: 30, sign: 'clumping' },
  newBag: { roastedOn: '2031-05-01' },
  lock: {
    recipeVersionId: 'recipe',
    setting: 30,
    doseTimeS: 9.3,
    chance: 0.93,
    expected: { timeS: 27, lowS: 25, highS: 29 },
    nextCheckMin: 60,
    shotIds: [],
  },
  correction: { factId: '', withdrawn: false, shot: null },
};
