import { benchState, collarStandsAt, emptyMemory, updateWithFacts } from '@tempera/core/calibration';
import { serve, serviceAt } from '@tempera/core/day';
import {
  ofKind,
  standingFacts,
  type AnyFact,
  type Entry,
  type FactBodies,
  type FactKind,
  type StepBody,
} from '@tempera/core/facts';
import { MINUTES_PER_HOUR, MS_PER_DAY, MS_PER_MINUTE, seededRandom, seedFrom } from '@tempera/core/numbers';
import { addDays } from '@tempera/core/house';
import { bagsUsed, type DemoBag } from './demoBags.ts';
import { demoId, grinders, groups } from './demoBar.ts';
import { policy } from './demoHouse.ts';
import { demoMorning, stepAt } from './demoMornings.ts';
import { crew, jobsOf, play, stationOf, timeOne, type Job } from './demoStation.ts';

/** The demo in the middle of a served day, or before it closes. */

/** How long the bar has been open, hours. */
export const OPEN_HOURS = { service: 3.2, close: 9.8 };
const OPENS_AT_MIN = 450;
const SIGNED_AT_MIN = 444;
const CHECKED_AT_MIN = 432;
/** The house grinder is timed every so often; by now its check is due. */
const TIMED_EVERY_MIN = 55;
const LAST_TIMED_MIN_AGO = 72;
const HANDED_MIN_AGO = 260;
const RUSH_MIN_AGO = { began: 110, ended: 45 };

/** A shot timed, a dose weighed beside it, and the small move that the day's controller asks for. */
function lookAt(
  job: Job,
  atMs: number,
  known: Map<string, AnyFact[]>,
  newId: (atMs: number) => string,
  follows: boolean,
): AnyFact[] {
  const set = stationOf(job);
  if (!set) return [];
  const { station, recipe } = set;
  const { id } = station.grinder;
  const add = (facts: AnyFact[]): AnyFact[] => {
    known.set(id, [...(known.get(id) ?? []), ...facts]);
    return facts;
  };
  const by = { personId: demoId(`person ${job.by}`), grinderId: id, groupId: null };
  const fact = <K extends FactKind>(kind: K, afterMs: number, body: FactBodies[K]): AnyFact => {
    const at = atMs + afterMs;
    return { id: newId(at), kind, at: new Date(at).toISOString(), ...by, body } as AnyFact;
  };
  const shots = add(timeOne(job, atMs, known, newId));
  const facts = standingFacts((known.get(id) ?? []).filter(({ at }) => atMs - Date.parse(at) < MS_PER_DAY));
  const setting = collarStandsAt(facts) ?? station.grinder.seedSetting;
  const grindTimeS = ofKind(facts, 'lock').at(-1)?.body.doseTimeS ?? null;
  const dose = add([
    fact('dose', MS_PER_MINUTE, { setting, doseG: recipe.doseG, grindTimeS, measuredBy: 'hand', way: 'scale' }),
  ]);
  const context = { grinders: new Map([[id, station.grinder]]), recipeOf: () => recipe };
  const memory = updateWithFacts(emptyMemory, facts, context);
  const bench = benchState(facts, station.grinder, recipe, policy.choices, atMs, memory);
  const advice = serve(bench.serviceCase(), serviceAt(facts, atMs, null));
  if (!follows || advice.action !== 'move') return [...shots, ...dose];
  const { setting: to, purgeG } = advice;
  const moved = [
    fact('collarMove', 2 * MS_PER_MINUTE, { from: setting, to, advisedTo: to, service: true }),
    fact('purge', 2 * MS_PER_MINUTE + 1, { purgeG }),
  ];
  return [...shots, ...dose, ...add(moved)];
}

/** Before closing the early shift has long left the bar to the late one. */
function handedOver(
  moment: 'service' | 'close',
  ago: (minutes: number) => number,
  newId: (atMs: number) => string,
  early: string,
  late: string,
): Entry[] {
  if (moment !== 'close') return [];
  const left = stepAt(newId, ago(HANDED_MIN_AGO), early, { step: 'handedOver', says: [] });
  return [left, stepAt(newId, ago(HANDED_MIN_AGO - 3), late, { step: 'takenOver', handedOverId: left.id })];
}

function bagGoesIn(
  { id, coffee, grinder, roastedDaysAgo }: DemoBag,
  atMs: number,
  today: string,
  newId: (atMs: number) => string,
  personId: string,
): AnyFact {
  return {
    id: newId(atMs),
    kind: 'newBag',
    at: new Date(atMs).toISOString(),
    personId,
    grinderId: demoId(`grinder ${grinder}`),
    groupId: null,
    body: { roastedOn: addDays(today, -roastedDaysAgo), bagId: id, coffeeId: demoId(`coffee ${coffee}`) },
  };
}

