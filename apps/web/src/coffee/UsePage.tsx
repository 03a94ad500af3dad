import { Stack, Text, Title } from '@mantine/core';
import type { CoffeeUse } from '@tempera/contract/coffee';
import type { Session } from '@tempera/contract/team';
import { lazy, Suspense } from 'react';
import { nameIn, useBar } from '../bar/index.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { dayWord, grams, kilograms, money, percent } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import classes from './Coffee.module.css';
import { CoffeeTabs } from './CoffeeTabs.tsx';
import { useCoffeeUse } from './queries.ts';

const UseChart = lazy(() => import('./UseChart.tsx'));

/** What calibrating took against what was served: by day and grinder, in grams and money. */
export function UsePage(_props: { session: Session }) {
  const { data: use, error, refetch } = useCoffeeUse();
  const { data: bar } = useBar();
  if (!use || !bar)
    return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="what was used" />;
  const nameOf = (id: string): string => nameIn(bar, id) ?? 'out of use';
  const days = [...new Set(use.days.map(({ day }) => day))];
  return (
    <Stack gap="md">
      <CoffeeTabs />
      <div>
        <Title order={1}>What calibrating takes</Title>
        <Text className="faint">
          Served is worked out from the bags: what went through a hopper until the next bag went in, less what
          calibrating took.
        </Text>
      </div>
      {days.length === 0 ? (
        <Empty>Nothing was ground yet. The first dose that is weighed begins the count.</Empty>
      ) : (
        <>
          <ByGrinder use={use} nameOf={nameOf} />
          <section className={`sheet ${classes.chart}`} aria-label="Grams for calibrating, by day">
            <Suspense fallback={<Text className="faint">Drawing…</Text>}>
              <PanelBoundary what="The chart">
                <UseChart use={use} nameOf={nameOf} />
              </PanelBoundary>
            </Suspense>
          </section>
          <ByDay use={use} days={days} nameOf={nameOf} />
        </>
      )}
    </Stack>
  );
}

interface Sums {
  calibrationG: number;
  servedG: number | null;
  /** Of the calibrating, what fell on days of which it is known what was served: the two are compared. */
  besideServedG: number;
  cost: number | null;
}

const both = (a: number | null, b: number | null): number | null => (a === null || b === null ? null : a + b);

/** Sums over days. What was served counts where it is known; a cost of which a part is not known is not known. */
function sumOf(entries: CoffeeUse['days']): Sums {
  return entries.reduce<Sums>(
    (sum, entry) => ({
      calibrationG: sum.calibrationG + entry.calibrationG,
      servedG: entry.servedG === null ? sum.servedG : (sum.servedG ?? 0) + entry.servedG,
      besideServedG: sum.besideServedG + (entry.servedG === null ? 0 : entry.calibrationG),
      cost: both(sum.cost, entry.calibrationCost),
    }),
    { calibrationG: 0, servedG: null, besideServedG: 0, cost: 0 },
  );
}

const shareWord = ({ besideServedG, servedG }: Sums): string =>
  servedG === null || servedG + besideServedG === 0 ? '–' : percent(besideServedG / (servedG + besideServedG));

function ByGrinder({ use, nameOf }: { use: CoffeeUse; nameOf: (id: string) => string }) {
  const grinders = [...new Set(use.days.map(({ grinderId }) => grinderId))].toSorted((a, b) =>
    nameOf(a).localeCompare(nameOf(b)),
  );
  return (
    <table className={classes.use}>
      <caption>Four weeks, by grinder</caption>
      <thead>
        <tr>
          <th scope="col">Grinder</th>
          <th scope="col">For calibrating</th>
          <th scope="col">Served</th>
          <th scope="col">Share</th>
          <th scope="col">Cost</th>
        </tr>
      </thead>
      <tbody>
        {grinders.map((id) => {
          const sums = sumOf(use.days.filter(({ grinderId }) => grinderId === id));
          return (
            <tr key={id}>
              <th scope="row">{nameOf(id)}</th>
              <td>{kilograms(sums.calibrationG)}</td>
              <td>{sums.servedG === null ? 'not known' : kilograms(sums.servedG)}</td>
              <td>{shareWord(sums)}</td>
              <td>{sums.cost === null ? 'no price' : money(sums.cost, use.currency)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function ByDay({ use, days, nameOf }: { use: CoffeeUse; days: string[]; nameOf: (id: string) => string }) {
  return (
    <table className={classes.use}>
      <caption>By day</caption>
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">For calibrating</th>
          <th scope="col">Cost</th>
          <th scope="col">Share</th>
          <th scope="col">Most on</th>
        </tr>
      </thead>
      <tbody>
        {days.map((day) => {
          const own = use.days.filter((entry) => entry.day === day);
          const sums = sumOf(own);
          const most = own.toSorted((a, b) => b.calibrationG - a.calibrationG)[0];
          return (
            <tr key={day}>
              <th scope="row">{dayWord(day)}</th>
              <td>{grams(sums.calibrationG)}</td>
              <td>{sums.cost === null ? 'no price' : money(sums.cost, use.currency)}</td>
              <td>{shareWord(sums)}</td>
              <td>{most ? `${nameOf(most.grinderId)}, ${grams(most.calibrationG)}` : ''}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
