import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { newPinSchema, type Session } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { moment } from '../kernel/format.ts';
import { keepsHouse } from '../kernel/sheets.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { OwnSignOffs } from './OwnSignOffs.tsx';
import { OwnPasskeys } from './OwnPasskeys.tsx';
import { OwnPassword } from './OwnPassword.tsx';
import { PinField } from './PinField.tsx';
import { useChangePin, useEndOthers, useOwnSessions } from './queries.ts';
import { roleWord } from './roleWords.ts';
import classes from './Team.module.css';
import { UnitsChoice } from './UnitsChoice.tsx';

/** A person's own page: what they read in, their PIN, and where they are signed in. */
export function MePage({ session }: { session: Session }) {
  return (
    <Stack gap="md" maw={640}>
      <div>
        <Title order={1}>{session.person.name}</Title>
        <Text className="faint">
          {roleWord[session.person.role]}, {session.site.name}
        </Text>
      </div>
      <section className="sheet" aria-labelledby="reads">
        <Title order={2} size="h3" id="reads">
          What you read and type in
        </Title>
        <UnitsChoice session={session} />
      </section>
      <OwnSignOffs session={session} />
      <OwnPin />
      {keepsHouse(session) && <OwnPasskeys session={session} />}
      {keepsHouse(session) && <OwnPassword />}
      <Sessions session={session} />
    </Stack>
  );
}

function OwnPin() {
  const [typed, setTyped] = useState({ pin: '', newPin: '', again: '' });
  const [asked, setAsked] = useState(false);
  const { mutate, error, isPending, isSuccess } = useChangePin();
  const wanted = newPinSchema.safeParse({ pin: typed.pin, newPin: typed.newPin });
  const errorAt = (field: string): string | undefined =>
    asked ? wanted.error?.issues.find(({ path }) => path[0] === field)?.message : undefined;
  const differs = typed.newPin !== typed.again;
  const set = (field: keyof typeof typed) => (value: string) => setTyped((before) => ({ ...before, [field]: value }));
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    setAsked(true);
    if (!wanted.success || differs) return;
    mutate(wanted.data, {
      onSuccess: () => {
        setTyped({ pin: '', newPin: '', again: '' });
        setAsked(false);
      },
    });
  };
  return (
    <form onSubmit={send} className="sheet" aria-labelledby="own-pin">
      <Stack gap="sm">
        <Title order={2} size="h3" id="own-pin">
          Your PIN
        </Title>
        <PinField label="The PIN you have" value={typed.pin} onChange={set('pin')} error={errorAt('pin')} />
        <PinField
          label="A new one, 4 to 8 digits"
          value={typed.newPin}
          onChange={set('newPin')}
          error={errorAt('newPin')}
        />
        <PinField
          label="The new one once more"
          value={typed.again}
          onChange={set('again')}
          error={asked && differs ? 'The two differ. Type both again.' : undefined}
        />
        <Text role="alert" c="var(--out)">
          {error ? sentenceOf(error) : ''}
        </Text>
        {isSuccess && (
          <Text role="status">Your PIN is changed; wherever else you were signed in, you are not any more.</Text>
        )}
        <div>
          <Button type="submit" size="lg" variant="default" loading={isPending}>
            Change the PIN
          </Button>
        </div>
      </Stack>
    </form>
  );
}

function Sessions({ session }: { session: Session }) {
  const { data, error, refetch } = useOwnSessions();
  const { mutate, isPending } = useEndOthers();
  const nowMs = useNow();
  if (!data)
    return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="where you are signed in" />;
  const { timeZone } = session.site;
  const others = data.sessions.filter(({ here }) => !here).length;
  return (
    <section className="sheet" aria-labelledby="where">
      <Title order={2} size="h3" id="where">
        Where you are signed in
      </Title>
      <ul className={classes.sessions}>
        {data.sessions.map(({ id, since, seen, here }) => (
          <li key={id}>
            {here ? 'Here' : 'Elsewhere'}, since {moment(Date.parse(since), timeZone, nowMs)}
            {!here && <span className="faint">, last seen {moment(Date.parse(seen), timeZone, nowMs)}</span>}
          </li>
        ))}
      </ul>
      {others > 0 && (
        <Group mt="sm">
          <Button variant="default" loading={isPending} onClick={() => mutate()}>
            End {others === 1 ? 'the other' : `the ${others} others`}
          </Button>
        </Group>
      )}
    </section>
  );
}
