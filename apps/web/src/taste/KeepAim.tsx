import { Button, Group, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { stepsOf, type StandingFacts } from '@tempera/core/facts';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import { aimChangesOf, aimKeptFor, DAYS_TO_A_VERSION, daysOfAim } from '@tempera/core/taste';
import { Link } from 'react-router';
import { changeDone } from '../journal/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { cupWord } from '../kernel/format.ts';
import { TakeBack } from './TakeBack.tsx';

interface Props {
  grinder: Grinder;
  facts: StandingFacts;
  session: Session;
  dayFromMs: number;
}

/** An aim ends with its day: whoever wants it tomorrow keeps it, and after some days it is the recipe's next version. */
export function KeepAim({ grinder, facts, session: { site, person }, dayFromMs }: Props) {
  const write = useWriteStep();
  const changes = aimChangesOf(facts, grinder.id, dayFromMs);
  if (changes.length === 0) return null;
  const from = aimKeptFor(facts, grinder.id, dayFromMs);
  const kept = stepsOf(facts, 'aimKept').findLast(
    ({ at, body }) => body.grinderId === grinder.id && Date.parse(at) >= dayFromMs,
  );
  const days = daysOfAim(facts, grinder.id, dayFromMs);
  const today = businessDay(dayFromMs, site.timeZone, site.dayStartsMin);
  const keep = (): void =>
    write({
      step: 'aimKept',
      grinderId: grinder.id,
      changes,
      holdsUntil: new Date(momentOf(addDays(today, 2), site.dayStartsMin, site.timeZone)).toISOString(),
      days: days + 1,
    });
  const { recipeId, doseG, yieldG, tempC, timeMinS, timeMaxS } = grinder.recipe;
  const why = `Tasted so on ${days} days running: ${changes.map(changeDone).join(', ')}`;
  return (
    <section aria-label="Today’s aim">
      {from && <Text>Kept from the day before: {from.body.changes.map(changeDone).join(', ')}.</Text>}
      {kept ? (
        <Group>
          <Text>It holds tomorrow too.</Text>
          <TakeBack stepIds={[kept.id]} />
        </Group>
      ) : (
        <Group>
          <Text>{cupWord(grinder.recipe)} ends with the day.</Text>
          <Button variant="default" mih={48} onClick={keep}>
            Keep it tomorrow
          </Button>
        </Group>
      )}
      {days >= DAYS_TO_A_VERSION && person.role === 'head' && (
        <Group>
          <Text>It has held {days} days running: it is what the recipe should say.</Text>
          <Button
            component={Link}
            mih={48}
            to={`/house/recipes/${recipeId}/edit`}
            state={{
              draft: { recipe: { doseG, yieldG, timeMinS, timeMaxS, ...(tempC === null ? {} : { tempC }) }, why },
            }}
          >
            Write the recipe’s next version
          </Button>
        </Group>
      )}
    </section>
  );
}
