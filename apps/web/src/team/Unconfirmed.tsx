import { Button, Group, Modal, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { useState } from 'react';
import { useUnsent } from '../kernel/facts.tsx';
import { unconfirmedId } from '../kernel/session.ts';
import { PinPad } from './SignInPage.tsx';
import { useWelcome } from './queries.ts';

/** Whoever goes on by their name alone is reminded that their entries wait for their PIN. */
export function Unconfirmed({ session }: { session: Session }) {
  const [asking, setAsking] = useState(false);
  const { data: welcome } = useWelcome();
  const { person } = session;
  const waiting = useUnsent().filter(({ fact }) => fact.personId === person.id);
  const told = waiting.filter((entry) => entry.told).length;
  if (unconfirmedId() !== person.id) return null;
  return (
    <Group className="sheet" mb="md" role="status" justify="space-between">
      <Text>
        {person.name} goes on here by name alone.{' '}
        {told === 0
          ? 'What is written waits on this tablet for the PIN.'
          : `The others see ${told === waiting.length ? 'it all' : `${told} of ${waiting.length} entries`}, not confirmed yet: the PIN does that.`}
      </Text>
      <Button mih={48} variant="default" onClick={() => setAsking(true)}>
        Give the PIN
      </Button>
      <Modal opened={asking} onClose={() => setAsking(false)} withCloseButton={false} centered>
        <PinPad
          person={person}
          site={null}
          demoPin={welcome?.demo?.pins[person.id] ?? null}
          onBack={() => setAsking(false)}
        />
      </Modal>
    </Group>
  );
}
