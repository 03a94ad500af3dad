import { Button, Checkbox, Chip, Group, Select, Stack, Text } from '@mantine/core';
import type { Person } from '@tempera/contract/team';
import type { StepOf } from '@tempera/core/facts';
import { parseNumber } from '@tempera/core/house';
import { comparisons, untasted, type Comparison, type TasteAxis, type Tasted } from '@tempera/core/taste';
import { useState } from 'react';
import { NumberField } from '../ui/NumberField.tsx';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './Taste.module.css';
import { axisWords, sips } from './tasteWords.ts';

/** Five taps from little to much; the sheet's points run from 0 to 10. */
const SCORES = [1, 3, 5, 7, 9] as const;
const noteWords = [
  'citrus',
  'berry',
  'stone fruit',
  'caramel',
  'chocolate',
  'nut',
  'flower',
  'spice',
  'burnt',
  'hollow',
];

interface TasteSheetFormProps {
  people: readonly Pick<Person, 'id' | 'name'>[];
  /** Who stands here; another's sheet is written as told by them. */
  personId: string;
  /** Whether another cup was tasted before this one today. */
  hasEarlier: boolean;
  /** Whether nothing is said yet, so that this sheet is the next thing. */
  first: boolean;
  onKeep: (sheet: Omit<StepOf<'tasted'>, 'step' | 'grinderId' | 'shotId'>) => void;
}

/** One taster's sheet: three sips, each axis unset until it is touched. */
export function TasteSheetForm({ people, personId, hasEarlier, first, onKeep }: TasteSheetFormProps) {
  const [tasterId, setTasterId] = useState(personId);
  const [tasted, setTasted] = useState<Tasted>(untasted);
  const [than, setThan] = useState<Comparison | null>(null);
  const [notes, setNotes] = useState<string[]>([]);
  const [inMilk, setInMilk] = useState(false);
  const [tdsText, setTdsText] = useState('');
  const tds = tdsText.trim() === '' ? null : parseNumber(tdsText);
  const empty =
    Object.values(tasted).every((score) => score === null) && notes.length === 0 && tds === null && than === null;
  const name = people.find(({ id }) => id === tasterId)?.name ?? '';
  const clear = (): void => {
    setTasted(untasted);
    setThan(null);
    setNotes([]);
    setTdsText('');
  };
  const keep = (): void => {
    const { body, sweetness, ...axes } = tasted;
    onKeep({
      tasterId,
      ...axes,
      body,
      sweetness,
      sourBitter: null,
      weakStrong: null,
      ...(than ? { than } : {}),
      ...(inMilk ? { inMilk } : {}),
      notes,
      tdsPct: tds !== null && tds > 0 ? tds : null,
    });
    clear();
  };
  return (
    <Stack>
      {hasEarlier && (
        <div>
          <Text fw={600} id="than">
            Against the last cup
          </Text>
          <OneOf
            labelledBy="than"
            large
            className={classes.score}
            value={than}
            options={comparisons}
            onChange={setThan}
          />
        </div>
      )}
      <div className={classes.sips}>
        {sips.map(({ name: sip, axes }) => (
          <fieldset key={sip} className={classes.sip}>
            <legend>{sip}</legend>
            {axes.map((axis) => (
              <Axis
                key={axis}
                axis={axis}
                score={tasted[axis]}
                onScore={(score) => setTasted((before) => ({ ...before, [axis]: score }))}
              />
            ))}
          </fieldset>
        ))}
      </div>
      <Chip.Group multiple value={notes} onChange={setNotes}>
        <Group gap="xs" role="group" aria-label="Notes">
          {noteWords.map((note) => (
            <Chip key={note} value={note} size="md">
              {note}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      <Group align="end">
        <Select
          label="Who tastes"
          size="md"
          value={tasterId}
          allowDeselect={false}
          data={people.map(({ id, name: label }) => ({ value: id, label }))}
          onChange={(id) => {
            setTasterId(id ?? personId);
            clear();
          }}
        />
        <NumberField
          label="Strength"
          unit="% TDS"
          step={0.1}
          text={tdsText}
          onText={setTdsText}
          optional="if measured"
        />
        <Checkbox
          size="lg"
          label="In milk, as it is drunk"
          checked={inMilk}
          onChange={(event) => setInMilk(event.currentTarget.checked)}
        />
      </Group>
      <div className={classes.keep} data-first={first}>
        <Button size="xl" variant={first ? 'filled' : 'default'} disabled={empty} onClick={keep}>
          {tasterId === personId ? `Keep ${name}’s sheet` : `Keep what ${name} says`}
        </Button>
      </div>
    </Stack>
  );
}

interface AxisProps {
  axis: TasteAxis;
  score: number | null;
  onScore: (score: number) => void;
}

/** One axis: five taps, and what its ends are like. */
function Axis({ axis, score, onScore }: AxisProps) {
  const { name, little, much } = axisWords[axis];
  return (
    <div>
      <Text id={`axis-${axis}`} fw={600}>
        {name} {score === null && <span className="faint">not said</span>}
      </Text>
      <OneOf
        labelledBy={`axis-${axis}`}
        large
        fullWidth
        className={classes.score}
        value={score === null ? null : String(score)}
        options={SCORES.map(String)}
        onChange={(value) => onScore(Number(value))}
      />
      <div className={classes.ends}>
        <span>{little}</span>
        <span>{much}</span>
      </div>
    </div>
  );
}
