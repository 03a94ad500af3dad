import { Button, Checkbox, Group, Stack, Text, Title } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { RecipeVersion } from '@tempera/contract/house';
import { purgeAdviceG } from '@tempera/core/calibration';
import type { StepOf } from '@tempera/core/facts';
import { trialAxes, type TrialAxis } from '@tempera/core/taste';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import { axisWord } from './trialWords.ts';

interface TrialStartProps {
  /** The recipe in force for the coffee; null: it has none yet. */
  recipe: RecipeVersion | null;
  /** Where the coffee is in the hopper. */
  grinder: Grinder | null;
  onBegin: (began: Omit<StepOf<'trialBegan'>, 'step' | 'coffeeId'>) => void;
}

/** Where nobody says anything: the trade's plain double. */
const PLAIN = { doseG: 18, yieldG: 36, timeS: 27, tempC: 93 };

/** From where a trial sets out, and what it may vary. */
export function TrialStart({ recipe, grinder, onBegin }: TrialStartProps) {
  const roaster = recipe?.roaster ?? null;
  const house = recipe && {
    doseG: recipe.doseG,
    yieldG: recipe.yieldG,
    timeS: (recipe.timeMinS + recipe.timeMaxS) / 2,
    tempC: recipe.tempC,
  };
  const from = roaster ?? house ?? PLAIN;
  const [texts, setTexts] = useState({
    doseG: textOf('doseG', from.doseG),
    yieldG: textOf('yieldG', from.yieldG),
    timeS: textOf('timeS', from.timeS),
    tempC: textOf('tempC', from.tempC ?? house?.tempC ?? PLAIN.tempC),
  });
  const [axes, setAxes] = useState<readonly TrialAxis[]>(['ratio', 'timeS']);
  const [blind, setBlind] = useState(true);
  const read = {
    doseG: readQuantity(texts.doseG, 'doseG'),
    yieldG: readQuantity(texts.yieldG, 'yieldG'),
    timeS: readQuantity(texts.timeS, 'timeS'),
    tempC: readQuantity(texts.tempC, 'tempC'),
  };
  const begin = (): void => {
    const { doseG, yieldG, timeS, tempC } = read;
    if (!doseG.ok || !yieldG.ok || !timeS.ok || !tempC.ok) return;
    onBegin({
      trialId: uuidv7(),
      start: {
        doseG: doseG.value,
        ratio: Number((yieldG.value / doseG.value).toFixed(3)),
        timeS: timeS.value,
        tempC: tempC.value,
      },
      axes: trialAxes.filter((axis) => axes.includes(axis)),
      purgeG: purgeAdviceG(doseG.value, grinder?.retentionG ?? null),
      blind,
    });
  };
  const field = (name: keyof typeof texts, label: string, unit: string, step: number) => (
    <NumberField
      label={label}
      unit={unit}
      step={step}
      text={texts[name]}
      onText={(text) => setTexts((before) => ({ ...before, [name]: text }))}
      error={read[name].ok ? null : read[name].error}
      warning={read[name].ok ? read[name].warning : null}
    />
  );
  const allRead = Object.values(read).every(({ ok }) => ok);
  return (
    <section className="sheet" aria-label="The start">
      <Stack>
        <div>
          <Title order={2} size="h3">
            {roaster ? 'From the roaster’s start' : recipe ? 'From the recipe as it stands' : 'From a plain double'}
          </Title>
          <Text>
            At most eight cups, two at a time. You pull both, taste them side by side, and say which is better. After
            every pair the next two are chosen to say most for the coffee they take; it ends when more would change
            nothing.
          </Text>
        </div>
        <Group align="start">
          {field('doseG', 'Dose', 'g', 0.1)}
          {field('yieldG', 'Yield', 'g', 0.5)}
          {field('timeS', 'Time', 's', 1)}
          {axes.includes('tempC') && field('tempC', 'Water', '°C', 0.5)}
        </Group>
        <Checkbox.Group label="What may be varied" value={[...axes]} onChange={(value) => setAxes(value)}>
          <Group mt="xs">
            {trialAxes.map((axis) => (
              <Checkbox key={axis} size="lg" value={axis} label={axisWord[axis]} />
            ))}
          </Group>
        </Checkbox.Group>
        <Checkbox
          size="lg"
          label="Blind: whoever tastes does not see which cup is which"
          checked={blind}
          onChange={(event) => setBlind(event.currentTarget.checked)}
        />
        <div>
          <Button size="xl" disabled={!allRead || axes.length === 0} onClick={begin}>
            Begin the trial
          </Button>
        </div>
      </Stack>
    </section>
  );
}
