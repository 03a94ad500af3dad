import { Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { Link } from 'react-router';
import { keepsHouse, useSheets } from '../kernel/sheets.ts';
import { useRecipesInForce } from '../house/index.ts';
import classes from './FirstThings.module.css';
import { useStock } from './queries.ts';

/** What a new bar needs before anything can be dialled in, in an order in which each thing finds what it asks for. */
export function FirstThings({ bar, session }: { bar: Bar; session: Session }) {
  const { data: baskets } = useSheets('basket');
  const { data: coffees } = useSheets('coffee');
  const { data: stock } = useStock();
  const { data: recipes } = useRecipesInForce();
  if (!keepsHouse(session)) {
    return <Text className="sheet">No grinder can be dialled in yet. A head barista sets the bar up first.</Text>;
  }
  const some = (list: readonly unknown[] | undefined): boolean => (list?.length ?? 0) > 0;
  const steps = [
    { to: '/bar/counter/new', does: 'Add the counter', done: some(bar.counters) },
    { to: '/bar/machine/new', does: 'Add the machine', done: some(bar.machines) },
    { to: '/bar/basket/new', does: 'Add the basket', done: some(baskets) },
    { to: '/bar/group/new', does: 'Add its group heads', done: bar.machines.some(({ groups }) => some(groups)) },
    { to: '/bar/grinder/new', does: 'Add a grinder', done: some(bar.waiting) },
    { to: '/house/recipes/new', does: 'Write its recipe', done: some(recipes) },
    { to: '/coffee/coffees/new', does: 'Add its coffee', done: some(coffees) },
    { to: '/coffee/bags/new', does: 'Take a bag in', done: some(stock?.bags) },
  ];
  const [waiting] = bar.waiting;
  const next = steps.find(({ done }) => !done);
  return (
    <section className={`sheet ${classes.first}`} aria-label="Next thing to do">
      <Title order={1}>Set the bar up</Title>
      <ol>
        {steps.map(({ to, does, done }) => (
          <li key={to} data-done={done} data-next={to === next?.to}>
            <Link to={to}>{does}</Link>
            {done && <span className="faint"> done; another one can be added</span>}
          </li>
        ))}
        <li data-next={!next}>
          {waiting && !next ? (
            <Link to={`/bar/grinder/${waiting.id}`}>Put the bag into {waiting.name}</Link>
          ) : (
            'Put the bag in, at the grinder'
          )}
        </li>
      </ol>
    </section>
  );
}
