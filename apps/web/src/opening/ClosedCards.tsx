import { Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { factsSince, stepsOf } from '@tempera/core/facts';
import { stepLine } from '../journal/index.ts';
import { clock, dayWord, grams } from '../kernel/format.ts';
import classes from './Opening.module.css';
import type { MorningView } from './useMorning.ts';

/** What a closing left behind: beans by weight, groups as they were flushed, and the next day. */
export function ClosedCards({ view, session }: { view: MorningView; session: Session }) {
  const since = factsSince(view.facts, view.morning.fromMs);
  const tubs = new Map(stepsOf(since, 'hopperEmptied').map(({ body }) => [body.grinderId, body.tubG]));
  const flushed = new Map(stepsOf(since, 'backFlushed').map(({ body }) => [body.groupId, body]));
  const tomorrow = stepsOf(since, 'tomorrow').at(-1)?.body ?? null;
  const { timeZone } = session.site;
  return (
    <div className={classes.signed}>
      <section aria-label="Beans" className="sheet">
        <Title order={2} size="h3">
          Beans in their tubs
        </Title>
        <ul className={classes.then}>
          {view.bar.grinders.map(({ id, name, coffee }) => (
            <li key={id}>
              {name}, {coffee}: {tubWord(tubs.get(id))}
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Groups" className="sheet">
        <Title order={2} size="h3">
          Groups
        </Title>
        <ul className={classes.then}>
          {view.bar.machines.flatMap(({ groups }) =>
            groups.map(({ id, name }) => {
              const body = flushed.get(id);
              return (
                <li key={id}>
                  {name}: {body ? stepLine(body).toLowerCase() : 'not flushed'}
                </li>
              );
            }),
          )}
        </ul>
      </section>
      <section aria-label="The next day" className="sheet">
        <Title order={2} size="h3">
          The next day
        </Title>
        {tomorrow === null ? (
          <Text>Not set yet.</Text>
        ) : (
          <Text>
            {tomorrow.opensAt === null
              ? 'The bar stays closed.'
              : `${dayWord(tomorrow.opensAt.slice(0, 10))} at ${clock(Date.parse(tomorrow.opensAt), timeZone)}${tomorrow.opensById ? `, ${view.nameOf(tomorrow.opensById)} opens` : ''}.`}{' '}
            {tomorrow.thawed.length > 0 && `${tomorrow.thawed.length} out of the freezer.`}
          </Text>
        )}
      </section>
    </div>
  );
}

function tubWord(tubG: number | null | undefined): string {
  if (tubG === undefined) return 'still in the hopper';
  return tubG === null ? 'in its tub, not weighed' : grams(tubG);
}
