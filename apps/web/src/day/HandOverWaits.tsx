import { Button, Group, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { waitingHandOver } from '@tempera/core/day';
import { Link } from 'react-router';
import { useStandingFacts } from '../bar/index.ts';
import { moment } from '../kernel/format.ts';
import { usePeople } from '../team/index.ts';

/** A bar that somebody left to the next one is read first. */
export function HandOverWaits({ session, nowMs }: { session: Session; nowMs: number }) {
  const waits = waitingHandOver(useStandingFacts());
  const people = usePeople();
  if (!waits || waits.personId === session.person.id) return null;
  const name = people.find(({ id }) => id === waits.personId)?.name ?? 'Somebody';
  return (
    <Group className="sheet" mb="md" role="status" justify="space-between">
      <Text>
        {name} left the bar {moment(Date.parse(waits.at), session.site.timeZone, nowMs)}: read how it stands, and take
        it over.
      </Text>
      <Button component={Link} to="/day/handover" mih={48}>
        Read the hand-over
      </Button>
    </Group>
  );
}
