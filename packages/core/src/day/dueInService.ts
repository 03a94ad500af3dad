import { isCheck, lastLock, type AdviceCase } from '../calibration/index.ts';
import { factsAfter, isLook, ofGrinder, stepsOf, type StandingFact, type StandingFacts } from '../facts/index.ts';
import { MINUTES_PER_DAY, MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import { isOfChamber } from './chamber.ts';
import { dayNumbers } from './dayNumbers.ts';
import type { Service } from './outlook.ts';
import { serve } from './serve.ts';

/** A rush that nobody ended is over by then. */
const LONGEST_RUSH_MS = 3 * MS_PER_HOUR;
/** Where nobody says when the bar closes. */
const HALF_DAY_MS = 12 * MS_PER_HOUR;
/** Past its hour a bar that still pours goes on for so long again. */
const LATE_MS = MS_PER_HOUR;

/** Whether a rush was said to have begun, and not to be over. */
export function rushIsOn(facts: StandingFacts, atMs: number): boolean {
  const rush = stepsOf(facts, 'happened').findLast(
    ({ at, body }) => Date.parse(at) <= atMs && (body.what === 'rushBegan' || body.what === 'rushEnded'),
  );
  return rush?.body.what === 'rushBegan' && atMs - Date.parse(rush.at) < LONGEST_RUSH_MS;
}

/** When service ends, ms since the epoch: the calendar's hour, or later at a bar that was seen to pour after it. */
function endsAt(facts: StandingFacts, atMs: number, closesAtMs: number | null): number {
  if (closesAtMs === null) return atMs + HALF_DAY_MS;
  const pours = ({ kind, at }: StandingFact): boolean =>
    (kind === 'shot' || kind === 'seen' || kind === 'lock') && Date.parse(at) > closesAtMs && Date.parse(at) <= atMs;
  return facts.some(pours) ? Math.max(closesAtMs, atMs + LATE_MS) : closesAtMs;
}

/** What is known of the rest of the day at a moment: a rush doubles the cups. @param closesAtMs null where nobody says */
export function serviceAt(facts: StandingFacts, atMs: number, closesAtMs: number | null): Service {
  return {
    endsAtMs: endsAt(facts, atMs, closesAtMs),
    cupsPerHour: dayNumbers.cupsPerHour * (rushIsOn(facts, atMs) ? dayNumbers.rushTimes : 1),
  };
}

/** When something was last learned of a grinder that holds, ms since the epoch, and whether it was timed or seen. */
export interface LastHeard {
  atMs: number;
  /** Whether it is what happened to it, and nobody has looked since. */
  happened: boolean;
}

const seesTo = (fact: StandingFact): boolean =>
  (fact.kind === 'shot' && isCheck(fact) && fact.body.flaw === null) ||
  (fact.kind === 'collarMove' && fact.body.service === true) ||
  (fact.kind === 'seen' && isLook(fact.body.sign) && fact.body.sign !== 'littleIn');

/** Since its lock: a timed shot, a look, a small move, another bag, or what happened to it or to the whole bar. Null: it was never locked. */
export function lastHeard(facts: StandingFacts, grinderId: string): LastHeard | null {
  const lock = lastLock(ofGrinder(facts, grinderId));
  if (!lock) return null;
  const last = factsAfter(facts, lock).findLast(
    (fact) =>
      (fact.grinderId === grinderId && (fact.kind === 'newBag' || seesTo(fact))) ||
      (fact.kind === 'step' &&
        fact.body.step === 'happened' &&
        !isOfChamber(fact.body.what) &&
        (fact.body.grinderId === null || fact.body.grinderId === grinderId)),
  );
  return { atMs: Date.parse((last ?? lock).at), happened: last?.kind === 'step' || last?.kind === 'newBag' };
}

/**
 * When a grinder that holds is next looked at, ms since the epoch: by the controller's own word at the moment when something was
 * last learned of it, so that every device and every reload say the same; later where somebody put it off. By the clock, or only
 * after a change, where the house says so. Null: it was never locked.
 * @param caseAt the grinder's case at a moment
 */
export function dueInService(
  facts: StandingFacts,
  grinderId: string,
  caseAt: (nowMs: number) => AdviceCase,
  closesAtMs: (atMs: number) => number | null,
): number | null {
  const heard = lastHeard(facts, grinderId);
  if (!heard) return null;
  const { atMs } = heard;
  const dueMs = atMs + minutesFrom(caseAt(atMs), heard, serviceAt(facts, atMs, closesAtMs(atMs))) * MS_PER_MINUTE;
  return Math.max(dueMs, putOffUntilMs(facts, grinderId) ?? 0);
}

/** Until when somebody put off what a grinder asks for, ms since the epoch; null where nobody did since anything was learned of it. */
export function putOffUntilMs(facts: StandingFacts, grinderId: string): number | null {
  const heard = lastHeard(facts, grinderId);
  const putOff = stepsOf(facts, 'putOff').findLast(
    ({ at, body }) => body.grinderId === grinderId && heard !== null && Date.parse(at) > heard.atMs,
  );
  return putOff ? Date.parse(putOff.at) + putOff.body.minutes * MS_PER_MINUTE : null;
}

function minutesFrom(input: AdviceCase, { happened }: LastHeard, service: Service): number {
  const { recheck, longestCheckMin } = input.house;
  if (recheck === 'hours') return longestCheckMin;
  if (recheck === 'changes') return happened ? 0 : MINUTES_PER_DAY;
  return serve(input, service).nextCheckMin;
}
