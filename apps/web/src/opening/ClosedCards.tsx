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
      <Listed
        title="Beans in their tubs"
        lines={view.bar.grinders.map(({ id, name, coffee }) => `${name}, ${coffee}: ${tubWord(tubs.get(id))}`)}
      />
      <Listed
        title="Groups"
        lines={view.bar.machines
          .flatMap(({ groups }) => groups)
          .map(({ id, name }) => {
            const body = flushed.get(id);
            return `${name}: ${body ? stepLine(body).toLowerCase() : 'not flushed'}`;
          })}
      />
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

/** What a bar has none of is not listed. */
function Listed({ title, lines }: { title: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label={title} className="sheet">
      <Title order={2} size="h3">
        {title}
      </Title>
      <ul className={classes.then}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}

function tubWord(tubG: number | null | undefined): string {
  if (tubG === undefined) return 'still in the hopper';
  return tubG === null ? 'in its tub, not weighed' : grams(tubG);
}
