import { Button, Group, Stack, Text } from '@mantine/core';
import type { Kept, SheetChange } from '@tempera/contract/sheet';
import { useEffect, useState, type ReactNode } from 'react';
import type { z } from 'zod';
import { ApiProblem, sentenceOf } from '../kernel/api.ts';
import { staysHere } from '../kernel/whereabouts.ts';
import { moment } from '../kernel/format.ts';
import { useNow } from '../ui/useNow.ts';
import type { Field } from './fields.ts';
import { Overtaken } from './Overtaken.tsx';
import classes from './Sheet.module.css';
import { SheetFields } from './SheetFields.tsx';
import { useFollowed } from './useFollowed.ts';
import { useSheetForm } from './useSheetForm.ts';

interface Props<S extends z.ZodType> {
  schema: S;
  fields: readonly Field[];
  /** As it is kept; null for a new one. */
  current: Kept<z.output<S>> | null;
  /** What a new one starts from. */
  fresh: Partial<z.output<S>>;
  /** Null: this person reads only. */
  save: ((change: SheetChange<z.output<S>>) => Promise<unknown>) | null;
  /** Who may, when this person may not. */
  whoMay?: string;
  onDone: () => void;
  timeZone: string;
  retirable?: boolean;
  /** What follows from what stands in the form: a warning, a computed number. */
  aside?: (read: Record<string, unknown>) => ReactNode;
}

/** One sheet: read, changed, kept; and when two change it at once, the second sees both. */
export function SheetEditor<S extends z.ZodType>(props: Props<S>) {
  const { began, setChanged, beginAgain } = useFollowed(props.current, (kept) => kept?.revision ?? 0);
  return (
    <Editor key={began?.revision ?? 0} {...props} began={began} onChanged={setChanged} onBeginAgain={beginAgain} />
  );
}

interface EditorProps<S extends z.ZodType> extends Props<S> {
  began: Kept<z.output<S>> | null;
  onChanged: (changed: boolean) => void;
  onBeginAgain: () => void;
}

function Editor<S extends z.ZodType>(props: EditorProps<S>) {
  const { schema, fields, current, fresh, save, onDone, timeZone, retirable = true, aside, whoMay } = props;
  const { began, onChanged, onBeginAgain } = props;
  // What the form does not ask stays as it was kept.
  const sheetForm = useSheetForm(schema, fields, began?.sheet ?? fresh, (read) => ({
    ...(began?.sheet as object | undefined),
    ...read,
  }));
  const [basedOn, setBasedOn] = useState(began?.revision ?? 0);
  const [failure, setFailure] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const nowMs = useNow();
  const { changed } = sheetForm;
  const overtaken = current !== null && current.revision !== basedOn;
  useEffect(() => onChanged(changed), [changed, onChanged]);

  const send = async (retired: boolean): Promise<void> => {
    if (!sheetForm.check() || sheetForm.sheet === null || save === null) return;
    setBusy(true);
    setFailure(null);
    const isHere = staysHere();
    try {
      await save({ basedOn, retired, sheet: sheetForm.sheet });
      // Whoever has gone elsewhere meanwhile stays there.
      if (isHere()) onDone();
    } catch (error) {
      setFailure(error);
    } finally {
      setBusy(false);
    }
  };
  const problem = failure instanceof ApiProblem ? failure.problem : null;
  const refusals = problem?.fields?.map(({ message }) => message) ?? [];

  return (
    <Stack component="section" className="sheet" gap="md" aria-label="Sheet">
      {save === null && <Text>{whoMay ?? 'Only a head barista or the office changes this.'}</Text>}
      {current?.retired && <Text fw={600}>No longer in use. Its history is kept.</Text>}
      <SheetFields sheetForm={sheetForm} readOnly={save === null} />
      {aside?.(sheetForm.read)}
      {overtaken && changed && (
        <Overtaken
          by={current.changedBy}
          fields={fields}
          theirs={current.sheet}
          mine={sheetForm.read}
          onMine={() => setBasedOn(current.revision)}
          onTheirs={onBeginAgain}
        />
      )}
      {failure !== null && problem?.code !== 'changedMeanwhile' && (
        <div role="alert" className={classes.error}>
          {[...new Set(refusals.length > 0 ? refusals : [sentenceOf(failure)])].map((sentence) => (
            <Text key={sentence}>{sentence}</Text>
          ))}
        </div>
      )}
      {save !== null && (
        <Group>
          <Button size="lg" loading={busy} disabled={overtaken && changed} onClick={() => void send(false)}>
            {current?.retired ? 'Back in use' : current ? 'Keep it so' : 'Keep it'}
          </Button>
          <Button size="lg" variant="default" onClick={onDone}>
            {changed ? 'Leave it as it was' : 'Back'}
          </Button>
          {current && retirable && !current.retired && (
            <Button size="lg" variant="default" className={classes.retire} onClick={() => void send(true)}>
              Take out of use
            </Button>
          )}
        </Group>
      )}
      {current?.changedAt && (
        <Text className="faint">
          Changed {moment(Date.parse(current.changedAt), timeZone, nowMs)}
          {current.changedBy && ` by ${current.changedBy}`}, {current.revision}{' '}
          {current.revision === 1 ? 'revision' : 'revisions'} kept.
        </Text>
      )}
    </Stack>
  );
}
