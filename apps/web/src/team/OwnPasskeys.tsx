import { Button, Group, Stack, Text, TextInput, Title } from '@mantine/core';
import { newPasskeySchema } from '@tempera/contract/passkeys';
import type { Session } from '@tempera/contract/team';
import { useRef, useState, type SubmitEvent } from 'react';
import { moment } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { noPasskeysHere, passkeySentence, useForgetPasskey, useMakePasskey, useOwnPasskeys } from './passkeys.ts';
import classes from './Team.module.css';

/** Passkeys of one's own: where they are, one more, one less. */
export function OwnPasskeys({ session }: { session: Session }) {
  const { data, error, refetch } = useOwnPasskeys();
  const make = useMakePasskey();
  const forget = useForgetPasskey();
  const [name, setName] = useState('');
  const [sure, setSure] = useState<string | null>(null);
  const nowMs = useNow();
  // Two taps in one moment make one.
  const making = useRef(false);
  const none = noPasskeysHere();
  const wanted = newPasskeySchema.shape.name.safeParse(name);
  const { timeZone } = session.site;
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    // Asked before the device makes one: a passkey that the house does not keep would be of no use on it.
    if (!wanted.success || making.current) return;
    making.current = true;
    make.mutate(wanted.data, { onSuccess: () => setName(''), onSettled: () => (making.current = false) });
  };
  if (!data) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="your passkeys" />;
  const failed = make.error ?? forget.error;
  return (
    <section className="sheet" aria-labelledby="own-passkeys">
      <Stack gap="sm">
        <Title order={2} size="h3" id="own-passkeys">
          Your passkeys
        </Title>
        <Text className="faint">
          From your own phone or computer you come in by a finger, a face or its own PIN, and type nothing.
        </Text>
        {data.passkeys.length > 0 && (
          <ul className={classes.sessions}>
            {data.passkeys.map((passkey) => (
              <li key={passkey.id}>
                <Group justify="space-between" gap="xs">
                  <span>
                    {passkey.name}
                    <span className="faint">
                      {passkey.usedAt
                        ? `, last used ${moment(Date.parse(passkey.usedAt), timeZone, nowMs)}`
                        : `, made ${moment(Date.parse(passkey.madeAt), timeZone, nowMs)}, not used yet`}
                    </span>
                  </span>
                  <Button
                    variant="default"
                    mih={48}
                    aria-label={`Remove the passkey ${passkey.name}`}
                    loading={forget.isPending && forget.variables === passkey.id}
                    onClick={() => (sure === passkey.id ? forget.mutate(passkey.id) : setSure(passkey.id))}
                  >
                    {sure === passkey.id ? 'Yes, remove it' : 'Remove'}
                  </Button>
                </Group>
              </li>
            ))}
          </ul>
        )}
        {none === null ? (
          <form onSubmit={send}>
            <Group align="end">
              <TextInput
                label="What it is on"
                placeholder="My phone"
                size="md"
                error={name === '' ? undefined : wanted.error?.issues[0]?.message}
                value={name}
                onChange={(event) => setName(event.currentTarget.value)}
              />
              <Button type="submit" size="lg" variant="default" disabled={!wanted.success} loading={make.isPending}>
                Make a passkey here
              </Button>
            </Group>
          </form>
        ) : (
          <Text>{none}</Text>
        )}
        <Text role="alert" c="var(--out)">
          {failed ? passkeySentence(failed) : ''}
        </Text>
        {make.isSuccess && <Text role="status">The passkey is made: next time you come in by it.</Text>}
      </Stack>
    </section>
  );
}
