import type { Session } from '@tempera/contract/team';
import { usualPolicy } from '@tempera/core/calibration';
import { usualUnits, usualServicePolicy } from '@tempera/core/house';
import { emptyMemory, packMemory } from '@tempera/core/calibration';
import { standingFacts, type AnyFact, type StepBody, type StepFact } from '@tempera/core/facts';
import { jobsOf, openingState, type Job, type OpeningBar } from '@tempera/core/opening';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, vi } from 'vitest';
import type { StepProps } from './steps/stepProps.ts';
import type { MorningView } from './useMorning.ts';

/** A small morning for the tests of the opening: one machine, one grinder, two people. */

export const now = Date.parse('2031-05-04T06:00:00Z');
export const session: Session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};
export const people: Session['person'][] = [session.person, { id: 'noor', name: 'Noor', role: 'barista' }];
const names: Record<string, string> = {
  fern: 'Fern',
  house: 'House',
  '1': 'Group 1',
  '2': 'Group 2',
  ines: 'Ines',
  noor: 'Noor',
};
export const nameOf = (id: string | null): string => names[id ?? ''] ?? '';
export const coffeeOf = (id: string | null): string => (id === 'house' ? 'Trowel blend' : '');
export const openingBar: OpeningBar = {
  machines: [{ id: 'fern', groups: [{ id: '1', buttons: 1 }] }],
  grinders: [{ id: 'house', referenceGroupId: '1' }],
  milk: true,
  byVolume: false,
  upkeepDue: false,
  left: [],
  scale: true,
  provesDoses: true,
};
export const recipe = {
  id: 'r1',
  recipeId: 'r',
  basketId: 'b18',
  doseG: 18,
  doseToleranceG: 0.3,
  yieldG: 36,
  yieldToleranceG: 1.5,
  timeFrom: 'pump',
  timeMinS: 25,
  timeMaxS: 30,
  firstDropMinS: 4,
  firstDropMaxS: 8,
  taste: null,
};

interface Given {
  steps?: StepFact[];
  facts?: AnyFact[];
  bar?: OpeningBar;
  detergent?: boolean;
  plan?: MorningView['plan'];
  nowMs?: number;
  /** How the house works, where it differs. */
  house?: Partial<MorningView['bar']['house']>;
}

export function viewOf(given: Given = {}): MorningView {
  const { steps = [], bar = openingBar, detergent = false, plan = null, nowMs = now } = given;
  const facts = standingFacts([...(given.facts ?? []), ...steps]);
  return {
    bar: {
      room: { widthCm: 400, depthCm: 200 },
      counters: [],
      machines: bar.machines.map(({ id, groups }) => ({
        id,
        name: nameOf(id),
        place: { xCm: 0, yCm: 0, widthCm: 80, depthCm: 50 },
        groups: groups.map((group) => ({ id: group.id, name: nameOf(group.id) })),
      })),
      grinders: bar.grinders.map(({ id }) => ({
        id,
        name: nameOf(id),
        coffee: 'Trowel blend',
        coffeeId: 'coffee',
        roast: 'medium',
        decaf: false,
        rateGps: 2,
        secondsPerMark: 2.5,
        retentionG: 3,
        seedSetting: 30,
        others: [],
        readsDial: true,
        stepMarks: 1,
        finer: 'down',
        dialMin: 1,
        dialMax: 60,
        recipe,
        place: { xCm: 100, yCm: 0, widthCm: 30, depthCm: 40 },
      })),
      house: { ...usualPolicy, ...usualServicePolicy, ...given.house },
      fixtures: [],
      memory: { upTo: new Date(now).toISOString(), state: packMemory(emptyMemory) },
      recipesNamed: [],
    } as unknown as MorningView['bar'],
    people,
    morning: {
      run: 'opening',
      grinderIds: null,
      fromMs: now,
      opensAtMs: now + 5_400_000,
      people: [{ personId: 'ines', fromMs: now }],
      detergent,
    },
    states: openingState(jobsOf(bar), facts, now),
    facts,
    plan,
    tasks: plan?.plan.tasks ?? [],
    nowMs,
    nameOf,
    coffeeOf,
  };
}

export function propsOf(kind: Job['kind'], write: StepProps['write'], given: Given = {}): StepProps {
  const view = viewOf(given);
  const state = view.states.find(({ job }) => job.kind === kind);
  if (!state) throw new Error(`no job ${kind}`);
  return { view, state, session, write };
}

export const stepOf = (body: StepBody, minutes: number): StepFact => ({
  id: `${body.step} ${minutes}`,
  kind: 'step',
  at: new Date(now + minutes * 60_000).toISOString(),
  grinderId: null,
  groupId: null,
  body,
  personId: 'ines',
});

/** What the server answers, by the end of the address; everything else is empty. */
export const answers: Record<string, unknown> = {};

export function eachOnItsOwn(): void {
  beforeEach(() => {
    localStorage.clear();
    for (const address of Object.keys(answers)) Reflect.deleteProperty(answers, address);
    vi.stubGlobal('fetch', (address: string) => {
      const known = Object.keys(answers).find((end) => address.endsWith(end));
      if (address.endsWith('/session')) return Promise.resolve(Response.json(session));
      const nothing = { sheets: [], sites: [], demo: null, facts: [], steps: [], grinders: [] };
      return Promise.resolve(Response.json(known ? answers[known] : nothing));
    });
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
}

export const press = (name: string | RegExp): void => void fireEvent.click(screen.getByRole('button', { name }));
export const type = (name: RegExp, text: string): void =>
  void fireEvent.change(screen.getByRole('textbox', { name }), { target: { value: text } });
export const isDisabled = (name: string | RegExp): boolean =>
  screen.getByRole<HTMLButtonElement>('button', { name }).disabled;
export const tick = (name: RegExp): void => void fireEvent.click(screen.getByRole('checkbox', { name }));
