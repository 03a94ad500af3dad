import { Text } from '@mantine/core';
import { lacking, skillSaid, type Skill } from '@tempera/contract/signOffs';
import type { Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { inWords } from '../kernel/format.ts';
import { useNow } from '../ui/useNow.ts';
import { usePeople } from './queries.ts';

interface NotSignedOffProps {
  session: Session;
  /** What the work asks for. */
  skills: readonly Skill[];
  nameOf: (id: string) => string | null;
  /** Whether the house asks for a second person's PIN. */
  asks: boolean;
}

/** Says when somebody works at what they are not signed off for: with somebody who is, they may. */
export function NotSignedOff({ session: { person, site }, skills, nameOf, asks }: NotSignedOffProps) {
  const people = usePeople();
  const nowMs = useNow();
  const today = (): string => businessDay(nowMs, site.timeZone, site.dayStartsMin);
  const lacks = people.length === 0 ? [] : lacking(people, person.id, skills, today);
  if (lacks.length === 0) return null;
  return (
    <Text role="note">
      {person.name} is not signed off for {inWords(lacks.map((skill) => skillSaid(skill, nameOf)))}:{' '}
      {asks ? 'what is decided here needs the PIN of somebody who is.' : 'work with somebody who is.'}
    </Text>
  );
}
