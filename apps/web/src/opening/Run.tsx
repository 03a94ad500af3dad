import { Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { nextThings, type JobState } from '@tempera/core/opening';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useWriteStep } from '../kernel/facts.tsx';
import { CurrentStep } from './CurrentStep.tsx';
import { JobList } from './JobList.tsx';
import { jobsFor } from './jobsFor.ts';
import classes from './Opening.module.css';
import { RunBeside } from './RunBeside.tsx';
import { RunHead } from './RunHead.tsx';
import type { MorningView } from './useMorning.ts';

interface RunProps {
  view: MorningView;
  session: Session;
  onPlan: () => void;
}

/** The run of a planned morning: one step on the page, what stands beside it, and all jobs below. */
export function Run({ view, session, onPlan }: RunProps) {
  const write = useWriteStep();
  const [params, setParams] = useSearchParams();
  const chosen = params.get('job');
  const open = (key: string | null): void => {
    setParams(key === null ? {} : { job: key });
    // The step stands at the top of the page, whichever line of the list was tapped.
    if (key !== null) window.scrollTo({ top: 0 });
  };
  const mine = view.plan
    ? nextThings(view.states, view.plan.plan.tasks, session.person.id, jobsFor(view, session.person.id))
    : [];
  const picked = view.states.find(({ job }) => job.key === chosen);
  const isOpen = picked && (picked.standing === 'ready' || picked.standing === 'underWay');
  const current = useSteady(isOpen ? picked : null, mine[0]?.state ?? null, view, session.person.id);
  const then = mine.filter(({ state }) => state.job.key !== current?.job.key).slice(0, 2);
  const undo = (state: JobState): void => {
    if (state.factId !== null) write({ step: 'takenBack', machineId: null, readings: [], takesBack: state.factId });
  };
  const over = view.states.filter(({ standing }) => standing === 'done' || standing === 'skipped').length;
  const signed = view.states.find(({ job }) => job.kind === 'signOff')?.standing === 'done';
  return (
    <>
      <RunHead view={view} session={session} over={over} onPlan={onPlan} />
      <div className={classes.run}>
        <section className={`sheet ${classes.now}`} aria-label="Your next thing">
          {signed || !current ? (
            <Title order={1}>{signed ? 'Signed off: the bar is open' : nothingWord(view)}</Title>
          ) : (
            <CurrentStep
              state={current}
              view={view}
              session={session}
              write={(body) => {
                write(body);
                open(null);
              }}
            />
          )}
        </section>
        <RunBeside view={view} current={current} then={then} personId={session.person.id} />
      </div>
      <JobList view={view} timeZone={session.site.timeZone} onOpen={open} onUndo={undo} />
    </>
  );
}

const nothingWord = ({ plan }: MorningView): string =>
  plan ? 'Nothing left for you' : 'One moment: the morning is planned';

/**
 * What stands on the page stays until it is done, left out, or in somebody else's hands: a new plan never changes the step
 * under a finger.
 */
function useSteady(
  picked: JobState | null,
  planned: JobState | null,
  view: MorningView,
  personId: string,
): JobState | null {
  const [key, setKey] = useState<string | null>(null);
  const shown = view.states.find(({ job }) => job.key === key);
  const stays =
    shown !== undefined &&
    (shown.standing === 'ready' || (shown.standing === 'underWay' && shown.personId === personId));
  const current = picked ?? (stays ? shown : planned);
  if (current && current.job.key !== key) setKey(current.job.key);
  return current;
}
