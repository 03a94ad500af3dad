import { Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { Link } from 'react-router';
import { keepsHouse } from '../kernel/sheets.ts';
import classes from './HomePage.module.css';

/** What a new bar needs before anything can be dialled in, in the order in which it is done. */
export function FirstThings({ bar, session }: { bar: Bar; session: Session }) {
  if (!keepsHouse(session)) {
    return <Text className="sheet">No grinder can be dialled in yet. A head barista sets the bar up first.</Text>;
  }
  const steps = [
    { to: '/bar/counter/new', does: 'Add the counter', done: bar.counters.length > 0 },
    { to: '/bar/machine/new', does: 'Add the machine', done: bar.machines.length > 0 },
    { to: '/bar/group/new', does: 'Add its group heads', done: bar.machines.some(({ groups }) => groups.length > 0) },
    { to: '/bar/basket/new', does: 'Add the basket', done: false },
    { to: '/bar/grinder/new', does: 'Add a grinder', done: bar.waiting.length > 0 },
    { to: '/house/recipes/new', does: 'Write its recipe', done: false },
    { to: '/coffee/coffees/new', does: 'Add its coffee', done: false },
    { to: '/coffee/bags/new', does: 'Take a bag in', done: false },
  ];
  return (
    <section className={`sheet ${classes.first}`} aria-label="Next thing to do">
      <Title order={1}>Set the bar up</Title>
      <ol>
        {steps.map(({ to, does, done }) => (
          <li key={to} data-done={done}>
            <Link to={to}>{does}</Link>
            {done && <span className="faint"> there is one</span>}
          </li>
        ))}
        <li>Then put the bag in: it waits on the plan, at the grinder.</li>
      </ol>
    </section>
  );
}
