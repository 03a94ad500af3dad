import '@mantine/core/styles/PasswordInput.css';
import { Button, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { deviceCodeSchema, signInAwaySchema } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { codeOfAddress } from './enrolAddress.ts';
import { noPasskeysHere, passkeySentence, useSignInByPasskey } from './passkeys.ts';
import { PinField } from './PinField.tsx';
import { useEnrolByCode, useSignInAway } from './queries.ts';
import classes from './SignInPage.module.css';

/** A device that is none of the house: it enrols by a code, or a head or the office comes in by name and password. */
export function Stranger({ site }: { site: string }) {
  return (
    <Stack className={classes.page} gap="lg" maw={480} mx="auto">
      <div>
        <Title order={1}>{site}</Title>
        <Text>This device is not one of the house yet, so it shows no names.</Text>
      </div>
      <ByCode />
      {noPasskeysHere() === null && <ByPasskey />}
      <ByPassword />
    </Stack>
  );
}

function ByCode() {
  const [code, setCode] = useState(codeOfAddress);
  const [asked, setAsked] = useState(false);
  const { mutate, error, isPending } = useEnrolByCode();
  const wanted = deviceCodeSchema.safeParse({ code });
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    setAsked(true);
    if (wanted.success) mutate(code);
  };
  return (
    <form onSubmit={send} className="sheet" aria-label="Enrol this device">
      <Stack gap="sm">
        <Title order={2} size="h3">
          Enrol it
        </Title>
        <PinField
          label="The code from the team’s page"
          value={code}
          onChange={setCode}
          error={asked ? wanted.error?.issues[0]?.message : undefined}
          shown
        />
        <Text role="alert" c="error">
          {error ? sentenceOf(error) : ''}
        </Text>
        <Button type="submit" size="lg" loading={isPending}>
          Enrol this device
        </Button>
      </Stack>
    </form>
  );
}

function ByPasskey() {
  const { mutate, error, isPending } = useSignInByPasskey();
  return (
    <section className="sheet" aria-labelledby="by-passkey">
      <Stack gap="sm">
        <Title order={2} size="h3" id="by-passkey">
          Or sign in by a passkey
        </Title>
        <Text className="faint">For a head barista or the office, who made one on their page.</Text>
        <Text role="alert" c="error">
          {error ? passkeySentence(error) : ''}
        </Text>
        <Button size="lg" variant="default" loading={isPending} onClick={() => mutate()}>
          Use a passkey
        </Button>
      </Stack>
    </section>
  );
}

function ByPassword() {
  const [typed, setTyped] = useState({ name: '', password: '' });
  const { mutate, error, isPending } = useSignInAway();
  const wanted = signInAwaySchema.safeParse(typed);
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    if (wanted.success) mutate(wanted.data, { onError: () => setTyped((before) => ({ ...before, password: '' })) });
  };
  return (
    <form onSubmit={send} className="sheet" aria-label="Sign in from elsewhere">
      <Stack gap="sm">
        <Title order={2} size="h3">
          Or sign in by a password
        </Title>
        <Text className="faint">For a head barista or the office, who set a password on their page.</Text>
        <TextInput
          label="Name"
          size="md"
          autoComplete="username"
          value={typed.name}
          onChange={(event) => setTyped({ ...typed, name: event.currentTarget.value })}
        />
        <PasswordInput
          label="Password"
          size="md"
          autoComplete="current-password"
          value={typed.password}
          onChange={(event) => setTyped({ ...typed, password: event.currentTarget.value })}
        />
        <Text role="alert" c="error">
          {error ? sentenceOf(error) : ''}
        </Text>
        <Button type="submit" size="lg" variant="default" loading={isPending} disabled={!wanted.success}>
          Sign in
        </Button>
      </Stack>
    </form>
  );
}
