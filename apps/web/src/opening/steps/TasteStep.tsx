import { Button, Chip, Group, Select, Slider, Stack, Text } from '@mantine/core';
import { dialOf } from '@tempera/contract/station';
import { collarStandsAt, purgeAdviceG, settingAt } from '@tempera/core/calibration';
import { ofGrinder, stepsOf } from '@tempera/core/facts';
import {
  extractionPct,
  parseNumber,
  tasteChange,
  tasteTable,
  type TasteChange,
  type TasteTable,
} from '@tempera/core/house';
import { useState } from 'react';
import { changeWord } from '../../house/index.ts';
import { BandRow } from '../../ui/BandRow.tsx';
import { useWriteFacts } from '../../kernel/facts.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import classes from '../Opening.module.css';
import type { StepProps } from './stepProps.ts';

const MIDDLE = 5;
/** Where the recipe says nothing of taste. */
const USUAL_AIM = { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 4, high: 7 } };
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
/** Tasters further apart than this did not taste the same thing. */
const FAR_APART = 3;

const axes = [
  { axis: 'sweetness', sip: 'First sip', ask: 'Sweetness', low: 'none', high: 'much' },
  {
    axis: 'sourBitter',
    sip: 'Second sip',
    ask: 'Sour or bitter',
    low: 'sour, like unripe citrus, at the sides, soon gone',
    high: 'bitter, like burnt toast, at the back, stays',
  },
  { axis: 'weakStrong', sip: 'Third sip', ask: 'Weak or strong', low: 'weak, watery', high: 'strong, heavy' },
  { axis: 'body', sip: 'Third sip', ask: 'Body', low: 'thin', high: 'thick' },
] as const;
type Axis = (typeof axes)[number]['axis'];
const untouched: Record<Axis, number | null> = { sweetness: null, sourBitter: null, weakStrong: null, body: null };

/** The sheet of each taster, and the one change that the house's school makes of them. */
export function TasteStep({ state, view, session, write }: StepProps) {
  const grinderId = state.job.stationId ?? '';
  const grinder = view.bar.grinders.find(({ id }) => id === grinderId);
  const [tasterId, setTasterId] = useState(session.person.id);
  const [tasted, setTasted] = useState(untouched);
  const [notes, setNotes] = useState<string[]>([]);
  const [tdsText, setTdsText] = useState('');
  const writeFacts = useWriteFacts();
  const sheets = stepsOf(view.facts, 'tasted')
    .filter(({ at }) => Date.parse(at) >= view.morning.fromMs)
    .map(({ body }) => body)
    .filter((body) => body.grinderId === grinderId);
  const table = tasteTable(sheets);
  if (!grinder) return null;
  const { recipe } = grinder;
  const aim = recipe.taste ?? USUAL_AIM;
  const change = table && tasteChange(table.mean, aim, view.bar.house.tasteLever);
  const tds = tdsText.trim() === '' ? null : parseNumber(tdsText);
  const measured = sheets.findLast(({ tdsPct }) => tdsPct !== null)?.tdsPct ?? null;
  /** A change is carried out: the day's aim follows from this step, and a turn of the collar is written as one, with its purge. */
  const settle = ({ lever, by }: TasteChange): void => {
    write({ step: 'tasteSettled', grinderId, change: { lever, by } });
    if (lever !== 'grind') return;
    const from = collarStandsAt(ofGrinder(view.facts, grinderId)) ?? grinder.seedSetting;
    const to = settingAt(dialOf(grinder), by * grinder.stepMarks, from);
    const at = { grinderId, groupId: null };
    writeFacts([
      { kind: 'collarMove', ...at, body: { from, to, advisedTo: to } },
      { kind: 'purge', ...at, body: { purgeG: purgeAdviceG(recipe.doseG, grinder.retentionG) } },
    ]);
  };
  return (
    <Stack>
      <Select
        label="Who tastes"
        size="lg"
        className={classes.taster}
        value={tasterId}
        allowDeselect={false}
        data={view.people.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(id) => {
          setTasterId(id ?? session.person.id);
          setTasted(untouched);
          setNotes([]);
        }}
      />
      <div className={classes.axes}>
        {axes.map(({ axis, sip, ask, low, high }) => (
          <div key={axis}>
            <Text>
              <span className="faint">{sip}: </span>
              <strong>{ask}</strong> <span className="number">{tasted[axis] ?? 'not said'}</span>
            </Text>
            <Slider
              aria-label={ask}
              min={0}
              max={10}
              step={1}
              size="xl"
              thumbSize={36}
              label={null}
              thumbLabel={ask}
              data-said={tasted[axis] !== null}
              className={classes.axis}
              value={tasted[axis] ?? MIDDLE}
              onChange={(value) => setTasted((before) => ({ ...before, [axis]: value }))}
              // A tap where the thumb stands says it too.
              onChangeEnd={(value) => setTasted((before) => ({ ...before, [axis]: value }))}
            />
            <Group justify="space-between" className="faint" gap="xs">
              <span>{low}</span>
              <span>{high}</span>
            </Group>
          </div>
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
      <div className={classes.fields}>
        <NumberField
          label="Strength"
          unit="% TDS"
          step={0.1}
          text={tdsText}
          onText={setTdsText}
          optional="if measured"
        />
      </div>
      <Button
        size="xl"
        className={classes.alone}
        variant={table ? 'default' : 'filled'}
        disabled={Object.values(tasted).every((score) => score === null) && notes.length === 0 && tds === null}
        onClick={() =>
          write({ step: 'tasted', grinderId, tasterId, ...tasted, notes, tdsPct: tds !== null && tds > 0 ? tds : null })
        }
      >
        Keep {view.nameOf(tasterId)}’s sheet
      </Button>
      {table && (
        <section aria-label="What the tasters say" className={classes.said}>
          <Text className="faint">
            {table.tasters === 1 ? 'One taster so far' : `${table.tasters} tasters, in the mean`}
            {table.apart >= FAR_APART && `; they lie ${Math.round(table.apart)} apart: taste the same cup again`}
          </Text>
          <BandRow
            name="Sour–bitter"
            unit=""
            missing="not said"
            value={table.mean.sourBitter}
            window={aim.sourBitter}
          />
          <BandRow
            name="Weak–strong"
            unit=""
            missing="not said"
            value={table.mean.weakStrong}
            window={aim.weakStrong}
          />
          {measured !== null && (
            <Text>
              {measured} % TDS: an extraction of{' '}
              <span className="number">{extractionPct(measured, recipe.yieldG, recipe.doseG).toFixed(1)} %</span>
            </Text>
          )}
          <Text fw={600} size="lg" aria-live="polite">
            {change ? `One change: ${changeWord(change.lever, change.by, recipe.yieldG)}.` : asItShould(table.mean)}
          </Text>
          <Group>
            <Button
              size="xl"
              variant={change ? 'default' : 'filled'}
              onClick={() => write({ step: 'tasteSettled', grinderId, change: null })}
            >
              It stays as it is
            </Button>
            {change && (
              <Button size="xl" onClick={() => settle(change)}>
                It is changed
              </Button>
            )}
          </Group>
        </section>
      )}
    </Stack>
  );
}

/** Nothing to change is a word of the tongue, and not of an axis that nobody touched. */
const asItShould = ({ sourBitter, weakStrong }: TasteTable['mean']): string =>
  sourBitter === null && weakStrong === null
    ? 'Nobody said whether it is sour or bitter, weak or strong.'
    : 'It tastes as it should.';
