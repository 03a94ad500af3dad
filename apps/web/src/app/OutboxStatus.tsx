import { Button, Group, Modal, Stack, Text } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { IconCloudOff, IconCloudUp } from '@tabler/icons-react';
import { kindWord } from '../journal/index.ts';
import { useOutbox, useUnsent } from '../kernel/facts.tsx';
import type { Entry } from '../kernel/outbox.ts';

/** What this device has not sent yet, and whether the server is in reach. Silent when all is well. */
export function OutboxStatus({ inReach, personId }: { inReach: boolean; personId: string }) {
  const unsent = useUnsent();
  const [opened, { open, close }] = useDisclosure(false);
  if (inReach && unsent.length === 0) return null;
  const refused = unsent.filter((entry) => entry.refusal !== null).length;
  const label = refused > 0 ? `${refused} refused` : unsent.length > 0 ? `${unsent.length} unsent` : 'Offline';
  return (
    <>
      <Button
        variant="default"
        px="sm"
        style={{ flexShrink: 0 }}
        leftSection={
          inReach ? <IconCloudUp size={20} aria-hidden="true" /> : <IconCloudOff size={20} aria-hidden="true" />
        }
        onClick={open}
        aria-live="polite"
      >
        {label}
      </Button>
      <Modal opened={opened} onClose={close} title="Not sent yet" size="lg" centered>
        <Stack>
          <Text>
            {inReach
              ? 'These entries are kept on this device until the server has them.'
              : 'The server cannot be reached. Go on working: entries are kept on this device and sent in order later.'}
          </Text>
          {unsent.map((entry) => (
            <UnsentEntry key={entry.fact.id} entry={entry} foreign={entry.fact.personId !== personId} />
          ))}
        </Stack>
      </Modal>
    </>
  );
}

function UnsentEntry({ entry, foreign }: { entry: Entry; foreign: boolean }) {
  const outbox = useOutbox();
  const what = kindWord[entry.fact.kind];
  return (
    <Group className="sheet" justify="space-between" wrap="nowrap">
      <Text>
        {what}
        {entry.refusal !== null && `: ${entry.refusal}`}
        {entry.refusal === null && (foreign ? ', waits until the one who made it signs in here' : ', waits to be sent')}
      </Text>
      {entry.refusal !== null && (
        <Button variant="default" onClick={() => void outbox.discard(entry.fact.id)}>
          Let it go
        </Button>
      )}
    </Group>
  );
}
