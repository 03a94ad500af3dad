import { Text } from '@mantine/core';
import type { DayTold } from '@tempera/contract/day';
import { sum } from '@tempera/core/numbers';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { call } from '../kernel/api.ts';
import { dateWord } from '../kernel/format.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import classes from './Day.module.css';
import { dayChangesWord, dayDosesWord, dayInsideWord, dayTimesWord, dosesWord } from './daysWords.ts';
import { capabilityWord } from './historyWords.ts';
import { LinesTable } from './LinesTable.tsx';

const DaysChart = lazy(() => import('./DaysChart.tsx'));

/** Two years of a grinder, day by day: which of a thousand shots it was is no question any more. */
export function DaysOfGrinder({ grinderId }: { grinderId: string }) {
  const { data, error, refetch } = useQuery({
    queryKey: ['day', 'summaries', grinderId],
    queryFn: () => call('GET /day/summaries', { query: { grinderId } }),
    staleTime: 300_000,
  });
  if (!data) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="its days" />;
  if (data.days.length === 0) return <Empty>No shot of it was timed in two years.</Empty>;
  return <Days days={data.days} />;
}

function Days({ days }: { days: readonly DayTold[] }) {
  const total = (pick: 'inside' | 'timed' | 'doses' | 'dosesInside'): number => sum(days.map((day) => day[pick]));
  const doses = total('doses');
  const offG = sum(days.map((day) => (day.doseOffG ?? 0) * day.doses)) / Math.max(1, doses);
  return (
    <>
      <Text>
        {capabilityWord({ inside: total('inside'), of: total('timed') }, `since ${dateWord(days[0]?.day ?? '')}`)}{' '}
        {doses > 0 && dosesWord(total('dosesInside'), doses, offG)}
      </Text>
      <section className={`sheet ${classes.chart}`} aria-label="Days over time">
        <Suspense fallback={<Text className="faint">Drawing…</Text>}>
          <PanelBoundary what="The chart">
            <DaysChart days={days} />
          </PanelBoundary>
        </Suspense>
      </section>
      <LinesTable
        label="Its days, newest first"
        head={['Day', 'Shots', 'Inside', 'Doses inside', 'Changed']}
        lines={days.toReversed().map((day) => ({
          id: day.day,
          cells: [
            dateWord(day.day),
            dayTimesWord(day, days),
            dayInsideWord(day),
            dayDosesWord(day),
            dayChangesWord(day),
          ],
        }))}
      />
    </>
  );
}
