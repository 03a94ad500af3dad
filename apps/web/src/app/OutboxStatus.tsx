import { Button, Group, Modal, Stack, Text } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { IconCloudOff, IconCloudUp } from '@tabler/icons-react';
import type { NewEntry } from '@tempera/contract/journal';
import { actOf, rights } from '@tempera/contract/rights';
import type { Role, Session } from '@tempera/contract/team';
import { useState } from 'react';
import { factLine, kindWord } from '../journal/index.ts';
import { clock, moment } from '../kernel/format.ts';
import { YesForm } from '../team/index.ts';
import { useNow } from '../ui/useNow.ts';
import { useOutbox, useUnsent } from '../kernel/facts.tsx';
import type { Entry } from '../kernel/outbox.ts';

/** What this device has not sent yet, and whether the server is in reach. Silent when all is well. */
export function OutboxStatus({ aloneSinceMs, session }: { aloneSinceMs: number | null; session: Session }) {
  const inReach = aloneSinceMs === null;
  const since = aloneSinceMs === null ? '' : clock(aloneSinceMs, session.site.timeZone);
  const unsent = useUnsent();
  const [opened, { open, close }] = useDisclosure(false);
  if (inReach && unsent.length === 0) return null;
  const waiting = unsent.filter(({ told }) => !told).length;
  const counted = countWord(unsent, waiting);
  return (
    <>
      <Button
        className="frame-status"
        variant="default"
        px="sm"
        leftSection={
          inReach ? <IconCloudUp size={20} aria-hidden="true" /> : <IconCloudOff size={20} aria-hidden="true" />
        }
        onClick={open}
        aria-live="polite"
        aria-label={[inReach ? [] : `Alone since ${since}`, counted ?? []].flat().join(', ')}
      >
        {!inReach && (
          <span className="frame-status-word">
            Alone since
            {counted !== null && ` ${since},`}
          </span>
        )}
        {counted ?? since}
      </Button>
      <Modal
        opened={opened}
        onClose={close}
        title={unsent.length > 0 && waiting === 0 ? 'Not confirmed yet' : 'Not sent yet'}
        size="lg"
        centered
      >
        <Stack>
          <Text>
            {inReach && waiting === 0
              ? 'The house has these by name alone. They are sent once more under the PIN, and stand as confirmed then.'
              : inReach
                ? 'These entries are kept on this device until the server has them.'
                : `The server cannot be reached since ${since}. Go on working: entries are kept on this device and sent in order later.`}
          </Text>
          {opened && <UnsentList unsent={unsent} session={session} />}
        </Stack>
      </Modal>
    </>
  );
}

/** What waits here, counted by what it waits for; null: nothing does. */
function countWord(unsent: readonly Entry[], waiting: number): string | null {
  const refused = unsent.filter((entry) => entry.refusal !== null).length;
  if (refused > 0) return `${refused} refused`;
  if (waiting > 0) return `${waiting} unsent`;
  return unsent.length > 0 ? `${unsent.length} unconfirmed` : null;
}

/** Nobody reads on; a shift that was alone leaves thousands. */
const MOST_SHOWN = 50;

/** What somebody has to decide comes first, then what goes next. */
function UnsentList({ unsent, session }: { unsent: readonly Entry[]; session: Session }) {
  const refused = unsent.filter(({ refusal }) => refusal !== null);
  const rest = unsent.filter(({ refusal }) => refusal === null);
  return (
    <>
      {[...refused, ...rest.slice(0, MOST_SHOWN)].map((entry) => (
        <UnsentEntry
          key={entry.fact.id}
          entry={entry}
          foreign={entry.fact.personId !== session.person.id}
          session={session}
        />
      ))}
      {rest.length > MOST_SHOWN && <Text>And {rest.length - MOST_SHOWN} more after these, in their order.</Text>}
    </>
  );
}

interface UnsentEntryProps {
  entry: Entry;
  foreign: boolean;
  session: Session;
}

/** One entry that waits: what it says, why it was refused, and what can be done with it. Nothing is only dropped. */
function UnsentEntry({ entry: { fact, refusal, code }, foreign, session }: UnsentEntryProps) {
  const outbox = useOutbox();
  const [asks, setAsks] = useState(false);
  const [goes, setGoes] = useState(false);
  const nowMs = useNow();
  const waits = foreign ? 'Waits until the one who made it signs in here.' : 'Waits to be sent.';
  return (
    <Stack className="sheet" gap="xs">
      <Text>
        {wordsOf(fact)}
        <span className="faint"> {moment(Date.parse(fact.at), session.site.timeZone, nowMs)}</span>
      </Text>
      <Text className={refusal === null ? 'faint' : undefined}>{refusal ?? waits}</Text>
      {refusal !== null && !asks && (
        <Group gap="xs">
          {(code === 'needsRole' || code === 'notSignedOff') && !foreign ? (
            <Button onClick={() => setAsks(true)}>Ask for a yes</Button>
          ) : (
            <Button onClick={() => void outbox.sendAgain(fact.id)}>Send it again</Button>
          )}
          <Button variant="default" onClick={() => save(fact)}>
            Save it as a file
          </Button>
          <Button variant="default" onClick={() => (goes ? void outbox.discard(fact.id) : setGoes(true))}>
            {goes ? 'Yes, it did not happen' : 'Let it go'}
          </Button>
        </Group>
      )}
      {asks && (
        <YesForm
          session={session}
          roles={rolesFor(fact)}
          trainedFor={code === 'notSignedOff' ? [fact] : []}
          onNo={() => setAsks(false)}
          onYes={(yesId) => void outbox.sendAgain(fact.id, yesId)}
        />
      )}
    </Stack>
  );
}

/** What it says, in plain words; an entry that this page cannot read any more is at least called by its kind. */
function wordsOf(fact: NewEntry): string {
  try {
    return `${kindWord[fact.kind]}: ${factLine(fact, null)}`;
  } catch {
    return kindWord[fact.kind];
  }
}

/** Who may say yes to it; to what undoes another's entry, a head always may. */
function rolesFor(fact: NewEntry): readonly Role[] {
  const act = actOf(fact);
  return act === null ? ['head'] : rights[act].write;
}

/** A refused entry leaves the device as it was written, for whoever keeps the books. */
function save(fact: NewEntry): void {
  const address = URL.createObjectURL(new Blob([JSON.stringify(fact, null, 2)], { type: 'application/json' }));
  const link = Object.assign(document.createElement('a'), { href: address, download: `entry-${fact.id}.json` });
  link.click();
  URL.revokeObjectURL(address);
}
