import { Modal, Text } from '@mantine/core';
import { rolesWord, sentences } from '@tempera/contract/sentences';
import type { NewEntry } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { useOutbox } from '../kernel/facts.tsx';
import { askYes, useAsked, type Asked } from '../kernel/yes.ts';
import { useSkillsAsked } from './useSkillsAsked.ts';
import { YesForm } from './YesForm.tsx';

const close = (): void => askYes(null);

/** Whatever this person may not write alone waits here for somebody who may. */
export function AskYes({ session }: { session: Session }) {
  const asked = useAsked();
  if (!asked) return null;
  return (
    <Modal opened onClose={close} title="This needs a second person’s yes" centered>
      <Asking session={session} asked={asked} />
    </Modal>
  );
}

function Asking({ session, asked }: { session: Session; asked: Asked }) {
  const outbox = useOutbox();
  const trainedFor = asked.trained ? asked.entries : [];
  const { said } = useSkillsAsked(session, trainedFor);
  return (
    <>
      <Text mb="sm">{asked.trained ? sentences.notSignedOff(said) : sentences.needsRole(rolesWord(asked.roles))}</Text>
      <YesForm
        session={session}
        roles={asked.roles}
        trainedFor={trainedFor}
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
    </>
  );
}
