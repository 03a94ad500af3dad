import { Modal, Text } from '@mantine/core';
import { rolesWord, sentences } from '@tempera/contract/sentences';
import type { NewEntry } from '@tempera/contract/journal';
import { skillSaid } from '@tempera/contract/signOffs';
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
      <Text mb="sm">
        {asked.skill ? sentences.notSignedOff(skillSaid[asked.skill]) : sentences.needsRole(rolesWord(asked.roles))}
      </Text>
      <YesForm
        session={session}
        roles={asked.roles}
        {...(asked.skill ? { skill: asked.skill } : {})}
        onNo={close}
        onYes={(yesId) => {
          const refused = new Set(outbox.entries().map(({ fact }) => fact.id));
          const isRefused = ({ id }: NewEntry): boolean => refused.has(id);
          for (const { id } of asked.entries.filter(isRefused)) void outbox.sendAgain(id, yesId);
          const unsent = asked.entries.filter((entry) => !isRefused(entry));
          if (unsent.length > 0) void outbox.add(unsent.map((entry) => ({ ...entry, yesId })));
          close();
        }}
      />
    </Modal>
  );
}
