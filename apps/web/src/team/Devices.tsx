import { Button, Group, Stack, Text, TextInput, Title } from '@mantine/core';
import { newDeviceSchema, type Session } from '@tempera/contract/team';
import { QRCodeSVG } from 'qrcode.react';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { moment } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { enrolAddress } from './enrolAddress.ts';
import { useDeviceCode, useDevices, useEnrolHere, useStrikeOff } from './queries.ts';
import classes from './Team.module.css';

/** The tablets of the house: from the first one on, names and PINs are for them only. */
export function Devices({ session }: { session: Session }) {
  const { data, error, refetch } = useDevices();
  const nowMs = useNow();
  const strike = useStrikeOff();
  const [asked, setAsked] = useState<string | null>(null);
  const isHead = session.person.role === 'head';
  if (!data) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the devices" />;
  const { timeZone } = session.site;
  return (
    <section aria-labelledby="devices">
      <Title order={2} size="h3" id="devices">
        Devices of the house
      </Title>
      <Text className="faint">
        {data.devices.length === 0
          ? 'None is enrolled: whoever reaches the server reads your names and may try PINs. Enrol the bar’s tablet, and that ends.'
          : 'Names are shown and PINs taken on these only. From elsewhere a head or the office comes in by a passkey, or by name and password: set yours on your page first.'}
      </Text>
      <ul className={classes.people}>
        {data.devices.map(({ id, name, enrolledAt, by, here, waits }) => (
          <li key={id} className="sheet" aria-label={name}>
            <Group justify="space-between">
              <Text>
                {name}
                {here && ' (this one)'}{' '}
                <span className="faint">
                  {waits ? 'a code waits' : `enrolled by ${by}, ${moment(Date.parse(enrolledAt), timeZone, nowMs)}`}
                </span>
              </Text>
              {isHead && (
                <Button
                  variant="default"
                  mih={48}
                  loading={strike.isPending && strike.variables === id}
                  onClick={() => (asked === id ? strike.mutate(id) : setAsked(id))}
                >
                  {asked === id ? 'Yes, it is lost or gone' : 'Strike off'}
                </Button>
              )}
            </Group>
          </li>
        ))}
      </ul>
      {strike.error && (
        <Text role="alert" c="var(--out)">
          {sentenceOf(strike.error)}
        </Text>
      )}
      {isHead && <Enrol enrolledHere={data.devices.some(({ here }) => here)} />}
    </section>
  );
}

/** Enrols the tablet in hand, or hands out a code for another. */
function Enrol({ enrolledHere }: { enrolledHere: boolean }) {
  const [name, setName] = useState('');
  const [asked, setAsked] = useState(false);
  const here = useEnrolHere();
  const code = useDeviceCode();
  const wanted = newDeviceSchema.safeParse({ name });
  const problem = asked ? wanted.error?.issues[0]?.message : undefined;
  const enrol = (event: SubmitEvent): void => {
    event.preventDefault();
    setAsked(true);
    if (!wanted.success) return;
    const done = {
      onSuccess: () => {
        setName('');
        setAsked(false);
      },
    };
    if (enrolledHere) code.mutate(wanted.data.name, done);
    else here.mutate(wanted.data.name, done);
  };
  const failed = here.error ?? code.error;
  return (
    <form onSubmit={enrol}>
      <Stack gap="xs">
        <Group align="end">
          <TextInput
            label={enrolledHere ? 'Another device' : 'This device'}
            description="What it is called: bar left, Noor’s phone."
            size="md"
            value={name}
            error={problem}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button type="submit" mih={48} variant="default" loading={here.isPending || code.isPending}>
            {enrolledHere ? 'A code for it' : 'Enrol this one'}
          </Button>
        </Group>
        {failed && (
          <Text role="alert" c="var(--out)">
            {sentenceOf(failed)}
          </Text>
        )}
        {code.data && (
          <div className={classes.code} role="status">
            <Text>
              Point the other device’s camera here, or open Tempera on it and type the digits, within a quarter of an
              hour. It works once.
            </Text>
            <span className={`number ${classes.digits}`}>{code.data.code.replace(/(\d{4})(?=\d)/, '$1 ')}</span>
            {/* Dark on light in either scheme: cameras read no other. */}
            <QRCodeSVG
              value={enrolAddress(code.data.code)}
              title="The same code, for a camera"
              size={176}
              marginSize={4}
              className={classes.camera}
            />
          </div>
        )}
      </Stack>
    </form>
  );
}
