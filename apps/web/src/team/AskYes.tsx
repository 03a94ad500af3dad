import { Modal, Text } from '@mantine/core';
import { rolesWord, sentences } from '@tempera/contract/sentences';
import type { Session } from '@tempera/contract/team';
import { useOutbox } from '../kernel/facts.tsx';
import { askYes, useAsked } from '../kernel/yes.ts';
import { YesForm } from './YesForm.tsx';

/** Whatever this person may not write alone waits here for somebody who may. */
export function AskYes({ session }: { session: Session }) {
  const asked = useAsked();
  const outbox = useOutbox();
  const close = (): void => askYes(null);
  if (!asked) return null;
  return (
    <Modal opened onClose={close} title="This needs a second person’s yes" centered>
      <Text mb="sm">{sentences.needsRole(rolesWord(asked.roles))}</Text>
      <YesForm
        session={session}
        roles={asked.roles}
        onNo={close}
        onYes={(yesId) => {
          void outbox.add(asked.entries.map((entry) => ({ ...entry, yesId })));
          close();
        }}
      />
    </Modal>
  );
}
