import { Text } from '@mantine/core';
import type { JobState, NextThing } from '@tempera/core/opening';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { nextThingsOf } from './nextThingsOf.ts';
import classes from './Opening.module.css';
import { StationMap } from './StationMap.tsx';
import type { MorningView } from './useMorning.ts';
import { jobTitle } from './words.ts';

interface RunBesideProps {
  view: MorningView;
  current: JobState | null;
  then: readonly NextThing[];
  /** Who looks; null: it is signed for, and nobody has a next thing. */
  personId: string | null;
}

/** Where it is, what comes then, and what the others do. */
export function RunBeside({ view, current, then, personId }: RunBesideProps) {
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
              <li key={state.job.key}>{jobTitle(state.job, view)}</li>
            ))}
          </ol>
        </section>
      )}
      {personId !== null && <Others view={view} current={current} personId={personId} />}
    </aside>
  );
}

/** What everybody else does now. */
function Others({ view, current, personId }: Pick<RunBesideProps, 'view' | 'current'> & { personId: string }) {
  const others = view.morning.people.filter((person) => person.personId !== personId);
  if (others.length === 0) return null;
  return (
    <section aria-label="The others">
      <Text className="faint">The others</Text>
      <ul className={classes.then}>
        {others.map(({ personId: id }) => {
          // What stands before this person is nobody else's, whatever the plan said.
          const next = nextThingsOf(view, id).find(({ state }) => state.job.key !== current?.job.key);
          return (
            <li key={id}>
              {view.nameOf(id)}: {next ? jobTitle(next.state.job, view) : 'nothing left'}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
