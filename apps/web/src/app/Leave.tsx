import { Button, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { useState } from 'react';
import { useSignOut, useWelcome } from '../team/index.ts';

/** Leaves the tablet to whoever comes next. Where nobody could come in before the server is back, it asks once more. */
export function Leave({ session, alone }: { session: Session; alone: boolean }) {
  const signOut = useSignOut();
  const { data: welcome } = useWelcome();
  const [warned, setWarned] = useState(false);
  const showsNames = welcome?.sites.some(({ id, enrolled }) => enrolled && id === session.site.id) ?? true;
  const shuts = alone && !showsNames;
  return (
    <>
      {shuts && warned && (
        <Text role="alert">
          The server is out of reach, and a device that is none of the house shows no names: nobody comes in here before
          it is back.
        </Text>
      )}
      <Button
        size="lg"
        variant="default"
        onClick={() => (shuts && !warned ? setWarned(true) : signOut.mutate())}
        loading={signOut.isPending}
      >
        {shuts && warned ? 'Hand over all the same' : 'Hand over to someone else'}
      </Button>
    </>
  );
}
