import { Button } from '@mantine/core';
import { useState } from 'react';
import { NewNote, Notes } from './Notes.tsx';

/** What is noted about a coffee; a new note is a tap away. */
export function CoffeeNotes({ coffeeId }: { coffeeId: string }) {
  const [writing, setWriting] = useState(false);
  return (
    <div>
      <Notes grinderId={null} coffeeId={coffeeId} />
      {writing ? (
        <NewNote grinderId={null} coffeeId={coffeeId} />
      ) : (
        <Button variant="subtle" color="umber" mih={48} onClick={() => setWriting(true)}>
          Note something
        </Button>
      )}
    </div>
  );
}