/** A whole morning signed off, and the day since: shots timed, a rush that came and went, a hopper topped up. */
export function thisDay(
  now: Date,
  moment: 'service' | 'close',
  played: readonly AnyFact[],
  newId: (atMs: number) => string,
  today: string,
): Entry[] {
  const openedMs = now.getTime() - OPEN_HOURS[moment] * MINUTES_PER_HOUR * MS_PER_MINUTE;
  const at = (minutes: number): number => openedMs + (minutes - OPENS_AT_MIN) * MS_PER_MINUTE;
  const ago = (minutes: number): number => now.getTime() - minutes * MS_PER_MINUTE;
  const [ines, tobin] = [demoId('person Ines'), demoId('person Tobin')];
  const step = (atMs: number, body: StepBody): Entry => stepAt(newId, atMs, ines, body);
  const known = new Map(grinders.map(({ id }) => [id, played.filter(({ grinderId }) => grinderId === id)]));
  const add = (grinderId: string, facts: AnyFact[]): AnyFact[] => {
    known.set(grinderId, [...(known.get(grinderId) ?? []), ...facts]);
    return facts;
  };
  // The bags of the day, as long as their hour has come.
  const bags = bagsUsed(0, 0).filter(({ atMin }) => at(atMin) < now.getTime());
  const putIn = (isMorning: boolean): AnyFact[] =>
    bags
      .filter(({ atMin }) => atMin < OPENS_AT_MIN === isMorning)
      .flatMap((bag) => add(demoId(`grinder ${bag.grinder}`), [bagGoesIn(bag, at(bag.atMin), today, newId, ines)]));
  const morningBags = putIn(true);
  const dialled = jobsOf(0)
    .filter(({ atMin }) => atMin < OPENS_AT_MIN)
    .flatMap((job) => add(demoId(`grinder ${job.grinder}`), play(job, at(job.atMin), known, newId)));
  const times = (last: number, every: number): number[] =>
    Array.from(
      { length: Math.floor((OPEN_HOURS[moment] * MINUTES_PER_HOUR - last) / every) },
      (_, i) => last + i * every,
    );
  // The bag of the noon goes in between two looks, so that those after it are of its coffee.
  const noonBags: AnyFact[] = [];
  const noonBag = (beforeMs: number): AnyFact[] =>
    noonBags.length === 0 && bags.some(({ atMin }) => atMin > OPENS_AT_MIN && at(atMin) < beforeMs) ? putIn(false) : [];
  const timed = [
    ...times(LAST_TIMED_MIN_AGO, TIMED_EVERY_MIN).map((minutes, i) => ({ grinder: 'House', group: '1', minutes, i })),
    ...times(20, 60).map((minutes, i) => ({ grinder: 'Guest', group: '2', minutes, i })),
    ...times(15, 90).map((minutes, i) => ({ grinder: 'Decaf', group: '4', minutes, i })),
    ...times(31, 80).map((minutes, i) => ({ grinder: 'Brew', group: '5', minutes, i })),
  ]
    .toSorted((a, b) => b.minutes - a.minutes)
    .flatMap(({ minutes, i, ...station }) => {
      if (station.grinder === 'House') noonBags.push(...noonBag(ago(minutes)));
      const job = { ...station, daysAgo: 0, atMin: 0, by: crew[i % 2] ?? 'Ines' };
      // The last look at the house grinder waits for whoever opens the demo.
      const follows = station.grinder !== 'House' || minutes > LAST_TIMED_MIN_AGO;
      return lookAt(job, ago(minutes), known, newId, follows);
    });
  const opening = demoMorning(at, newId, ines, seededRandom(seedFrom('demo day')));
  return [
    step(at(330), {
      step: 'planned',
      opensAt: new Date(openedMs).toISOString(),
      from: new Date(at(330)).toISOString(),
      people: [ines, tobin].map((personId) => ({ personId, from: new Date(at(330)).toISOString() })),
      detergent: false,
    }),
    ...opening,
    ...morningBags,
    ...dialled,
    ...groups.map(({ id }) =>
      step(at(CHECKED_AT_MIN), {
        step: 'groupChecked',
        groupId: id,
        offS: 0.2,
        sdS: 0.8,
        finding: 'none',
        foundId: null,
        chance: 0.9,
      }),
    ),
    step(at(SIGNED_AT_MIN), { step: 'signedOff', notRight: [] }),
    ...noonBags,
    ...timed,
    ...handedOver(moment, ago, newId, ines, tobin),
    step(ago(RUSH_MIN_AGO.began), { step: 'happened', what: 'rushBegan', grinderId: null }),
    step(ago(RUSH_MIN_AGO.ended), { step: 'happened', what: 'rushEnded', grinderId: null }),
    step(ago(RUSH_MIN_AGO.ended + 8), { step: 'happened', what: 'refill', grinderId: demoId('grinder Guest') }),
  ];
}
