import { Button, Stack, Text } from '@mantine/core';
import { yieldWays, type YieldWay } from '@tempera/core/facts';
import { useEffect, useId, useRef } from 'react';
import { grams } from '../kernel/format.ts';
import { Keypad } from '../ui/Keypad.tsx';
import type { Reading } from '../ui/NumberField.tsx';
import { OneOf } from '../ui/OneOf.tsx';
import type { HandNumbers } from './benchFacts.ts';
import type { EntryField } from './entryMoves.ts';
import classes from './HandEntry.module.css';
import { useShotEntry, type EntryStart } from './useShotEntry.ts';

interface Props extends EntryStart {
  /** What stands in the simulated cup, g; null where nothing is simulated. */
  cupG: number | null;
  onKeep: (numbers: HandNumbers) => void;
  onDiscard: () => void;
}

const label: Record<EntryField, string> = { yield: 'Yield', time: 'Time', drop: 'First drop', dose: 'Dose' };
/** Weighed after a timed stop is weighed: nobody has to say so here. */
const ways = yieldWays.filter((way) => way !== 'weighedAfter');
const wayWord: Record<(typeof ways)[number], string> = {
  scale: 'Weighed',
  glass: 'Glass',
  volume: 'Counter',
  eye: 'By eye',
};

/** A shot's numbers by hand: a keypad that starts at the aim, or a keyboard; Enter keeps from any field. */
export function HandEntry({ cupG, onKeep, onDiscard, ...start }: Props) {
  const shot = useShotEntry(start);
  const { entry, send, fields, readings, lateDrop } = shot;
  const inputs = useRef<Partial<Record<EntryField, HTMLInputElement | null>>>({});
  const { active } = entry;
  useEffect(() => {
    inputs.current[active]?.focus({ preventScroll: true });
    inputs.current[active]?.select();
  }, [active]);
  const decimals = fields.find(({ field }) => field === active)?.decimals ?? 1;
  const keep = (): void => {
    const numbers = shot.numbers();
    if (numbers) onKeep(numbers);
    else send({ kind: 'tried' });
  };
  const small = 10 ** -Math.max(1, decimals);
  return (
    <Stack gap="sm">
      <OneOf
        label="How the yield is read"
        fullWidth
        value={shot.way === 'weighedAfter' ? 'scale' : shot.way}
        onChange={(value) => shot.readBy(value)}
        options={ways.map((value) => ({ value, label: wayWord[value] }))}
      />
      <form
        className={classes.entry}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <div className={classes.fields}>
          {fields.map(({ field, unit }) => (
            <Field
              key={field}
              field={field}
              unit={unit}
              text={entry.texts[field]}
              active={field === active}
              reading={readings[field]}
              tried={entry.tried}
              error={field === 'drop' && lateDrop ? 'The first drop cannot fall after the shot has ended.' : null}
              inputRef={(input) => {
                inputs.current[field] = input;
              }}
              onFocus={() => send({ kind: 'focused', field })}
              onText={(text) => send({ kind: 'typed', field, text })}
            />
          ))}
        </div>
        <Keypad
          steps={decimals === 0 ? [1, 10] : [small, 10 * small]}
          onDigit={(digit) => send({ kind: 'digit', digit, decimals })}
          onBack={() => send({ kind: 'back', decimals })}
          onStep={(by) => send({ kind: 'stepped', by, decimals })}
        />
        <button type="submit" hidden />
      </form>
      <Said way={shot.way} inGlassG={shot.inGlassG} cupG={cupG} start={start} />
      <div className={classes.foot}>
        <Button className={classes.keep} onClick={keep}>
          Keep this shot
        </Button>
        <Button className={classes.keep} variant="default" onClick={onDiscard}>
          It was none
        </Button>
      </div>
    </Stack>
  );
}

interface FieldProps {
  field: EntryField;
  unit: string;
  text: string;
  active: boolean;
  reading: Reading | null;
  tried: boolean;
  error: string | null;
  inputRef: (input: HTMLInputElement | null) => void;
  onFocus: () => void;
  onText: (text: string) => void;
}

function Field({ field, unit, text, active, reading, tried, error, inputRef, onFocus, onText }: FieldProps) {
  const id = useId();
  const refused = reading && !reading.ok && (tried || text !== '') ? reading.error : null;
  const note = error ?? refused ?? (reading?.ok ? reading.warning : null);
  return (
    <div className={classes.field} data-active={active}>
      <label htmlFor={id}>
        {label[field]}
        <b className={classes.unit}>, {unit}</b>
      </label>
      <input
        id={id}
        aria-label={`${label[field]}, ${unit}${field === 'drop' ? ' (if seen)' : ''}`}
        ref={inputRef}
        inputMode="none"
        autoComplete="off"
        enterKeyHint="done"
        value={text}
        placeholder={field === 'drop' ? 'not seen' : undefined}
        aria-invalid={error !== null || refused !== null}
        aria-describedby={`${id}-note`}
        onFocus={onFocus}
        onChange={(event) => onText(event.currentTarget.value)}
      />
      <span className="faint" aria-hidden="true">
        {unit}
      </span>
      <p
        id={`${id}-note`}
        className={classes.note}
        data-error={(error ?? refused) !== null}
        role={(error ?? refused) === null ? undefined : 'alert'}
      >
        {note}
      </p>
    </div>
  );
}

/** What a reading that is no weight is taken for, and what stands in a simulated cup. */
function Said({
  way,
  inGlassG,
  cupG,
  start,
}: {
  way: YieldWay;
  inGlassG: number | null;
  cupG: number | null;
  start: EntryStart;
}) {
  const { gPerMl, count } = start.glass;
  const lines = [
    inGlassG === null
      ? null
      : `About ${grams(inGlassG)}, crema included: ${
          count === 0 ? 'as glasses usually weigh' : `as ${count} weighed ${count === 1 ? 'glass' : 'glasses'} say`
        }.`,
    way === 'eye' ? 'By eye it is heard with an eye’s doubt.' : null,
    cupG === null ? null : `In the simulated cup: ${grams(cupG)}, ${Math.round(cupG / gPerMl)} ml.`,
  ].filter((line) => line !== null);
  return lines.length === 0 ? null : <Text className="faint">{lines.join(' ')}</Text>;
}
