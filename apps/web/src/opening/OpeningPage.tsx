import { Button, Group, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { stepsOf, type StepOf } from '@tempera/core/facts';
import { dangersAt, may, nextThings, rightsOf, type Job, type JobState, type NextThing } from '@tempera/core/opening';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { simulatedAir } from '../capture/index.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { useWriteStep } from '../kernel/facts.tsx';
import { useWelcome } from '../team/index.ts';
import { clock, degrees } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { Cautions } from './CautionLine.tsx';
import { JobList } from './JobList.tsx';
import classes from './Opening.module.css';
import { PlanMorning } from './PlanMorning.tsx';
import { ReadyLine } from './ReadyLine.tsx';
import { StationMap } from './StationMap.tsx';
import { jobSteps, StepPanel } from './StepPanel.tsx';
import { useMorning, type MorningView } from './useMorning.ts';
import { jobTitle } from './words.ts';

/** The morning's run: for each person the next thing, and the two after it. */
export function OpeningPage({ session }: { session: Session }) {
  const { bar, people, view, nowMs, facts, error, retry } = useMorning(session);
  const write = useWriteStep();
  const [planning, setPlanning] = useState(false);
  if (!bar) return error ? <Failed error={error} onRetry={retry} /> : <Loading what="the opening" />;
  const planned = stepsOf(facts, 'planned').at(-1)?.body ?? null;
  if (!view || planning) {
    return (
      <>
        <Title order={1} className="visually-hidden">
          Opening
        </Title>
        <PlanMorning
          key={planning ? 'change' : 'begin'}
          session={session}
          people={people}
          nowMs={nowMs}
          planned={view ? planned : null}
          onPlan={(body) => {
            write(body);
            setPlanning(false);
          }}
        />
        {view && (
          <Group mt="sm">
            <Button variant="default" onClick={() => setPlanning(false)}>
              Leave it as it is
            </Button>
            <Button
              variant="subtle"
              color="umber"
              onClick={() => {
                if (planned) write({ ...planned, from: new Date().toISOString() });
                setPlanning(false);
              }}
            >
              Begin it all over again
            </Button>
          </Group>
        )}
      </>
    );
  }
  return <Run view={view} session={session} planned={planned} onPlan={() => setPlanning(true)} />;
}

function Run({
  view,
  session,
  onPlan,
}: {
  view: MorningView;
  session: Session;
  planned: StepOf<'planned'> | null;
  onPlan: () => void;
}) {
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
      <Head view={view} session={session} over={over} onPlan={onPlan} />
      <div className={classes.run}>
        <section className={`sheet ${classes.now}`} aria-label="Your next thing">
          {signed || !current ? (
            <Title order={1}>{signed ? 'Signed off: the bar is open' : nothingWord(view)}</Title>
          ) : (
            <Current
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
        <Beside view={view} current={current} then={then} personId={session.person.id} />
      </div>
      <JobList view={view} timeZone={session.site.timeZone} onOpen={open} onUndo={undo} />
    </>
  );
}

const nothingWord = ({ plan }: MorningView): string =>
  plan ? 'Nothing left for you' : 'One moment: the morning is planned';

interface HeadProps {
  view: MorningView;
  session: Session;
  over: number;
  onPlan: () => void;
}

/** How far the morning is, whether it will be ready, and the ways out of the step. */
function Head({ view, session, over, onPlan }: HeadProps) {
  return (
    <div className={classes.head}>
      <div>
        <Text className="faint">
          Opening at {clock(view.morning.opensAtMs, session.site.timeZone)}, {over} of {view.states.length} done
          <Air siteId={session.site.id} nowMs={view.nowMs} />
        </Text>
        <ReadyLine view={view} session={session} />
      </div>
      <Group gap="xs">
        <Button component={Link} to="/opening/plan" variant="default">
          The plan
        </Button>
        <Button component={Link} to="/opening/sign-off" variant="default">
          Sign-off
        </Button>
        <Button variant="default" onClick={onPlan}>
          Change
        </Button>
      </Group>
    </div>
  );
}

interface BesideProps {
  view: MorningView;
  current: JobState | null;
  then: readonly NextThing[];
  personId: string;
}

/** Where it is, what comes then, and what the others do. */
function Beside({ view, current, then, personId }: BesideProps) {
  return (
    <aside className={classes.beside}>
      <PanelBoundary what="The map">
        <StationMap view={view} job={current?.job ?? null} />
      </PanelBoundary>
      {then.length > 0 && (
        <section aria-label="Then">
          <Text className="faint">Then</Text>
          <ol className={classes.then}>
            {then.map(({ state }) => (
              <li key={state.job.key}>{jobTitle(state.job, view.nameOf)}</li>
            ))}
          </ol>
        </section>
      )}
      {view.plan && <Others view={view} personId={personId} />}
    </aside>
  );
}

/** Which jobs a person of the café may do. */
function jobsFor(view: MorningView, personId: string): (job: Job) => boolean {
  const rights = rightsOf(view.people.find(({ id }) => id === personId)?.role ?? 'office');
  return ({ who }) => may(rights, who);
}

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

function Current({
  state,
  view,
  session,
  write,
}: {
  state: JobState;
  view: MorningView;
  session: Session;
  write: (body: Parameters<ReturnType<typeof useWriteStep>>[0]) => void;
}) {
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
      <Text className={classes.why}>{jobSteps[job.kind].why}</Text>
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

/** What everybody else does now. */
function Others({ view, personId }: { view: MorningView; personId: string }) {
  const others = view.morning.people.filter((person) => person.personId !== personId);
  if (others.length === 0) return null;
  return (
    <section aria-label="The others">
      <Text className="faint">The others</Text>
      <ul className={classes.then}>
        {others.map(({ personId: id }) => {
          const [next] = nextThings(view.states, view.plan?.plan.tasks ?? [], id, jobsFor(view, id));
          return (
            <li key={id}>
              {view.nameOf(id)}: {next ? jobTitle(next.state.job, view.nameOf) : 'nothing left'}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The room's air, by the simulated stand-in of the demo. */
function Air({ siteId, nowMs }: { siteId: string; nowMs: number }) {
  const { data: welcome } = useWelcome();
  if (!welcome?.demo) return null;
  const { tempC, humidityPct } = simulatedAir(siteId, nowMs);
  return (
    <>
      , air {degrees(tempC)} and {humidityPct} % damp
    </>
  );
}
