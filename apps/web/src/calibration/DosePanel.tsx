import { Button, Group, Stack, Title } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { RecipeVersion } from '@tempera/contract/house';
import { fitsBasket } from '@tempera/core/calibration';
import type { MeasuredBy } from '@tempera/core/facts';
import { limits, type ServicePolicy } from '@tempera/core/house';
import { useState } from 'react';
import type { BenchDevices } from '../capture/index.ts';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { reasonSaid } from '../ui/adviceWords.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { grams, seconds } from '../kernel/format.ts';
import { digitsShown, numberShown } from '../kernel/units.ts';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';

type Dosing = ServicePolicy['dosing'];

interface Props {
  recipe: RecipeVersion;
  /** What the basket is made for; null: nobody said. */
  basketG: Grinder['basketG'];
  /** How the house doses. */
  way: Dosing;
  /** The grind time to begin with; only what is dosed by time has one. */
  grindTimeS: number;
  devices: BenchDevices | null;
  /** Whether weighing is the thing to do now. */
  current: boolean;
  onKeep: (dose: { doseG: number; grindTimeS: number | null; measuredBy: MeasuredBy }) => void;
}

const doseButton: Record<Dosing, (timeS: number, doseG: number) => string> = {
  timed: (timeS) => `Grind ${seconds(timeS)}`,
  weighed: (_, doseG) => `Grind to ${grams(doseG)}`,
  levelled: () => 'Fill, strike level, weigh',
  line: () => 'Fill to the line, weigh',
  eye: () => 'Dose by eye, weigh',
};

/** Weigh the dose: ground onto the scale by time, to the weight or struck level, or typed; and judged at once. */
export function DosePanel({ recipe, basketG, way, grindTimeS, devices, current, onKeep }: Props) {
  const [timeText, setTimeText] = useState(grindTimeS.toFixed(1));
  const [text, setText] = useState('');
  const [weighed, setWeighed] = useState<{ doseG: number; grindTimeS: number | null } | null>(null);
  const [grinding, setGrinding] = useState(false);
  const [touched, setTouched] = useState(false);
  const time = readQuantity(timeText, 'grindTimeS');
  const dose = readQuantity(text, 'doseG', recipe.doseG);

  const timed = way === 'timed';
  const grindable = !timed || time.ok;
  const grind = (): void => {
    if (!devices || grinding || (timed && !time.ok)) return;
    setGrinding(true);
    setWeighed(null);
    const byTimeS = timed && time.ok ? time.value : null;
    const ground =
      byTimeS === null
        ? devices.grinder.doseBy(way === 'levelled' ? 'levelled' : 'weighed', recipe.doseG)
        : devices.grinder.grind(byTimeS, (reading) => setText(scaleText(reading)));
    void ground.then((doseG) => {
      setText(scaleText(doseG));
      setWeighed({ doseG, grindTimeS: byTimeS });
      setGrinding(false);
    });
  };
  const keep = (): void => {
    setTouched(true);
    if (!dose.ok || grinding) return;
    const byScale = weighed !== null && text === scaleText(weighed.doseG);
    onKeep({
      doseG: byScale ? weighed.doseG : dose.value,
      grindTimeS: byScale ? weighed.grindTimeS : null,
      measuredBy: byScale ? 'scale' : 'hand',
    });
  };
  useShortcuts({ g: grind, k: keep });
  const error = touched && !dose.ok ? dose.error : null;
  return (
    <Stack component="section" aria-label="Dose" gap="sm">
      <Title order={2} size="h3">
        Dose
      </Title>
      {devices && (
        <>
          {timed && (
            <NumberField
              label="Grind time"
              unit="s"
              step={limits.grindTimeS.step}
              text={timeText}
              onText={setTimeText}
              error={time.ok ? null : time.error}
            />
          )}
          <Button
            variant={weighed || !current ? 'default' : 'filled'}
            size="lg"
            onClick={grind}
            disabled={!grindable || grinding}
          >
            {grinding ? 'Grinding' : doseButton[way](time.ok ? time.value : grindTimeS, recipe.doseG)}
          </Button>
        </>
      )}
      <NumberField
        label={devices ? 'On the scale' : 'Weighed dose'}
        unit="g"
        step={limits.doseG.step}
        text={text}
        onText={(next) => {
          setText(next);
          setTouched(next !== '');
        }}
        error={error}
        warning={dose.ok && !grinding ? (outsideBasket(dose.value, basketG) ?? dose.warning) : null}
      />
      <BandRow
        name="Dose"
        value={dose.ok ? dose.value : null}
        shown={dose.ok ? grams(dose.value) : '–'}
        window={doseWindow(recipe)}
        unit="g"
      />
      <Group grow>
        <Button
          size="lg"
          variant={current && (weighed || !devices) ? 'filled' : 'default'}
          onClick={keep}
          disabled={grinding || text === ''}
        >
          Keep {dose.ok ? grams(dose.value) : 'this dose'}
        </Button>
      </Group>
    </Stack>
  );
}

/** Said before the shot: too much sticks to the screen, too little leaves a sludge. Null inside, or where nobody knows. */
const outsideBasket = (doseG: number, basketG: Grinder['basketG']): string | null =>
  basketG && !fitsBasket(doseG, basketG)
    ? reasonSaid({ code: 'basketTakes', doseG, minG: basketG.min, maxG: basketG.max })
    : null;

/** What the scale shows, in this person's unit. */
const scaleText = (g: number): string => numberShown('g', g).toFixed(digitsShown('g', 1));

/** The dose that waits in the portafilter. */
export function WeighedDose({
  recipe,
  doseG,
  onAgain,
}: {
  recipe: RecipeVersion;
  doseG: number;
  onAgain: (() => void) | null;
}) {
  return (
    <Stack component="section" aria-label="Dose" gap="sm">
      <Title order={2} size="h3">
        In the basket: {grams(doseG)}
      </Title>
      <BandRow name="Dose" value={doseG} window={doseWindow(recipe)} unit="g" />
      {onAgain && (
        <Button variant="default" onClick={onAgain}>
          Throw it out and weigh again
        </Button>
      )}
    </Stack>
  );
}

function doseWindow(recipe: RecipeVersion): { low: number; high: number } {
  return { low: recipe.doseG - recipe.doseToleranceG, high: recipe.doseG + recipe.doseToleranceG };
}
