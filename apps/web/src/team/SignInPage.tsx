import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Person, Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { useQueryClient } from '@tanstack/react-query';
import { IconArrowLeft, IconBackspace } from '@tabler/icons-react';
import { lazy, Suspense, useEffect, useState } from 'react';
import { sentenceOf, Unreachable } from '../kernel/api.ts';
import { goesOnHere } from '../kernel/session.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useSignIn, useWelcome } from './queries.ts';
import { roleWord } from './roleWords.ts';
import classes from './SignInPage.module.css';

// What is asked once is fetched once: the first view does not carry the schemas.
const FirstPin = lazy(async () => ({ default: (await import('./FirstPin.tsx')).FirstPin }));
const SetUpPage = lazy(() => import('./SetUpPage.tsx'));
const Stranger = lazy(async () => ({ default: (await import('./Stranger.tsx')).Stranger }));

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];
const MIN_PIN = 4;
const MAX_PIN = 8;

/** Say who you are: a name on the tablet, then a PIN. */
export function SignInPage() {
  const { data: welcome, error, refetch } = useWelcome();
  const [person, setPerson] = useState<(Person & { hasPin: boolean }) | null>(null);
  if (error && !welcome) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!welcome) return <Loading what="names" />;
  if (person && !person.hasPin) {
    return (
      <Suspense fallback={<Loading what="the first page" />}>
        <FirstPin person={person} onBack={() => setPerson(null)} />
      </Suspense>
    );
  }
  if (person)
    return (
      <PinPad
        person={person}
        site={welcome.sites.find(({ people }) => people.some(({ id }) => id === person.id)) ?? null}
        demoPin={welcome.demo?.pins[person.id] ?? null}
        onBack={() => setPerson(null)}
      />
    );
  if (welcome.sites.length === 0) {
    return (
      <Suspense fallback={<Loading what="the first page" />}>
        <SetUpPage />
      </Suspense>
    );
  }
  const known = welcome.sites.filter(({ enrolled }) => enrolled);
  if (known.length === 0) {
    return (
      <Suspense fallback={<Loading what="the first page" />}>
        <Stranger site={welcome.sites.map(({ name }) => name).join(', ')} />
      </Suspense>
    );
  }
  return (
    <Stack className={classes.page} gap="lg">
      <Title order={1}>Who is at the bar?</Title>
      {known.map((site) => (
        <section key={site.id} aria-label={site.name}>
          <Text className="faint" mb="xs">
            {site.name}
          </Text>
          <div className={classes.names}>
            {site.people.map((someone) => (
              <button key={someone.id} type="button" className={classes.name} onClick={() => setPerson(someone)}>
                <span className={classes.who}>{someone.name}</span>
                <span className="faint">{roleWord[someone.role]}</span>
                {!someone.hasPin && <span className="faint">has a code</span>}
                {welcome.demo && someone.id in welcome.demo.pins && (
                  <span className={classes.demo}>demo PIN {welcome.demo.pins[someone.id]}</span>
                )}
              </button>
            ))}
          </div>
        </section>
      ))}
    </Stack>
  );
}

interface PinPadProps {
  person: Person;
  /** The café that they go on in while the server is gone; null: not without a PIN. */
  site: Session['site'] | null;
  demoPin: string | null;
  onBack: () => void;
}

/** A PIN on large keys; while the server is gone a name is enough to go on, and the PIN is asked for later. */
export function PinPad({ person, site, demoPin, onBack }: PinPadProps) {
  const client = useQueryClient();
  const [pin, setPin] = useState('');
  const signIn = useSignIn();
  const { mutate, isPending } = signIn;
  const press = (key: string): void => setPin((before) => (before.length < MAX_PIN ? before + key : before));
  const send = (): void => {
    if (pin.length < MIN_PIN || isPending) return;
    mutate({ personId: person.id, pin }, { onError: () => setPin('') });
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (/^\d$/.test(event.key)) press(event.key);
      else if (event.key === 'Backspace') setPin((before) => before.slice(0, -1));
      else if (event.key === 'Escape') onBack();
      else if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) send();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });

  return (
    <Stack className={classes.page} align="center">
      <Title order={1}>{person.name}, your PIN</Title>
      <div className={classes.dots} role="status" aria-label={`${pin.length} digits entered`}>
        {Array.from({ length: Math.max(MIN_PIN, pin.length) }, (_, i) => (
          <span key={i} data-set={i < pin.length} />
        ))}
      </div>
      <Text role="alert" mih={28} c="error" ta="center">
        {signIn.error ? sentenceOf(signIn.error) : ''}
      </Text>
      {site && signIn.error instanceof Unreachable && (
        <Stack align="center" gap="xs">
          <Text ta="center">
            Go on by your name. What you write counts here at once, and is sent once you have given your PIN.
          </Text>
          <Button size="lg" onClick={() => goesOnHere(client, { person, site: siteOf(site), units: usualUnits })}>
            Go on as {person.name}
          </Button>
        </Stack>
      )}
      <div className={classes.pad}>
        {KEYS.map((key) => (
          <button key={key} type="button" onClick={() => press(key)}>
            {key}
          </button>
        ))}
        <button type="button" aria-label="Another name" onClick={onBack}>
          <IconArrowLeft aria-hidden="true" />
        </button>
        <button type="button" onClick={() => press('0')}>
          0
        </button>
        <button
          type="button"
          aria-label="Delete the last digit"
          onClick={() => setPin((before) => before.slice(0, -1))}
        >
          <IconBackspace aria-hidden="true" />
        </button>
      </div>
      <Group>
        <Button size="lg" onClick={send} disabled={pin.length < MIN_PIN} loading={isPending}>
          Sign in
        </Button>
      </Group>
      {demoPin !== null && <Text className="faint">Demo café: the PIN is {demoPin}.</Text>}
    </Stack>
  );
}

/** A café as a session names it, of all that the door says of it. */
const siteOf = ({ id, name, timeZone, dayStartsMin }: Session['site']): Session['site'] => ({
  id,
  name,
  timeZone,
  dayStartsMin,
});
