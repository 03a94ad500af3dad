import { Button, Stack, Text, Title } from '@mantine/core';
import type { GrinderHistory } from '@tempera/contract/day';
import type { Session } from '@tempera/contract/team';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useBar } from '../bar/index.ts';
import { happeningWord } from '../journal/index.ts';
import { call } from '../kernel/api.ts';
import { dialNumber, moment, seconds } from '../kernel/format.ts';
import { usePeople } from '../team/index.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './Day.module.css';
import { capabilityWord, handsWord, spreadWord } from './historyWords.ts';

const HistoryChart = lazy(() => import('./HistoryChart.tsx'));

const spans = [
  { value: '1', label: 'Today' },
  { value: '7', label: 'A week' },
  { value: '92', label: 'A quarter' },
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
    enabled: grinder !== undefined,
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
      <OneOf label="How far back" options={spans} value={days} onChange={setDays} />
      {history.data ? (
        <History history={history.data} session={session} since={spanWord[days] ?? ''} />
      ) : history.error ? (
        <Failed error={history.error} onRetry={() => void history.refetch()} />
      ) : (
        <Loading what="its shots" />
      )}
    </Stack>
  );
}

const spanWord: Record<string, string> = { '1': 'today', '7': 'in a week', '92': 'in a quarter' };

function History({ history, session, since }: { history: GrinderHistory; session: Session; since: string }) {
  const people = usePeople();
  const { shots, split, capability } = history;
  if (shots.length === 0) return <Empty>No shot of it was timed {since}.</Empty>;
  const nameOf = (id: string): string => people.find((person) => person.id === id)?.name ?? 'somebody';
  return (
    <>
      <Text>
        {capabilityWord(capability, since)} {split && spreadWord(split)}
      </Text>
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
      <HistoryTable history={history} timeZone={session.site.timeZone} nameOf={nameOf} />
    </>
  );
}

interface Row {
  id: string;
  atMs: number;
  says: string;
  more: string;
}

function rowsOf({ shots, marks }: GrinderHistory, nameOf: (id: string) => string): Row[] {
  const ofShots = shots.map((shot): Row => ({
    id: shot.factId,
    atMs: shot.atMs,
    says: `${seconds(shot.timeS)} at ${dialNumber(shot.setting)}, ${shot.inside ? 'inside' : shot.timeS < shot.lowS ? 'fast' : 'slow'}`,
    more: [shot.service ? 'in service' : 'dialling in', shot.personId === null ? '' : nameOf(shot.personId)]
      .filter(Boolean)
      .join(', '),
  }));
  const ofMarks = marks.map(({ atMs, what, from, to }, i): Row => ({
    id: `mark ${atMs} ${i}`,
    atMs,
    says:
      what === 'move'
        ? `Collar from ${dialNumber(from ?? 0)} to ${dialNumber(to ?? 0)}`
        : what === 'bag'
          ? 'Another bag'
          : happeningWord[what],
    more: '',
  }));
  return [...ofShots, ...ofMarks].toSorted((a, b) => b.atMs - a.atMs);
}

/** The same as the chart, for those who read. */
function HistoryTable({
  history,
  timeZone,
  nameOf,
}: {
  history: GrinderHistory;
  timeZone: string;
  nameOf: (id: string) => string;
}) {
  const nowMs = useNow();
  const [all, setAll] = useState(false);
  const rows = rowsOf(history, nameOf);
  const shown = all ? rows : rows.slice(0, FIRST_ROWS);
  return (
    <section aria-label="Its shots, newest first">
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">What</th>
            <th scope="col">Beside</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ id, atMs, says, more }) => (
            <tr key={id}>
              <td>{moment(atMs, timeZone, nowMs)}</td>
              <td>{says}</td>
              <td>{more}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > shown.length && (
        <Button variant="default" mih={48} mt="sm" onClick={() => setAll(true)}>
          All {rows.length} lines
        </Button>
      )}
    </section>
  );
}
const FIRST_ROWS = 30;
