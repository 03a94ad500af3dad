import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { Button, Group, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import type { RunKind } from '@tempera/core/facts';
import type { PlannedTask } from '@tempera/core/opening';
import { Link } from 'react-router';
import { runName } from '../journal/index.ts';
import { clock, percent } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import classes from './Opening.module.css';
import { ReadyLine } from './ReadyLine.tsx';
import { signatureOf } from './signature.ts';
import { useMorning, type MorningView } from './useMorning.ts';
import { jobTitle, shortTitle } from './words.ts';

const TICK_MIN = 10;
const FAR_AHEAD = 1.4;
/** Shorter ones bear a short name, and the shortest bear it upright. */
const LONG_MIN = 4;
const WIDE_MIN = 2;

const planOf: Record<RunKind, string> = { ...runName, opening: 'the morning' };

/** A run as a timeline, by person and by station. */
export function TimelinePage({ session }: { session: Session }) {
  const { bar, view, error, retry } = useMorning(session);
  if (!bar) return error ? <Failed error={error} onRetry={retry} /> : <Loading what="the plan" />;
  return (
    <>
      <Group justify="space-between" mb="sm">
        <Title order={1}>The plan of {view ? planOf[view.morning.run] : 'the morning'}</Title>
        <Button component={Link} to="/opening" size="lg">
          To the next thing
        </Button>
      </Group>
      {!view ? (
        <Empty>No opening is planned. Go to the next thing and begin one.</Empty>
      ) : (
        <>
          <ReadyLine view={view} session={session} />
          {view.plan && signatureOf(view) === null && (
            <>
              <Facts view={view} timeZone={session.site.timeZone} />
              <Timeline view={view} timeZone={session.site.timeZone} />
            </>
          )}
        </>
      )}
    </>
  );
}

function Facts({ view, timeZone }: { view: MorningView; timeZone: string }) {
  const { plan } = view;
  if (!plan) return null;
  const at = (minutes: number): string => clock(plan.nowMs + minutes * MS_PER_MINUTE, timeZone);
  const { gap, atLeastMin, tasks } = plan.plan;
  if (tasks.length === 0) return null;
  return (
    <Text className="faint" mb="sm">
      Eight of ten such runs end between {at(plan.ready.lowMin)} and {at(plan.ready.highMin)}.{' '}
      {gap === 0
        ? 'Nobody could plan it shorter.'
        : `The best plan so far; none can end before ${at(atLeastMin)} (${percent(gap)} is not proven).`}{' '}
      {plan.switchesLeft &&
        (plan.latestSwitchOnMin === null
          ? 'Even switched on now it may not be ready in time.'
          : `Switch on by ${at(plan.latestSwitchOnMin)} at the latest.`)}
    </Text>
  );
}

interface Row {
  id: string;
  name: string;
  tasks: PlannedTask[];
}

function Timeline({ view, timeZone }: { view: MorningView; timeZone: string }) {
  const { plan, states } = view;
  if (!plan) return null;
  const jobs = new Map(states.map(({ job }) => [job.key, job]));
  const { tasks } = plan.plan;
  const opensMin = (view.morning.opensAtMs - plan.nowMs) / MS_PER_MINUTE;
  const workMin = Math.max(plan.ready.highMin, plan.plan.endMin, TICK_MIN) + 2;
  // The opening is drawn unless it lies so far ahead that the work would shrink to a corner.
  const endMin = opensMin <= FAR_AHEAD * workMin ? Math.max(workMin, opensMin + 2) : workMin;
  const nowMin = Math.max(0, (view.nowMs - plan.nowMs) / MS_PER_MINUTE);
  const at = (minutes: number): string => `${(100 * minutes) / endMin}%`;
  const people: Row[] = view.morning.people.map(({ personId }) => ({
    id: personId,
    name: view.nameOf(personId),
    tasks: tasks.filter((task) => task.personId === personId),
  }));
  const places = [...view.bar.machines, ...view.bar.machines.flatMap(({ groups }) => groups), ...view.bar.grinders];
  const stations: Row[] = places
    .map(({ id, name }) => ({ id, name, tasks: tasks.filter(({ key }) => jobs.get(key)?.uses.includes(id)) }))
    .filter((row) => row.tasks.length > 0);
  const ticks = Array.from({ length: Math.floor(endMin / TICK_MIN) + 1 }, (_, i) => i * TICK_MIN);
  return (
    <div className={classes.timeline}>
      <div className={classes.ticks} aria-hidden="true">
        {ticks.map((minutes) => (
          <span key={minutes} style={{ left: at(minutes) }}>
            {clock(plan.nowMs + minutes * MS_PER_MINUTE, timeZone)}
          </span>
        ))}
      </div>
      {[
        { title: 'People', rows: people },
        { title: 'Stations', rows: stations },
      ].map(({ title, rows }) => (
        <section key={title} aria-label={title}>
          <Title order={2} size="h4">
            {title}
          </Title>
          {rows.map((row) => (
            <div key={row.id} className={classes.lane} data-lane={title}>
              <span className={classes.laneName}>{row.name}</span>
              <ol className={classes.track}>
                <li className={classes.nowLine} style={{ left: at(nowMin) }} aria-hidden="true" />
                {opensMin > 0 && opensMin < endMin && (
                  <li className={classes.opensLine} style={{ left: at(opensMin) }} aria-hidden="true" />
                )}
                {row.tasks.map((task) => {
                  const job = jobs.get(task.key);
                  const name = job ? jobTitle(job, view) : task.key;
                  const when = `${clock(plan.nowMs + task.startMin * MS_PER_MINUTE, timeZone)} to ${clock(plan.nowMs + task.endMin * MS_PER_MINUTE, timeZone)}`;
                  return (
                    <li
                      key={task.key}
                      className={classes.task}
                      data-upright={task.endMin - task.startMin < WIDE_MIN}
                      style={{ left: at(task.startMin), width: at(task.endMin - task.startMin) }}
                      title={`${name}, ${when}`}
                    >
                      <span className="visually-hidden">{when}: </span>
                      {job && task.endMin - task.startMin < LONG_MIN
                        ? shortTitle(job, view, title === 'Stations')
                        : name}
                    </li>
                  );
                })}
              </ol>
            </div>
          ))}
        </section>
      ))}
      <Text className="faint">The dashed line is the opening, the full one is now.</Text>
    </div>
  );
}
