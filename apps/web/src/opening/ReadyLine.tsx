import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { planChange, type PlanChange, type PlanSeen } from '@tempera/core/opening';
import { useState, type ReactNode } from 'react';
import { clock, clockAhead, inWords, percent } from '../kernel/format.ts';
import classes from './Opening.module.css';
import { signatureOf, signedWord } from './signature.ts';
import type { MorningView } from './useMorning.ts';
import { changeWord, jobTitle, notSignedOffWord, runSkill } from './words.ts';

/** When the bar will be ready and how surely, and what changed the plan last. */
export function ReadyLine({ view, session }: { view: MorningView; session: Session }) {
  const change = usePlanChange(view);
  const { plan, morning } = view;
  const { timeZone } = session.site;
  const signature = signatureOf(view);
  // What was left out is no longer waited for.
  if (signature) return <TwoLines first={signedWord(signature, view, timeZone)} second={null} />;
  if (!plan) return <TwoLines first="Planning it" second={null} />;
  const at = (minutes: number): string => clock(plan.nowMs + minutes * MS_PER_MINUTE, timeZone);
  const titleOf = (key: string): string => {
    const state = view.states.find(({ job }) => job.key === key);
    return state ? jobTitle(state.job, view) : 'a job';
  };
  return (
    <TwoLines
      first={
        plan.plan.tasks.length === 0
          ? 'Everything is done'
          : `${morning.run === 'opening' ? 'Ready' : 'Over'} about ${at(plan.ready.midMin)}; ${percent(plan.ready.chance)} sure by ${clockAhead(morning.opensAtMs, session.site, view.nowMs)}`
      }
      second={
        <>
          {plan.withoutHands.length > 0 && (
            <span className={classes.noHands}>{noHandsWord(plan.withoutHands.map(titleOf), view)} </span>
          )}
          {change && <span>{newsWord(change, titleOf)}</span>}
        </>
      }
    />
  );
}

/** More titles than these are a wall, and their number says more. */
const MOST_TITLES = 3;

/** What nobody who is in may do, and who of them would if the house had signed them off. */
function noHandsWord(titles: readonly string[], { morning, people }: MorningView): string {
  const [named, more] =
    titles.length <= MOST_TITLES
      ? [titles, []]
      : [titles.slice(0, MOST_TITLES - 1), [`${titles.length - MOST_TITLES + 1} more`]];
  const inIds = morning.people.map(({ personId }) => personId);
  const unsigned = people.filter(
    ({ id, role, signedOff }) => role === 'barista' && signedOff === false && inIds.includes(id),
  );
  const says = `Nobody is in for: ${inWords([...named, ...more])}.`;
  if (unsigned.length === 0) return says;
  return `${says} ${notSignedOffWord(
    unsigned.map(({ name }) => name),
    runSkill(morning.run),
  )}`;
}

/** Both have their place from the start, so that neither the plan nor its news ever push the step away from under a finger. */
function TwoLines({ first, second }: { first: string; second: ReactNode }) {
  return (
    <>
      <Text size="lg" fw={600} aria-live="polite" className={classes.ready}>
        {first}
      </Text>
      <Text className={`faint ${classes.news}`} aria-live="polite">
        {second}
      </Text>
    </>
  );
}

function newsWord({ byMin, cause }: PlanChange, titleOf: (key: string) => string): string {
  const by = Math.abs(byMin) < 1 ? 'no later' : `${Math.abs(byMin)} min ${byMin > 0 ? 'later' : 'sooner'}`;
  return `Planned anew, ${by}: ${changeWord(cause, titleOf)}.`;
}

/** What changed since the plan that was last told of; told once, and stays until there is more to tell. */
function usePlanChange({ plan }: MorningView): PlanChange | null {
  const [told, setTold] = useState<{ fromMs: number; seen: PlanSeen; change: PlanChange | null } | null>(null);
  if (plan && plan.fromMs !== told?.fromMs) setTold({ fromMs: plan.fromMs, seen: plan.seen, change: null });
  else if (plan && told && plan.seen !== told.seen) {
    const change = planChange(told.seen, plan.seen);
    if (change) setTold({ fromMs: plan.fromMs, seen: plan.seen, change });
  }
  return told?.change ?? null;
}
