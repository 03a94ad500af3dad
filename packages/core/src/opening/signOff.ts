import { MS_PER_MINUTE } from '../numbers/index.ts';
import { lastLock } from '../calibration/index.ts';
import { gramsUsed } from '../coffee/index.ts';
import { factsSince, ofGrinder, ofKind, stepsOf, type FactOf, type StandingFacts } from '../facts/index.ts';
import type { NotRight } from './notRight.ts';
import type { JobState } from './openingState.ts';

const LAST_SHOTS = 3;

/** One grinder on the page that the head barista signs. */
export interface GrinderSigned {
  grinderId: string;
  setting: number | null;
  doseTimeS: number | null;
  /** The engine's sureness that its mean is inside; null while nothing holds. */
  chance: number | null;
  /** The newest shots at that setting, oldest first. */
  shots: FactOf<'shot'>[];
  /** Ground since the opening began: doses, shots without one, purges, what was thrown away. */
  usedG: number;
  /** From the first dose or shot to the lock; null while it is not locked. */
  tookMin: number | null;
  /** Who locked it. */
  personId: string | null;
}

/** How each grinder stands on the page that is signed for what happened since `fromMs`. */
export function grinderSigned(grinderId: string, facts: StandingFacts, fromMs: number): GrinderSigned {
  const since = factsSince(facts, fromMs);
  const own = ofGrinder(since, grinderId);
  const held = lastLock(own);
  const first = own.find(({ kind }) => kind === 'dose' || kind === 'shot');
  // A time that was proven after the lock stands above the lock's own.
  const proven = stepsOf(since, 'doseTime').findLast(
    ({ at, body }) => body.grinderId === grinderId && (held === null || at >= held.at),
  );
  const shots = ofKind(own, 'shot').filter(
    ({ body }) => body.flaw === null && (held === null || body.setting === held.body.setting),
  );
  return {
    grinderId,
    setting: held?.body.setting ?? null,
    doseTimeS: proven?.body.grindTimeS ?? held?.body.doseTimeS ?? null,
    chance: held?.body.chance ?? null,
    shots: shots.slice(-LAST_SHOTS),
    usedG: gramsUsed(facts, { fromMs, grinderId }).totalG,
    tookMin: held && first ? (Date.parse(held.at) - Date.parse(first.at)) / MS_PER_MINUTE : null,
    personId: held?.personId ?? null,
  };
}

/** Everything that the page has to say plainly before somebody signs, the gravest first. */
export type Fault =
  | { kind: 'notRight'; key: string; what: NotRight }
  | { kind: 'open'; key: string }
  | { kind: 'skipped'; key: string; why: string };

/** What is not right with the bar as it stands; empty when everything is. */
export function faultsOf(states: readonly JobState[]): Fault[] {
  const others = states.filter(({ job }) => job.kind !== 'signOff');
  const isOver = ({ standing }: JobState): boolean => standing === 'done' || standing === 'skipped';
  return [
    ...others.flatMap(({ job, notRight }): Fault[] =>
      notRight === null ? [] : [{ kind: 'notRight', key: job.key, what: notRight }],
    ),
    ...others
      .filter((state) => !isOver(state) && state.notRight === null)
      .map(({ job }): Fault => ({ kind: 'open', key: job.key })),
    ...others.flatMap(({ job, standing, skippedWhy }): Fault[] =>
      standing === 'skipped' ? [{ kind: 'skipped', key: job.key, why: skippedWhy ?? '' }] : [],
    ),
  ];
}
