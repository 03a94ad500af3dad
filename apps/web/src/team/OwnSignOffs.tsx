import { Text, Title } from '@mantine/core';
import { hasLapsed } from '@tempera/contract/signOffs';
import type { Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { Link } from 'react-router';
import { dateWord } from '../kernel/format.ts';
import { useNow } from '../ui/useNow.ts';
import { usePieces } from './pieces.ts';
import { usePeople } from './queries.ts';
import { skillWord } from './roleWords.ts';
import classes from './Team.module.css';

/** What somebody is signed off for by a head, since when and until when. */
export function OwnSignOffs({ session: { person, site } }: { session: Session }) {
  const people = usePeople();
  const own = people.find(({ id }) => id === person.id)?.signOffs ?? [];
  const { nameOf } = usePieces();
  const today = businessDay(useNow(), site.timeZone, site.dayStartsMin);
  if (person.role === 'office') return null;
  return (
    <section className="sheet" aria-labelledby="own-sign-offs">
      <Title order={2} size="h3" id="own-sign-offs">
        What you work alone
      </Title>
      {own.length > 0 ? (
        <ul className={classes.sessions}>
          {own.map((one) => (
            <li key={one.skill}>
              {skillWord(one.skill, nameOf)}
              <span className="faint">
                , since {dateWord(one.on)}
                {one.by !== null && `, by ${people.find(({ id }) => id === one.by)?.name ?? 'a head'}`}
                {one.until !== null &&
                  (hasLapsed(one, today)
                    ? `; lapsed on ${dateWord(one.until)}: ask a head`
                    : `, until ${dateWord(one.until)}`)}
              </span>
            </li>
          ))}
        </ul>
      ) : (
        <Text className="faint">
          {person.role === 'head'
            ? 'A head barista works everything alone.'
            : 'You are signed off for nothing yet: a head barista does that on the team’s page.'}
        </Text>
      )}
      <Text mt="sm">
        <Link to="/day">How your own shots run, beside the house’s</Link>
      </Text>
    </section>
  );
}
