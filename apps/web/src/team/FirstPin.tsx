import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { firstPinSchema, type Person } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { PinField } from './PinField.tsx';
import { useFirstPin } from './queries.ts';
import classes from './SignInPage.module.css';

/** The first time, or after a new code was handed out: the code, and a PIN of one's own, twice. */
export function FirstPin({ person, onBack }: { person: Pick<Person, 'id' | 'name'>; onBack: () => void }) {
  const [typed, setTyped] = useState({ code: '', pin: '', again: '' });
  const [asked, setAsked] = useState(false);
  const { mutate, error, isPending } = useFirstPin();
  const wanted = firstPinSchema.safeParse({ personId: person.id, code: typed.code, pin: typed.pin });
  const errorAt = (field: string): string | undefined =>
    asked ? wanted.error?.issues.find(({ path }) => path[0] === field)?.message : undefined;
  const differs = typed.pin !== typed.again;
  const set = (field: keyof typeof typed) => (value: string) => setTyped((before) => ({ ...before, [field]: value }));
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    setAsked(true);
    if (wanted.success && !differs) mutate({ personId: person.id, code: typed.code, pin: typed.pin });
  };
  return (
    <form onSubmit={send} className={classes.page}>
      <Stack maw={420} mx="auto">
        <Title order={1}>{person.name}, choose your PIN</Title>
        <Text>Type the code that your head barista gave you, and a PIN of 4 to 8 digits that nobody would guess.</Text>
        <PinField label="The code" value={typed.code} onChange={set('code')} error={errorAt('code')} shown />
        <PinField label="Your PIN" value={typed.pin} onChange={set('pin')} error={errorAt('pin')} />
        <PinField
          label="Your PIN once more"
          value={typed.again}
          onChange={set('again')}
          error={asked && differs ? 'The two differ. Type both again.' : undefined}
        />
        <Text role="alert" mih={28} c="error">
          {error ? sentenceOf(error) : ''}
        </Text>
        <Group>
          <Button type="submit" size="lg" loading={isPending}>
            Sign in
          </Button>
          <Button size="lg" variant="default" onClick={onBack}>
            Another name
          </Button>
        </Group>
      </Stack>
    </form>
  );
}
