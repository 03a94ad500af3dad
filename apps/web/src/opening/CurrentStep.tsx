import { Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { dangersAt, type JobState } from '@tempera/core/opening';
import { jobWords } from '../journal/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useRef, type MouseEvent } from 'react';
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
  const guard = useFingerGuard(job.key);
  const byOther = standing === 'underWay' && personId !== session.person.id;
  return (
    <>
      <div aria-live="polite">
        <Title order={1}>{jobTitle(job, view)}</Title>
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
          <div className={classes.step} onPointerUpCapture={take} {...guard}>
            <StepPanel state={state} view={view} session={session} write={write} />
          </div>
        </>
      )}
    </>
  );
}

/**
 * A tap belongs to the step it came down on. The second half of a double tap, and a finger that comes up when another step
 * has taken this one's place, do nothing: they would end what nobody has read.
 */
function useFingerGuard(key: string) {
  const downOn = useRef<string | null>(null);
  const first = useRef<string | null>(null);
  return {
    onPointerDownCapture: () => {
      downOn.current = key;
    },
    onClickCapture: (event: MouseEvent) => {
      const { detail } = event;
      // Keys have no finger.
      if (detail === 0) return;
      if (detail === 1) first.current = downOn.current;
      if (downOn.current !== key || (detail > 1 && first.current !== key)) {
        event.preventDefault();
        event.stopPropagation();
      }
    },
  };
}

function waitsFor({ job }: JobState, view: MorningView): string[] {
  return view.states
    .filter(({ job: { key }, standing }) => job.needs.includes(key) && standing !== 'done' && standing !== 'skipped')
    .slice(0, 3)
    .map((state) => jobTitle(state.job, view));
}
