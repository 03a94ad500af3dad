import { Button, Group, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { dayWord, kilograms } from '../kernel/format.ts';
import classes from './Coffee.module.css';
import type { DayAhead } from './useDayAhead.ts';
import { useThaw } from './useThaw.ts';

interface Props {
  session: Session;
  ahead: DayAhead;
}

/** What must leave the freezer tonight, each bag with the tap that says it is out; and what will be missing all the same. */
export function FreezerTonight({ session, ahead }: Props) {
  const thaw = useThaw(session);
  const out = ahead.coffees.flatMap(({ name, thaw: bags }) => bags.map((one) => ({ name, ...one })));
  const missing = ahead.coffees.filter(({ missingG }) => missingG > 0);
  if (out.length === 0 && missing.length === 0) return <Text>Nothing has to leave the freezer tonight.</Text>;
  return (
    <div>
      {out.length > 0 && <Text fw={600}>Out of the freezer tonight</Text>}
      <ul className={classes.ahead}>
        {out.map(({ id, name, bag, weightG }) => (
          <li key={id}>
            <Group justify="space-between">
              <Text>
                {name}, {kilograms(weightG)}, roasted {dayWord(bag.kept.sheet.roastedOn)}
                {bag.kept.sheet.label && `, ${bag.kept.sheet.label}`}
              </Text>
              <Button variant="default" mih={48} onClick={() => thaw(id)}>
                It is out
              </Button>
            </Group>
          </li>
        ))}
        {missing.map(({ coffeeId, name, missingG }) => (
          <li key={coffeeId}>
            {name}: about {kilograms(missingG)} will be missing. Order, or open what rests still.
          </li>
        ))}
      </ul>
    </div>
  );
}
