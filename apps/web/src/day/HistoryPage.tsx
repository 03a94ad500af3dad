import { Stack, Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { GrinderHistory } from '@tempera/contract/day';
import type { Session } from '@tempera/contract/team';
import { windowMiddleS } from '@tempera/core/calibration';
import { pumpWindowS } from '@tempera/core/house';
import { mean } from '@tempera/core/numbers';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { call } from '../kernel/api.ts';
import { memoryOf } from '../kernel/barMemory.ts';
import { dayWord, moment } from '../kernel/format.ts';
import { usePeople } from '../team/index.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './Day.module.css';
import { DaysOfGrinder } from './DaysOfGrinder.tsx';
import { dosesWord } from './daysWords.ts';
import { capabilityWord, habitWord, handsWord, historyLines, spreadWord } from './historyWords.ts';
import { LinesTable } from './LinesTable.tsx';

const HistoryChart = lazy(() => import('./HistoryChart.tsx'));
const DosesChart = lazy(() => import('./DosesChart.tsx'));

/** Longer than a quarter it is told by days, not by shots. */
const YEARS = 'years';

const spans = [
  { value: '1', label: 'Today' },
  { value: '7', label: 'A week' },
  { value: '92', label: 'A quarter' },
  { value: YEARS, label: 'Two years' },
];

/** How a grinder ran: its shots against the window, what happened between them, and where the spread comes from. */
export function HistoryPage({ session }: { session: Session }) {
  const { grinderId } = useParams();
  const { data: bar, error: barError, refetch } = useBar();
  const [days, setDays] = useState('7');
  const grinder = bar?.grinders.find(({ id }) => id === grinderId) ?? bar?.grinders[0];
  const history = useQuery({
    queryKey: ['day', 'history', grinder?.id, days],
    queryFn: () => call('GET /day/history', { query: { grinderId: grinder?.id ?? '', days: Number(days) } }),
    enabled: grinder !== undefined && days !== YEARS,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
  if (!bar) return barError ? <Failed error={barError} onRetry={() => void refetch()} /> : <Loading what="the bar" />;
  if (!grinder) return <Empty>No grinder holds a coffee with a recipe yet.</Empty>;
  return (
    <Stack gap="md">
      <Title order={1}>How {grinder.name} ran</Title>
      <nav aria-label="Grinders" className={classes.grinders}>
        {bar.grinders.map(({ id, name }) => (
          <Link key={id} to={`/day/${id}`} aria-current={id === grinder.id ? 'page' : undefined}>
            {name}
          </Link>
        ))}
        <Link to="/day/mornings">The mornings</Link>
      </nav>
      <HabitOfDays bar={bar} grinder={grinder} />
      <OneOf label="How far back" options={spans} value={days} onChange={setDays} />
      {days === YEARS ? (
        <DaysOfGrinder grinderId={grinder.id} />
      ) : history.data ? (
        <History history={history.data} session={session} asked={spanWord[days] ?? ''} />
      ) : history.error ? (
        <Failed error={history.error} onRetry={() => void history.refetch()} />
      ) : (
        <Loading what="its shots" />
      )}
    </Stack>
  );
}

/** How it usually goes through its day, once its days say so. */
function HabitOfDays({ bar, grinder }: { bar: Bar; grinder: Bar['grinders'][number] }) {
  const facts = useStandingFacts();
  const habit = memoryOf(bar, facts).grinders[grinder.id]?.habit;
  const said = habit && habitWord(habit, windowMiddleS(pumpWindowS(grinder.recipe)));
  return said ? <Text>{said}</Text> : null;
}

const spanWord: Record<string, string> = { '1': 'today', '7': 'in a week', '92': 'in a quarter' };

function History({ history, session, asked }: { history: GrinderHistory; session: Session; asked: string }) {
  const people = usePeople();
  const nowMs = useNow();
  const { shots, split, capability, doses, cutAt } = history;
  const since = cutAt === null ? asked : `since ${dayWord(cutAt)}`;
  if (shots.length === 0) return <Empty>No shot of it was timed {since}.</Empty>;
  const nameOf = (id: string): string => people.find((person) => person.id === id)?.name ?? 'somebody';
  return (
    <>
      <Text>
        {capabilityWord(capability, since)} {split && spreadWord(split)}
      </Text>
      {cutAt !== null && (
        <Text className="faint">
          So many shots are told one by one from {dayWord(cutAt)} on; the two years tell the days before.
        </Text>
      )}
      {split && split.hands.length > 0 && (
        <section aria-label="Hands">
          {split.hands.map((hands) => (
            <Text key={hands.personId}>
              {handsWord(hands, hands.personId === session.person.id ? 'You' : nameOf(hands.personId), shots)}
            </Text>
          ))}
          <Text className="faint">
            {session.person.role === 'head'
              ? 'A head barista sees everybody here; all others see themselves.'
              : 'Only you and a head barista see this line.'}{' '}
            It is to learn from: hands differ, and a bar serves best when it knows.
          </Text>
        </section>
      )}
      <section className={`sheet ${classes.chart}`} aria-label="Shots over time">
        <Suspense fallback={<Text className="faint">Drawing…</Text>}>
          <PanelBoundary what="The chart">
            <HistoryChart history={history} timeZone={session.site.timeZone} />
          </PanelBoundary>
        </Suspense>
      </section>
      {doses.length > 0 && <Doses doses={doses} timeZone={session.site.timeZone} />}
      <LinesTable
        label="Its shots, newest first"
        head={['When', 'What', 'Beside']}
        lines={historyLines(history, nameOf).map(({ id, atMs, says, more }) => ({
          id,
          cells: [moment(atMs, session.site.timeZone, nowMs), says, more],
        }))}
      />
    </>
  );
}

/** Doses on the scale, each by how far off it was. */
function Doses({ doses, timeZone }: { doses: GrinderHistory['doses']; timeZone: string }) {
  const inside = doses.filter((dose) => dose.inside).length;
  return (
    <section aria-label="Doses">
      <Text mb="xs">{dosesWord(inside, doses.length, mean(doses.map(({ doseG, aimG }) => doseG - aimG)))}</Text>
      <div className={`sheet ${classes.doses}`}>
        <Suspense fallback={<Text className="faint">Drawing…</Text>}>
          <PanelBoundary what="The chart">
            <DosesChart doses={doses} timeZone={timeZone} />
          </PanelBoundary>
        </Suspense>
      </div>
    </section>
  );
}
