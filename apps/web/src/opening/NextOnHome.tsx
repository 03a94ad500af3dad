import { Button } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { Link } from 'react-router';
import { jobWords, runName } from '../journal/index.ts';
import { NextThing } from '../ui/NextThing.tsx';
import { useCurrentThing } from './useCurrentThing.ts';
import { useMorning, type MorningView } from './useMorning.ts';
import { jobTitle } from './words.ts';

/** The next thing of the run in hand, on the home page: the very one that the run's own page shows. */
export function NextOnHome({ session }: { session: Session }) {
  const { view } = useMorning(session);
  return view ? <Next view={view} session={session} /> : <NextThing title="One moment" why="The run is read." />;
}

function Next({ view, session }: { view: MorningView; session: Session }) {
  const state = useCurrentThing(view, session.person.id);
  const job = state?.job;
  const run = runName[view.morning.run];
  return (
    <NextThing
      title={job ? jobTitle(job, view) : 'Nothing left for you'}
      why={job ? jobWords[job.kind].why : `What is left of ${run} goes on without you; it ends with the signature.`}
    >
      <Button component={Link} to="/opening" size="xl">
        To {run}
      </Button>
      {job?.kind === 'dial' && state?.standing !== 'waiting' && (
        <Button component={Link} to={`/bench/${job.stationId}/${job.withId}`} size="xl" variant="default">
          To the bench
        </Button>
      )}
    </NextThing>
  );
}
