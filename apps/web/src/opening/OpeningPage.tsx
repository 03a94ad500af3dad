import { Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { runKinds, stepsOf } from '@tempera/core/facts';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useWriteStep } from '../kernel/facts.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { BeginAnew } from './BeginAnew.tsx';
import { PlanRun } from './PlanRun.tsx';
import { Run } from './Run.tsx';
import { signatureOf } from './signature.ts';
import { useMorning } from './useMorning.ts';

/** A run over the bar: for each person the next thing, and the two after it. */
export function OpeningPage({ session }: { session: Session }) {
  const { bar, people, view, nowMs, facts, nameOf, error, retry } = useMorning(session);
  const write = useWriteStep();
  const [asked, setAsked] = useState<'change' | 'another' | null>(null);
  const [justPlanned, setJustPlanned] = useState(false);
  const [params, setParams] = useSearchParams();
  if (!bar) return error ? <Failed error={error} onRetry={retry} /> : <Loading what="the opening" />;
  const inHand = view ? (stepsOf(facts, 'planned').at(-1)?.body ?? null) : null;
  // The way here may name a run: it is begun beside whatever else is in hand, unless it is under way itself.
  const wanted = runKinds.find((run) => run === params.get('run')) ?? null;
  const isOver = view !== null && signatureOf(view) !== null;
  const isWanted = wanted !== null && (isOver || (inHand?.run ?? 'opening') !== wanted);
  const planning = asked ?? (isWanted ? 'another' : null);
  const planned = planning === 'another' ? null : inHand;
  const setPlanning = (next: typeof asked): void => {
    setAsked(next);
    setParams({}, { replace: true });
  };
  if (view && planning === null) {
    return (
      <Run
        view={view}
        session={session}
        justPlanned={justPlanned}
        onPlan={() => setPlanning('change')}
        onAnother={() => setPlanning('another')}
      />
    );
  }
  return (
    <>
      <Title order={1} className="visually-hidden">
        Opening
      </Title>
      <PlanRun
        key={`${planning ?? 'begin'} ${wanted}`}
        wanted={wanted}
        session={session}
        people={people}
        grinders={bar.grinders}
        facts={facts}
        nowMs={nowMs}
        nameOf={nameOf}
        planned={planned}
        onPlan={(body) => {
          write(body);
          setJustPlanned(true);
          setPlanning(null);
        }}
      />
      {view && <BeginAnew view={view} session={session} planned={planned} onDone={() => setPlanning(null)} />}
    </>
  );
}
