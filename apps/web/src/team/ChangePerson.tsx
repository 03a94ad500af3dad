import { Button, Group, Select, Stack, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { stoodHereBefore } from '../kernel/session.ts';
import { PinField } from './PinField.tsx';
import { useSignIn, useWelcome } from './queries.ts';

/** Somebody else goes on at this tablet, on this very page: whoever stood here before is named already, and gives their PIN. */
export function ChangePerson({ session, onDone }: { session: Session; onDone: () => void }) {
  const { data: welcome } = useWelcome();
  const site = welcome?.sites.find(({ id }) => id === session.site.id);
  // Where no PIN is taken nobody changes places.
  const others = site?.enrolled ? site.people.filter(({ id, hasPin }) => hasPin && id !== session.person.id) : [];
  const [personId, setPersonId] = useState<string | null>(null);
  const [pin, setPin] = useState('');
  const { mutate, error, isPending } = useSignIn();
  const before = stoodHereBefore();
  const chosen = personId ?? others.find(({ id }) => id === before)?.id ?? others[0]?.id ?? null;
  if (chosen === null) return null;
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    mutate({ personId: chosen, pin }, { onSuccess: onDone, onError: () => setPin('') });
  };
  return (
    <form onSubmit={send} aria-label="Somebody else goes on here">
      <Stack gap="xs">
        <Group align="end" grow>
          <Select
            label="Who goes on here"
            size="md"
            allowDeselect={false}
            value={chosen}
            data={others.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setPersonId}
          />
          <PinField label="Their PIN" first value={pin} onChange={setPin} />
        </Group>
        <Text role="alert" c="var(--out)">
          {error ? sentenceOf(error) : ''}
        </Text>
        <Button type="submit" size="lg" disabled={pin.length < 4} loading={isPending}>
          Go on as {others.find(({ id }) => id === chosen)?.name}
        </Button>
      </Stack>
    </form>
  );
}
