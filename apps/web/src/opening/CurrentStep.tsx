import { Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { dangersAt, type JobState } from '@tempera/core/opening';
import { jobWords } from '../journal/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { Cautions } from './CautionLine.tsx';
import classes from './Opening.module.css';
import { StepPanel } from './StepPanel.tsx';
import type { MorningView } from './useMorning.ts';
import { jobTitle } from './words.ts';

interface CurrentStepProps {
  state: JobState;
  view: MorningView;
  session: Session;
  write: ReturnType<typeof useWriteStep>;
}

/** The step on the page: what and why, what can hurt, and the panel that ends it. */
export function CurrentStep({ state, view, session, write }: CurrentStepProps) {
  const begin = useWriteStep();
  const { job, standing, personId } = state;
  const waits = standing === 'waiting';
  // When the finger goes up, not when it comes down: what follows may move the page, and the tap would miss its button.
  const take = (): void => {
    if (standing === 'ready') begin({ step: 'begun', job: job.kind, stationId: job.stationId });
  };
  const byOther = standing === 'underWay' && personId !== session.person.id;
  return (
    <>
      <div aria-live="polite">
        <Title order={1}>{jobTitle(job, view.nameOf)}</Title>
      </div>
      <Text className={classes.why}>{jobWords[job.kind].why}</Text>
      {byOther && <Text className="faint">{view.nameOf(personId)} has it in hand; whoever ends it, it counts.</Text>}
      {waits ? (
        <Text size="lg">
          It waits for: {waitsFor(state, view).join(', ')}. Take something else from the list below, or help there.
        </Text>
      ) : (
        <>
          <Cautions dangers={dangersAt(job.kind, view.morning.detergent)} personId={session.person.id} />
          <div className={classes.step} onPointerUpCapture={take}>
            <StepPanel state={state} view={view} session={session} write={write} />
          </div>
        </>
      )}
    </>
  );
}

function waitsFor({ job }: JobState, view: MorningView): string[] {
  return view.states
    .filter(({ job: { key }, standing }) => job.needs.includes(key) && standing !== 'done' && standing !== 'skipped')
    .slice(0, 3)
    .map((state) => jobTitle(state.job, view.nameOf));
}
