import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { hasLapsed, skillSaid } from '@tempera/contract/signOffs';
import type { Kept } from '@tempera/contract/sheet';
import type { PersonSheet, Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { useState } from 'react';
import { Link } from 'react-router';
import { sentenceOf } from '../kernel/api.ts';
import { moment } from '../kernel/format.ts';
import { keepsHouse, useSheets } from '../kernel/sheets.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { Devices } from './Devices.tsx';
import { useAccess, useHandCode } from './queries.ts';
import { usePieces } from './pieces.ts';
import { roleWord } from './roleWords.ts';
import classes from './Team.module.css';

/** Who is in the house, what they are, and how they get in. */
export function TeamPage({ session }: { session: Session }) {
  const { data: people, error, refetch } = useSheets('person');
  const access = useAccess(keepsHouse(session));
  if (!keepsHouse(session))
    return <Text>Only a head barista or the office keeps the list of people. Ask one to sign in.</Text>;
  const failed = error ?? access.error;
  if (!people || !access.data) {
    const again = (): void => void Promise.all([refetch(), access.refetch()]);
    return failed ? <Failed error={failed} onRetry={again} /> : <Loading what="the team" />;
  }
  const inside = people.filter(({ retired }) => !retired).toSorted((a, b) => a.sheet.name.localeCompare(b.sheet.name));
  const left = people.filter(({ retired }) => retired);
  const accessOf = (id: string) => access.data.people.find((one) => one.id === id);
  return (
    <Stack gap="md">
      <Group justify="space-between">
        <Title order={1}>Team</Title>
        <Button component={Link} to="/team/new">
          Take somebody in
        </Button>
      </Group>
      <ul className={classes.people}>
        {inside.map((person) => (
          <OnePerson
            key={person.id}
            person={person}
            hasPin={accessOf(person.id)?.hasPin ?? false}
            codeUntil={accessOf(person.id)?.codeUntil ?? null}
            session={session}
          />
        ))}
      </ul>
      {left.length > 0 && (
        <section aria-labelledby="left">
          <Title order={2} size="h3" id="left">
            Left the house
          </Title>
          <ul className={classes.left}>
            {left.map(({ id, sheet }) => (
              <li key={id}>
                <Link to={`/team/${id}`}>{sheet.name}</Link> <span className="faint">{roleWord[sheet.role]}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Devices session={session} />
    </Stack>
  );
}

/** "Signed off for dialling in, milk; lapsed: closing." */
function signOffWord({ signOffs }: PersonSheet, today: string, nameOf: (id: string) => string | null): string {
  const names = (lapsed: boolean): string =>
    signOffs
      .filter((one) => hasLapsed(one, today) === lapsed)
      .map(({ skill }) => skillSaid(skill, nameOf))
      .join(', ');
  const [good, gone] = [names(false), names(true)];
  return [good && `Signed off for ${good}`, gone && `lapsed: ${gone}`].filter(Boolean).join('; ') + '.';
}

interface OnePersonProps {
  person: Kept<PersonSheet>;
  hasPin: boolean;
  codeUntil: string | null;
  session: Session;
}

function OnePerson({ person: { id, sheet }, hasPin, codeUntil, session }: OnePersonProps) {
  const nowMs = useNow();
  const { nameOf } = usePieces();
  const { mutate, data: handed, error, isPending, reset } = useHandCode();
  const [asked, setAsked] = useState(false);
  const isSelf = id === session.person.id;
  const mayHand = !isSelf && (sheet.role !== 'head' || session.person.role === 'head');
  const hand = (): void => {
    setAsked(false);
    mutate(id);
  };
  const { timeZone } = session.site;
  return (
    <li className="sheet" aria-label={sheet.name}>
      <Group justify="space-between">
        <div>
          <Text size="lg">
            <Link to={`/team/${id}`}>{sheet.name}</Link> <span className="faint">{roleWord[sheet.role]}</span>
          </Text>
          <Text className="faint">
            {hasPin
              ? 'Has a PIN of their own.'
              : codeUntil
                ? `Has a code, good until ${moment(Date.parse(codeUntil), timeZone, nowMs)}.`
                : 'Cannot get in yet: hand out a code.'}
          </Text>
          {sheet.signOffs.length > 0 && (
            <Text className="faint">
              {signOffWord(sheet, businessDay(nowMs, timeZone, session.site.dayStartsMin), nameOf)}
            </Text>
          )}
        </div>
        {isSelf ? (
          <Button component={Link} to="/me" variant="default">
            Your page
          </Button>
        ) : (
          mayHand &&
          !handed && (
            <Button variant="default" loading={isPending} onClick={() => (hasPin && !asked ? setAsked(true) : hand())}>
              {!hasPin ? 'Hand out a code' : asked ? 'Yes, what they had is void' : 'A new PIN'}
            </Button>
          )
        )}
      </Group>
      {error && (
        <Text role="alert" c="var(--out)">
          {sentenceOf(error)}
        </Text>
      )}
      {handed && (
        <div className={classes.code} role="status">
          <Text>
            {sheet.name} types this once, at their name, and chooses a PIN. It is not shown again, and good until{' '}
            {moment(Date.parse(handed.until), timeZone, nowMs)}.
          </Text>
          <Group>
            <span className={`number ${classes.digits}`}>{handed.code.replace(/(\d{4})(?=\d)/, '$1 ')}</span>
            <Button variant="default" onClick={reset}>
              It is handed over
            </Button>
          </Group>
        </div>
      )}
    </li>
  );
}
