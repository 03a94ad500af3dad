import { Text } from '@mantine/core';
import { mayAlone, skillSaid, type Skill } from '@tempera/contract/signOffs';
import type { Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { useNow } from '../ui/useNow.ts';
import { usePeople } from './queries.ts';

interface NotSignedOffProps {
  session: Session;
  skill: Skill;
  /** Whether the house asks for a second person's PIN. */
  asks: boolean;
}

/** Says when somebody works at what they are not signed off for: with somebody who is, they may. */
export function NotSignedOff({ session: { person, site }, skill, asks }: NotSignedOffProps) {
  const people = usePeople();
  const today = businessDay(useNow(), site.timeZone, site.dayStartsMin);
  if (people.length === 0 || mayAlone(people, person.id, skill, today)) return null;
  return (
    <Text role="note">
      {person.name} is not signed off for {skillSaid[skill]}:{' '}
      {asks ? 'what is decided here needs the PIN of somebody who is.' : 'work with somebody who is.'}
    </Text>
  );
}
