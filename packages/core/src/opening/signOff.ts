import { MS_PER_MINUTE } from '../numbers/index.ts';
import { standingSteps, type AnyFact, type FactOf } from '../facts/index.ts';
import type { JobState, NotRight, OpeningFact, OpeningStep } from './openingState.ts';

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

/** How each grinder stands on the page. @param facts corrected ones of the opening, oldest first */
export function grinderSigned(
  grinderId: string,
  facts: readonly OpeningFact[],
  steps: readonly OpeningStep[],
  fromMs: number,
): GrinderSigned {
  const own = facts.filter((fact) => fact.grinderId === grinderId && Date.parse(fact.at) >= fromMs);
  const lock = own.findLast((fact) => fact.kind === 'lock');
  const held = lock?.kind === 'lock' ? lock : null;
  const first = own.find(({ kind }) => kind === 'dose' || kind === 'shot');
  const discarded = standingSteps(steps)
    .filter(({ at }) => Date.parse(at) >= fromMs)
    .flatMap(({ body }) => (body.step === 'doseTime' && body.grinderId === grinderId ? [body] : []));
  const thrownG = discarded.reduce(
    (sum, { discardedG, dosesG }) => sum + discardedG + dosesG.reduce((doses, doseG) => doses + doseG, 0),
    0,
  );
  const shots = own.filter(
    (fact): fact is OpeningFact & FactOf<'shot'> =>
      fact.kind === 'shot' && fact.body.flaw === null && (held === null || fact.body.setting === held.body.setting),
  );
  return {
    grinderId,
    setting: held?.body.setting ?? null,
    doseTimeS: held?.body.doseTimeS ?? discarded.at(-1)?.grindTimeS ?? null,
    chance: held?.body.chance ?? null,
    shots: shots.slice(-LAST_SHOTS),
    usedG: thrownG + groundG(own),
    tookMin: held && first ? (Date.parse(held.at) - Date.parse(first.at)) / MS_PER_MINUTE : null,
    personId: held?.personId ?? null,
  };
}

/** Grams that the facts of one grinder tell of; a weighed dose and its shot are one. */
function groundG(facts: readonly AnyFact[]): number {
  let grams = 0;
  let waiting = false;
  for (const fact of facts) {
    if (fact.kind === 'purge') grams += fact.body.purgeG;
    if (fact.kind === 'dose') grams += fact.body.doseG;
    if (fact.kind === 'shot' && !waiting) grams += fact.body.doseG;
    if (fact.kind === 'dose') waiting = true;
    if (fact.kind === 'shot') waiting = false;
  }
  return grams;
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
