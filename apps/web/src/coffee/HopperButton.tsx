import { Button } from '@mantine/core';
import { useState } from 'react';
import { nameIn, useBar } from '../bar/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { useSession } from '../kernel/session.ts';
import { NewBag } from './NewBagLater.ts';

/** Puts another bag into a grinder's hopper from wherever the grinder is shown. */
export function HopperButton({ grinderId }: { grinderId: string }) {
  const [open, setOpen] = useState(false);
  const write = useWriteFacts();
  const { data: bar } = useBar();
  const { data: session } = useSession();
  const ready = bar?.grinders.find(({ id }) => id === grinderId);
  const name = nameIn(bar, grinderId);
  if (!session || name === null) return null;
  return (
    <>
      <Button mih={48} variant={ready ? 'default' : 'filled'} onClick={() => setOpen(true)}>
        Put a bag in
      </Button>
      {open && (
        <NewBag
          grinder={{ id: grinderId, name, coffeeId: ready?.coffeeId ?? null, recipe: ready?.recipe ?? null }}
          timeZone={session.site.timeZone}
          onClose={() => setOpen(false)}
          onSave={(body) => {
            write([{ kind: 'newBag', grinderId, groupId: null, body }]);
            setOpen(false);
          }}
        />
      )}
    </>
  );
}
