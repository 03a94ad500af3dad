import { MS_PER_MINUTE } from '../numbers/index.ts';
import { grinderSet, type GrinderSet } from '../calibration/index.ts';
import { gramsUsed, type GramsUsed } from '../coffee/index.ts';
import { factsSince, ofGrinder, ofKind, stepsOf, type FactOf, type StandingFacts } from '../facts/index.ts';
import { sheetOf, tasteTable, type TasteTable } from '../taste/index.ts';
import type { NotRight } from './notRight.ts';
import type { JobState } from './openingState.ts';

const LAST_SHOTS = 3;

/** One grinder on the page that the head barista signs. */
export interface GrinderSigned {
  grinderId: string;
  /** How it was set in this run; null while it is not locked. */
  set: GrinderSet | null;
  /** The newest sound shots of what was set, oldest first: none from before the collar moved, or a group was mended. */
  shots: FactOf<'shot'>[];
  /** What its tasters say together since its cup last changed; null of none. */
  taste: TasteTable | null;
  /** Ground since the run began, in all and by where it went. */
  used: GramsUsed;
  /** From the first dose or shot to the lock; null while it is not locked. */
  tookMin: number | null;
}

/** How each grinder stands on the page that is signed for what happened since `fromMs`. */
export function grinderSigned(grinderId: string, facts: StandingFacts, fromMs: number): GrinderSigned {
  const since = factsSince(facts, fromMs);
  const own = ofGrinder(since, grinderId);
  const set = grinderSet(since, grinderId);
  const first = own.find(({ kind }) => kind === 'dose' || kind === 'shot');
  const movedAt = ofKind(own, 'collarMove').at(-1)?.at ?? '';
  const mended = new Map(stepsOf(since, 'mended').map(({ at, body }) => [body.groupId, at]));
  const shots = ofKind(own, 'shot').filter(
    ({ at, groupId, body }) =>
      body.flaw === null &&
      at > movedAt &&
      at > (mended.get(groupId ?? '') ?? '') &&
      (set === null || body.setting === set.setting),
  );
  const sheets = stepsOf(since, 'tasted').filter(({ at, body }) => body.grinderId === grinderId && at > movedAt);
  return {
    grinderId,
    set,
    shots: shots.slice(-LAST_SHOTS),
    taste: tasteTable(sheets.map(sheetOf)),
    used: gramsUsed(facts, { fromMs, grinderId }),
    tookMin: set && first ? (Date.parse(set.lock.at) - Date.parse(first.at)) / MS_PER_MINUTE : null,
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
