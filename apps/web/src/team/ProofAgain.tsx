import { Button, Group, Modal, PasswordInput, Stack, Text } from '@mantine/core';
import { sentences } from '@tempera/contract/sentences';
import type { Session } from '@tempera/contract/team';
import { useState, type SubmitEvent } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { answerProof, useProofAsked } from '../kernel/proof.ts';
import { askPasskey, noPasskeysHere, passkeySentence } from './passkeys.ts';
import { PinField } from './PinField.tsx';
import { useProveAgain, useWelcome } from './queries.ts';

/** What carries a name asks for its owner's PIN once more, where the last one was given a while ago. */
export function ProofAgain({ session }: { session: Session }) {
  if (!useProofAsked()) return null;
  return (
    <Modal opened onClose={() => answerProof(false)} title={`Is it still ${session.person.name}?`} centered>
      <ProofForm session={session} />
    </Modal>
  );
}

function ProofForm({ session: { person } }: { session: Session }) {
  const { data: welcome } = useWelcome();
  const { mutate, error: refused, isPending } = useProveAgain();
  const [noPasskey, setNoPasskey] = useState<string | null>(null);
  const error = noPasskey ?? (refused ? sentenceOf(refused) : '');
  const [secret, setSecret] = useState('');
  const [byPassword, setByPassword] = useState(false);
  // Only these come in by a password or a passkey, from where no tablet is enrolled.
  const comesFromAway = person.role === 'head' || person.role === 'office';
  const send = (event: SubmitEvent): void => {
    event.preventDefault();
    mutate(byPassword ? { password: secret } : { pin: secret }, {
      onSuccess: () => answerProof(true),
      onError: () => setSecret(''),
    });
  };
  const byPasskey = async (): Promise<void> => {
    try {
      const passkey = await askPasskey();
      setNoPasskey(null);
      mutate({ passkey }, { onSuccess: () => answerProof(true) });
    } catch (failed) {
      setNoPasskey(passkeySentence(failed));
    }
  };
  const demoPin = welcome?.demo?.pins[person.id];
  return (
    <form onSubmit={send}>
      <Stack>
        <Text>{sentences.pinAgain}</Text>
        {byPassword ? (
          <PasswordInput
            size="lg"
            label="Your password"
            autoComplete="current-password"
            value={secret}
            onChange={(event) => setSecret(event.currentTarget.value)}
          />
        ) : (
          <PinField
            label="Your PIN"
            first
            value={secret}
            onChange={setSecret}
            {...(demoPin === undefined ? {} : { description: `Demo café: the PIN is ${demoPin}.` })}
          />
        )}
        <Text role="alert" c="var(--out)">
          {error}
        </Text>
        <Group>
          <Button type="submit" size="lg" disabled={secret.length < 4} loading={isPending}>
            It is me
          </Button>
          <Button size="lg" variant="default" onClick={() => answerProof(false)}>
            Leave it
          </Button>
          {comesFromAway && noPasskeysHere() === null && (
            <Button size="lg" variant="subtle" onClick={() => void byPasskey()}>
              By passkey
            </Button>
          )}
          {comesFromAway && (
            <Button
              size="lg"
              variant="subtle"
              onClick={() => {
                setByPassword(!byPassword);
                setSecret('');
              }}
            >
              {byPassword ? 'By PIN' : 'By password'}
            </Button>
          )}
        </Group>
      </Stack>
    </form>
  );
}
