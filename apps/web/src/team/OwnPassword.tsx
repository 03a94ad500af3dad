import '@mantine/core/styles/PasswordInput.css';
import { Button, PasswordInput, Stack, Text, Title } from '@mantine/core';
import { newPasswordSchema } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { PinField } from './PinField.tsx';
import { useSetPassword } from './queries.ts';

/** A long password, for where no device of the house is at hand. */
export function OwnPassword() {
  const [typed, setTyped] = useState({ pin: '', password: '' });
  const [asked, setAsked] = useState(false);
  const { mutate, error, isPending, isSuccess } = useSetPassword();
  const wanted = newPasswordSchema.safeParse(typed);
  const errorAt = (field: string): string | undefined =>
    asked ? wanted.error?.issues.find(({ path }) => path[0] === field)?.message : undefined;
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    setAsked(true);
    if (!wanted.success) return;
    mutate(wanted.data, {
      onSuccess: () => {
        setTyped({ pin: '', password: '' });
        setAsked(false);
      },
    });
  };
  return (
    <form onSubmit={send} className="sheet" aria-labelledby="own-password">
      <Stack gap="sm">
        <Title order={2} size="h3" id="own-password">
          A password, for elsewhere
        </Title>
        <Text className="faint">
          At a device of the house your PIN is enough. From your own computer you come in by your name and this
          password.
        </Text>
        <PinField
          label="Your PIN, once more"
          value={typed.pin}
          onChange={(pin) => setTyped({ ...typed, pin })}
          error={errorAt('pin')}
        />
        <PasswordInput
          label="A password of twelve letters or more"
          size="md"
          autoComplete="new-password"
          value={typed.password}
          error={errorAt('password')}
          onChange={(event) => setTyped({ ...typed, password: event.currentTarget.value })}
        />
        <Text role="alert" c="var(--out)">
          {error ? sentenceOf(error) : ''}
        </Text>
        {isSuccess && <Text role="status">Your password is set.</Text>}
        <div>
          <Button type="submit" size="lg" variant="default" loading={isPending}>
            Set the password
          </Button>
        </div>
      </Stack>
    </form>
  );
}
