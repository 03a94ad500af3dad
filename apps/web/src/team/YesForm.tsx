import { Button, Group, Select, Stack, Text } from '@mantine/core';
import type { NewEntry } from '@tempera/contract/journal';
import type { Role, Session } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { PinField } from './PinField.tsx';
import { useGiveYes, useWelcome } from './queries.ts';
import { useSkillsAsked } from './useSkillsAsked.ts';

interface YesFormProps {
  session: Session;
  /** Who may say yes. */
  roles: readonly Role[];
  /** What they are to be signed off for, where the house asks for that. */
  trainedFor?: readonly NewEntry[];
  onYes: (yesId: string) => void;
  onNo: () => void;
}

/** A second person's PIN, without a change of who is at the tablet. */
export function YesForm({ session, roles, trainedFor = [], onYes, onNo }: YesFormProps) {
  const { data: welcome } = useWelcome();
  const { may } = useSkillsAsked(session, trainedFor);
  const people = (welcome?.sites.find(({ id }) => id === session.site.id)?.people ?? []).filter(
    ({ id, role, hasPin }) => id !== session.person.id && hasPin && roles.includes(role) && may(id),
  );
  const [personId, setPersonId] = useState<string | null>(null);
  const [pin, setPin] = useState('');
  const { mutate, error, isPending } = useGiveYes();
  const chosen = personId ?? people[0]?.id ?? null;
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    if (chosen === null) return;
    mutate({ personId: chosen, pin }, { onSuccess: ({ id }) => onYes(id), onError: () => setPin('') });
  };
  const demoPin = chosen === null ? undefined : welcome?.demo?.pins[chosen];
  return (
    <form onSubmit={send}>
      <Stack>
        <Select
          label="Who says yes"
          size="md"
          allowDeselect={false}
          value={chosen}
          data={people.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setPersonId}
        />
        <PinField
          label="Their PIN"
          first
          value={pin}
          onChange={setPin}
          {...(demoPin === undefined ? {} : { description: `Demo café: the PIN is ${demoPin}.` })}
        />
        <Text role="alert" c="var(--out)">
          {error ? sentenceOf(error) : ''}
        </Text>
        <Group>
          <Button type="submit" size="lg" disabled={chosen === null || pin.length < 4} loading={isPending}>
            Yes
          </Button>
          <Button size="lg" variant="default" onClick={onNo}>
            Leave it
          </Button>
        </Group>
      </Stack>
    </form>
  );
}
