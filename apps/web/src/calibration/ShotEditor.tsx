import { Button, Chip, Group, Modal, SimpleGrid, Stack, Text } from '@mantine/core';
import type { RecipeVersion } from '@tempera/contract/house';
import type { GoodBand } from '@tempera/core/capture';
import { sentences } from '@tempera/contract/sentences';
import { limits, type Quantity } from '@tempera/core/house';
import { flaws, type CorrectionBody, type FactOf, type Flaw } from '@tempera/core/facts';
import { Suspense, useState } from 'react';
import { LiveChart } from '../capture/index.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { grams } from '../kernel/format.ts';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import { flawWord } from '../journal/index.ts';
import classes from './PullPanel.module.css';

interface Props {
  shot: FactOf<'shot'>;
  recipe: RecipeVersion;
  /** Between what masses the house's good shots ran. */
  band: GoodBand | null;
  onClose: () => void;
  onCorrect: (correction: CorrectionBody) => void;
}

const fields = [
  { name: 'doseG', label: 'Dose' },
  { name: 'yieldG', label: 'Yield' },
  { name: 'timeS', label: 'Time' },
  { name: 'firstDropS', label: 'First drop' },
] as const satisfies readonly { name: Quantity; label: string }[];
type Field = (typeof fields)[number]['name'];

const SOUND = 'sound';

/** A shot as it is corrected: what is typed, what it reads as, and what would change. */
function useShotCorrection(body: FactOf<'shot'>['body']) {
  const [flaw, setFlaw] = useState<Flaw | null>(body.flaw);
  const [first] = useState<Record<Field, string>>(() => ({
    doseG: textOf('doseG', body.doseG),
    yieldG: textOf('yieldG', body.yieldG),
    timeS: String(body.timeS),
    firstDropS: body.firstDropS === null ? '' : String(body.firstDropS),
  }));
  const [texts, setTexts] = useState(first);
  const readings = Object.fromEntries(
    fields.map(({ name }) => [
      name,
      name === 'firstDropS' && texts[name].trim() === '' ? null : readQuantity(texts[name], name),
    ]),
  ) as Record<Field, ReturnType<typeof readQuantity> | null>;
  const value = (name: Field): number | null => {
    const reading = readings[name];
    return reading?.ok ? reading.value : null;
  };
  const lateDrop = (value('firstDropS') ?? 0) > (value('timeS') ?? Infinity);
  const broken = lateDrop || fields.some(({ name }) => readings[name]?.ok === false);

  const changes: NonNullable<CorrectionBody['shot']> = {};
  if (flaw !== body.flaw) changes.flaw = flaw;
  for (const name of ['doseG', 'yieldG', 'timeS'] as const) {
    const now = value(name);
    // A number that was not touched stays exactly as it was, whatever unit it is read in.
    if (now !== null && texts[name] !== first[name] && now !== body[name]) changes[name] = now;
  }
  if (value('firstDropS') !== body.firstDropS) changes.firstDropS = value('firstDropS');
  return { flaw, setFlaw, texts, setTexts, readings, lateDrop, broken, changes };
}

/** Marks a shot as flawed, or corrects its numbers, by a new fact that points at it. */
export function ShotEditor({ shot, recipe, band, onClose, onCorrect }: Props) {
  const { body } = shot;
  const { flaw, setFlaw, texts, setTexts, readings, lateDrop, broken, changes } = useShotCorrection(body);
  const unchanged = Object.keys(changes).length === 0;
  return (
    <Modal opened onClose={onClose} title="This shot" size="lg" centered>
      <Stack>
        {body.trace && (
          <div className={classes.chart} role="img" aria-label={`Mass and flow of this shot: ${grams(body.yieldG)}`}>
            <PanelBoundary what="The chart">
              <Suspense fallback={null}>
                <LiveChart
                  trace={body.trace}
                  firstDropS={body.firstDropS}
                  stoppedAtS={body.timeS}
                  recipe={recipe}
                  band={band}
                />
              </Suspense>
            </PanelBoundary>
          </div>
        )}
        <Text>A flawed shot stays in the journal; the engine then does not count it as plain evidence.</Text>
        <Chip.Group value={flaw ?? SOUND} onChange={(next) => setFlaw(next === SOUND ? null : next)}>
          <Group gap="xs" role="group" aria-label="Flaw">
            <Chip value={SOUND} size="lg">
              Sound
            </Chip>
            {flaws.map((name) => (
              <Chip key={name} value={name} size="lg">
                {flawWord[name]}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
        <SimpleGrid cols={{ base: 1, sm: 2 }}>
          {fields.map((field) => (
            <Cell
              key={field.name}
              {...field}
              text={texts[field.name]}
              reading={readings[field.name]}
              onText={setTexts}
            />
          ))}
        </SimpleGrid>
        {lateDrop && (
          <Text c="error" role="alert">
            {sentences.firstDropAfterEnd}
          </Text>
        )}
        <Button
          size="lg"
          disabled={broken || unchanged}
          onClick={() => onCorrect({ factId: shot.id, withdrawn: false, shot: changes })}
        >
          Correct it
        </Button>
        <Button variant="default" onClick={() => onCorrect({ factId: shot.id, withdrawn: true, shot: null })}>
          It never happened: withdraw it
        </Button>
      </Stack>
    </Modal>
  );
}

interface CellProps {
  name: Field;
  label: string;
  text: string;
  reading: ReturnType<typeof readQuantity> | null;
  onText: (change: (texts: Record<Field, string>) => Record<Field, string>) => void;
}

function Cell({ name, label, text, reading, onText }: CellProps) {
  const { unit, step } = limits[name];
  return (
    <NumberField
      label={label}
      unit={unit}
      step={step}
      text={text}
      optional={name === 'firstDropS'}
      onText={(next) => onText((texts) => ({ ...texts, [name]: next }))}
      error={reading?.ok === false ? reading.error : null}
      warning={reading?.ok ? reading.warning : null}
    />
  );
}
