import { Stack, Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { MorningTold } from '@tempera/contract/day';
import type { Session } from '@tempera/contract/team';
import { groupOf, knownOf, posterior, windowMiddleS } from '@tempera/core/calibration';
import { pumpWindowS } from '@tempera/core/house';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo } from 'react';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { memoryOf } from '../kernel/barMemory.ts';
import { clock, dayWord } from '../kernel/format.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './Day.module.css';
import { morningsRead } from './queries.ts';
import { earlyWord, groupWord, minutesOf, morningsWord } from './morningWords.ts';

const MorningsChart = lazy(() => import('./MorningsChart.tsx'));

/** How long the bar takes to be ready, morning by morning, and how its groups run against each other. */
export function MorningsPage({ session }: { session: Session }) {
  const { data, error, refetch } = useQuery({ ...morningsRead, staleTime: 300_000 });
  const { data: bar } = useBar();
  return (
    <Stack gap="md">
      <Title order={1}>How the mornings went</Title>
      {data ? (
        <Mornings mornings={data.mornings} timeZone={session.site.timeZone} />
      ) : error ? (
        <Failed error={error} onRetry={() => void refetch()} />
      ) : (
        <Loading what="the mornings" />
      )}
      {bar && <Groups bar={bar} />}
    </Stack>
  );
}

function Mornings({ mornings, timeZone }: { mornings: readonly MorningTold[]; timeZone: string }) {
  if (mornings.length === 0) return <Empty>No opening was signed for yet. The first one begins this list.</Empty>;
  return (
    <>
      <Text>{morningsWord(mornings)}</Text>
      <section className={`sheet ${classes.chart}`} aria-label="Minutes to ready">
        <Suspense fallback={<Text className="faint">Drawing…</Text>}>
          <PanelBoundary what="The chart">
            <MorningsChart mornings={mornings} />
          </PanelBoundary>
        </Suspense>
      </section>
      <section aria-label="Mornings, newest first">
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">Morning</th>
              <th scope="col">Begun</th>
              <th scope="col">Ready</th>
              <th scope="col">Took</th>
              <th scope="col">Doors</th>
            </tr>
          </thead>
          <tbody>
            {mornings.toReversed().map((morning) => (
              <tr key={morning.fromMs}>
                <th scope="row">{dayWord(morning.day)}</th>
                <td>{clock(morning.fromMs, timeZone)}</td>
                <td>{clock(morning.readyMs, timeZone)}</td>
                <td>{Math.round(minutesOf(morning))} min</td>
                <td>{earlyWord(morning)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

/** What a group adds to every shot through it, as the engine has learned it from the grinders that were pulled on several. */
function Groups({ bar }: { bar: Bar }) {
  const facts = useStandingFacts();
  const nowMs = useNow();
  const known = useMemo(() => posterior(memoryOf(bar, facts), nowMs), [bar, facts, nowMs]);
  const [first] = bar.grinders;
  const groups = bar.machines.flatMap((machine) => machine.groups);
  if (!first || groups.length < 2) return null;
  const middleS = windowMiddleS(pumpWindowS(first.recipe));
  return (
    <section aria-label="Groups against each other">
      <Title order={2} size="h3">
        Groups against each other
      </Title>
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">Group</th>
            <th scope="col">Runs</th>
          </tr>
        </thead>
        <tbody>
          {groups.map(({ id, name }) => {
            const effect = knownOf(known, groupOf(id));
            return (
              <tr key={id}>
                <th scope="row">{name}</th>
                <td>{effect ? groupWord(effect, middleS) : 'no shot of it is remembered'}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
