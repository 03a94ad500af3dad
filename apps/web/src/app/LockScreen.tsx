import { Button, Modal, Text } from '@mantine/core';
import { useIdle } from '@mantine/hooks';
import type { Session } from '@tempera/contract/team';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useEffect } from 'react';
import { useClosed } from '../bar/index.ts';
import { setLocked, useLocked } from '../kernel/lock.ts';
import { endSession } from '../kernel/session.ts';
import { PinPad, useSignOut, useWelcome } from '../team/index.ts';
import { useNow } from '../ui/useNow.ts';

/** In service there is never a dead second; after the closing nobody stands here any more. */
const IDLE_MINUTES = 5;

/**
 * After the closing a tablet that nobody touches ends its session, and shows a lock over the page: what was on it is there again
 * once its person gives their PIN. A device of their own, where no PIN is taken, is theirs to lock.
 */
export function LockScreen({ session }: { session: Session }) {
  const locked = useLocked();
  const closed = useClosed(useNow()) !== null;
  const idle = useIdle(IDLE_MINUTES * MS_PER_MINUTE, { initialState: false });
  const { data: welcome } = useWelcome();
  const { mutate: signOut } = useSignOut();
  const site = welcome?.sites.find(({ id }) => id === session.site.id);
  const locks = closed && idle && !locked && site?.enrolled === true;
  useEffect(() => {
    if (!locks) return;
    setLocked(true);
    void endSession().catch(() => undefined);
  }, [locks]);
  if (!locked) return null;
  const leave = (): void => signOut();
  return (
    <Modal
      opened
      fullScreen
      withCloseButton={false}
      closeOnEscape={false}
      onClose={leave}
      zIndex={1_000}
      title="The bar is closed"
    >
      <Text ta="center">What {session.person.name} had in hand is kept behind this page.</Text>
      <PinPad
        person={session.person}
        site={site ?? null}
        demoPin={welcome?.demo?.pins[session.person.id] ?? null}
        onBack={leave}
      />
      <Text ta="center" mt="md">
        <Button variant="subtle" size="lg" onClick={leave}>
          Somebody else is here
        </Button>
      </Text>
    </Modal>
  );
}
