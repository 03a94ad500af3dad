import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import type { RunKind } from '@tempera/core/facts';
import type { JobState } from '@tempera/core/opening';
import { useEffect, useRef, type RefObject } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useWriteStep } from '../kernel/facts.tsx';
import { useAwake } from '../kernel/senses.ts';
import { CurrentStep } from './CurrentStep.tsx';
import { JobList } from './JobList.tsx';
import { nextThingsOf } from './nextThingsOf.ts';
import classes from './Opening.module.css';
import { RunBeside } from './RunBeside.tsx';
import { RunHead } from './RunHead.tsx';
import { signatureOf } from './signature.ts';
import { useCurrentThing } from './useCurrentThing.ts';
import type { MorningView } from './useMorning.ts';
import { runName } from '../journal/index.ts';

interface RunProps {
  view: MorningView;
  session: Session;
  /** It was begun or planned anew on this very page. */
  justPlanned: boolean;
  onPlan: () => void;
  /** Begins another run once this one is signed for. */
  onAnother: () => void;
}

/** The run of a planned morning: one step on the page, what stands beside it, and all jobs below. */
export function Run({ view, session, justPlanned, onPlan, onAnother }: RunProps) {
  const write = useWriteStep();
  useAwake(true);
  const card = useRef<HTMLElement>(null);
  const [params, setParams] = useSearchParams();
  const chosen = params.get('job');
  const open = (key: string | null): void => {
    setParams(key === null ? {} : { job: key });
  };
  const mine = nextThingsOf(view, session.person.id);
  const picked = view.states.find(({ job }) => job.key === chosen);
  const isOpen = picked && (picked.standing === 'ready' || picked.standing === 'underWay');
  const current = useCurrentThing(view, session.person.id, isOpen ? picked : null);
  const currentKey = current?.job.key ?? null;
  // The step stands in view, whichever line of the list was tapped, and however far down the last one ended.
  const before = useRef(justPlanned ? 'plan' : currentKey);
  useEffect(() => {
    // Whoever works by keyboard goes on where the next step begins: the button that ended the last one is gone.
    const isNext = before.current !== null && before.current !== currentKey;
    before.current = currentKey;
    if (isNext && document.activeElement === document.body) card.current?.focus({ preventScroll: true });
    const frame = bringIntoView(card);
    return () => cancelAnimationFrame(frame);
  }, [currentKey, chosen]);
  const then = mine.filter(({ state }) => state.job.key !== current?.job.key).slice(0, 2);
  const undo = (state: JobState): void => {
    if (state.factId !== null) write({ step: 'takenBack', machineId: null, readings: [], takesBack: state.factId });
  };
  const over = view.states.filter(({ standing }) => standing === 'done' || standing === 'skipped').length;
  const signed = signatureOf(view) !== null;
  return (
    <div className={classes.page}>
      <RunHead view={view} session={session} over={over} onPlan={onPlan} />
      <div className={classes.run}>
        <section ref={card} tabIndex={-1} className={`sheet ${classes.now}`} aria-label="Your next thing">
          {signed || !current ? (
            <Over signed={signed} view={view} onAnother={onAnother} />
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
        {signed ? (
          <RunBeside view={view} current={null} then={[]} personId={null} />
        ) : (
          <RunBeside view={view} current={current} then={then} personId={session.person.id} />
        )}
      </div>
      <JobList
        view={view}
        timeZone={session.site.timeZone}
        onOpen={(key) => {
          open(key);
          // The line of the step in hand changes nothing but where the page stands.
          bringIntoView(card);
        }}
        onUndo={undo}
        head={session.person.role === 'head'}
      />
    </div>
  );
}

/** Where it stands is measured as the frame is laid out, and not before: once more costs a tablet a tenth of a second. @returns the frame asked for */
const bringIntoView = (card: RefObject<HTMLElement | null>): number =>
  requestAnimationFrame(() => {
    if ((card.current?.getBoundingClientRect().top ?? 0) < 0) card.current?.scrollIntoView({ block: 'start' });
  });

const goesOn = 'What is set stands on the wall card. Later in the day the grinders in use can be gone over once more.';
const afterwards: Record<RunKind, string> = {
  opening: goesOn,
  afternoon: goesOn,
  station: goesOn,
  closing: 'Whoever opens finds what was left and what to begin with.',
};

/** Nothing is left: for this person, or, once it is signed, for all. */
function Over({ signed, view, onAnother }: { signed: boolean; view: MorningView; onAnother: () => void }) {
  if (!signed) return <Title order={1}>Nothing left for you</Title>;
  return (
    <Stack>
      <Title order={1}>
        {view.morning.run === 'opening'
          ? 'Signed off: the bar is open'
          : view.morning.run === 'closing'
            ? 'Signed off: the bar is closed'
            : `Signed off: ${runName[view.morning.run]} is over`}
      </Title>
      <Text>{afterwards[view.morning.run]}</Text>
      <Group>
        <Button component={Link} to="/" size="xl">
          To the bar
        </Button>
        <Button component={Link} to="/house/wall" size="xl" variant="default">
          The wall card
        </Button>
        <Button size="xl" variant="default" onClick={onAnother}>
          Begin another run
        </Button>
      </Group>
    </Stack>
  );
}
