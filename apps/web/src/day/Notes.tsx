import { Button, Group, Text, TextInput } from '@mantine/core';
import { openNotes } from '@tempera/core/day';
import { useState, type SubmitEvent } from 'react';
import { useStandingFacts } from '../bar/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import classes from './Day.module.css';

/** What is noted most, in one tap. */
const READY = {
  coffee: ['Tastes flat', 'Nearly out', 'Opened early, use it first'],
  grinder: ['The collar sticks', 'It runs slower than it did', 'Grounds clump'],
  day: ['A gasket leaks', 'The scale drifts', 'Milk is short', 'A filter falls due'],
};

interface Props {
  /** Null: notes of the day, or of a coffee. */
  grinderId: string | null;
  /** Null: not of a coffee. */
  coffeeId?: string | null;
}

/** Open notes about a grinder, a coffee or the day, each until somebody calls it done. */
export function Notes({ grinderId, coffeeId = null }: Props) {
  const write = useWriteStep();
  const notes = openNotes(useStandingFacts()).filter(
    ({ body }) => body.grinderId === grinderId && body.coffeeId === coffeeId,
  );
  return notes.map(({ id, body }) => (
    <Group key={id} gap={8} className={classes.note}>
      <Text>{body.text}</Text>
      <Button
        variant="subtle"
        color="umber"
        mih={48}
        aria-label={`Done: ${body.text}`}
        onClick={() => write({ step: 'noteDone', noteId: id })}
      >
        Done
      </Button>
    </Group>
  ));
}

/** A new note, ready-made or typed. */
export function NewNote({ grinderId, coffeeId = null }: Props) {
  const write = useWriteStep();
  const [text, setText] = useState('');
  const note = (said: string): void => {
    const trimmed = said.trim();
    if (trimmed === '') return;
    write({ step: 'note', text: trimmed, grinderId, coffeeId });
    setText('');
  };
  const add = (event: SubmitEvent): void => {
    event.preventDefault();
    note(text);
  };
  return (
    <form onSubmit={add} className={classes.noPrint}>
      <Group gap={8} align="end">
        <TextInput
          label="A note"
          size="md"
          maxLength={200}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Button type="submit" mih={48} variant="default" disabled={text.trim() === ''}>
          Pin it
        </Button>
      </Group>
      <Group gap={8} mt={8}>
        {READY[coffeeId !== null ? 'coffee' : grinderId === null ? 'day' : 'grinder'].map((ready) => (
          <Button key={ready} mih={48} px="sm" variant="default" onClick={() => note(ready)}>
            {ready}
          </Button>
        ))}
      </Group>
    </form>
  );
}
