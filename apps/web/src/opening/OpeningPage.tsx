import { Button, Group, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { stepsOf } from '@tempera/core/facts';
import { useState } from 'react';
import { useWriteStep } from '../kernel/facts.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { PlanMorning } from './PlanMorning.tsx';
import { Run } from './Run.tsx';
import { useMorning } from './useMorning.ts';

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
  return <Run view={view} session={session} onPlan={() => setPlanning(true)} />;
}
