import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { useBar } from '../bar/index.ts';
import { useWelcome } from '../team/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import classes from './Devices.module.css';
import { DeviceRow, type Station } from './DeviceRow.tsx';
import { silentWord } from './deviceWords.ts';
import type { LinkKind } from './knownDevice.ts';
import { useDeviceList, useShelf } from './useShelf.ts';

const ways: readonly { link: Exclude<LinkKind, 'bridge'>; label: string; says: string }[] = [
  { link: 'bluetooth', label: 'A Bluetooth scale', says: 'Wake it, and choose it in the list that the browser shows.' },
  { link: 'serial', label: 'A scale on a cable', says: 'USB or serial, sending its weight by itself.' },
  { link: 'wedge', label: 'A scale that types', says: 'It types its number as a keyboard would.' },
];

/** The devices that this tablet hears: found, named, put to a station, tried. */
export function DevicesPage() {
  const { data: bar, error, refetch } = useBar();
  const { data: welcome } = useWelcome();
  const shelf = useShelf();
  const devices = useDeviceList();
  const [said, setSaid] = useState<string | null>(null);
  if (!bar || !shelf) {
    return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the devices" />;
  }
  const stations: Station[] = [
    ...bar.machines.map(({ id, name }) => ({ id, name, kind: 'machine' as const })),
    ...bar.machines.flatMap(({ groups }) => groups.map(({ id, name }) => ({ id, name, kind: 'group' as const }))),
    ...bar.grinders.map(({ id, name }) => ({ id, name, kind: 'grinder' as const })),
  ];
  const find = (link: LinkKind, key?: string): void => {
    setSaid(null);
    shelf.find(link, key).then(
      (why) => setSaid(why && silentWord[why]),
      (failed: unknown) =>
        setSaid(
          failed instanceof DOMException && failed.name === 'NotFoundError'
            ? 'Nothing was chosen.'
            : 'The browser could not open it. Switch it off and on, and find it again.',
        ),
    );
  };
  return (
    <Stack gap="md">
      <div>
        <Title order={1}>Devices</Title>
        <Text className="faint">
          What this tablet hears: each is a help, never a must. Every number can be typed as before.
          {welcome?.demo && ' In the demo two simulated scales stand in for real ones.'}
        </Text>
      </div>
      {devices.length === 0 ? (
        <Text>None yet. Find the first one below.</Text>
      ) : (
        <ul className={classes.devices}>
          {devices.map((device) => (
            <DeviceRow key={device.id} device={device} shelf={shelf} stations={stations} />
          ))}
        </ul>
      )}
      <section aria-labelledby="find">
        <Title order={2} size="h3" id="find">
          Find one
        </Title>
        <ul className={classes.ways}>
          {ways.map(({ link, label, says }) => (
            <li key={link}>
              <Button size="lg" variant="default" onClick={() => find(link)}>
                {label}
              </Button>
              <Text className="faint">{says}</Text>
            </li>
          ))}
        </ul>
        {said !== null && (
          <Text role="alert" mt="xs">
            {said}
          </Text>
        )}
      </section>
      <section aria-labelledby="bridge">
        <Title order={2} size="h3" id="bridge">
          At a bridge
        </Title>
        {shelf.heard().length === 0 ? (
          <Text className="faint">
            What no browser reaches, a small program beside the server does: npm run bridge. What it hears is offered
            here.
          </Text>
        ) : (
          <Group mt={4}>
            {shelf.heard().map((name) => (
              <Button key={name} size="lg" variant="default" onClick={() => find('bridge', name)}>
                Hear “{name}”
              </Button>
            ))}
          </Group>
        )}
      </section>
    </Stack>
  );
}
