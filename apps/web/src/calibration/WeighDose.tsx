import { Button, Stack } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { benchTargetOf } from '@tempera/contract/station';
import { tooSmallOrLarge } from '@tempera/core/calibration';
import type { DoseBody } from '@tempera/core/facts';
import { limits, type ServicePolicy } from '@tempera/core/house';
import { useState } from 'react';
import { useOnScale, type BenchDevices } from '../capture/index.ts';
import { grams, seconds } from '../kernel/format.ts';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { digitsShown, numberShown } from '../kernel/units.ts';
import { reasonSaid } from '../ui/adviceWords.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';
import { doseWindow } from './doseWindow.ts';

type Dosing = ServicePolicy['dosing'];

interface Props {
  grinder: Grinder;
  /** What is asked for, g. */
  askedG: number;
  /** How the house doses. */
  dosing: Dosing;
  /** Beans are weighed before they are ground, and not the grounds after. */
  beans: boolean;
  /** The grind time to begin with; only what is dosed by time has one. */
  grindTimeS: number;
  devices: BenchDevices | null;
  /** Whether weighing is the thing to do now. */
  current: boolean;
  onKeep: (dose: Omit<DoseBody, 'setting'>) => void;
}

const doseButton: Record<Dosing, (timeS: number, doseG: number) => string> = {
  timed: (timeS) => `Grind ${seconds(timeS)}`,
  weighed: (_, doseG) => `Grind to ${grams(doseG)}`,
  levelled: () => 'Fill, strike level, weigh',
  line: () => 'Fill to the line, weigh',
  eye: () => 'Dose by eye, weigh',
};

/** What the scale shows, in this person's unit. */
const scaleText = (g: number): string => numberShown('g', g).toFixed(digitsShown('g', 1));

/** A dose as it comes onto the scale: ground, read or typed, and topped up where a second go is needed. */
function useWeighing({ askedG, dosing, beans, grindTimeS, devices, onKeep }: Props) {
  const [timeText, setTimeText] = useState(grindTimeS.toFixed(1));
  const [text, setText] = useState('');
  const [weighed, setWeighed] = useState<{ doseG: number; grindTimeS: number | null } | null>(null);
  const [firstPart, setFirstPart] = useState<{ doseG: number; grindTimeS: number | null } | null>(null);
  const [grinding, setGrinding] = useState(false);
  const [touched, setTouched] = useState(false);
  const time = readQuantity(timeText, 'grindTimeS');
  const dose = readQuantity(text, 'doseG', askedG);
  const timed = dosing === 'timed' && !beans;
  const grinder = devices?.grinder ?? null;
  const onScale = useOnScale(devices?.scale ?? null);
  const grind = (): void => {
    if (!grinder || grinding || (timed && !time.ok)) return;
    setGrinding(true);
    setWeighed(null);
    const byTimeS = timed && time.ok ? time.value : null;
    const ground =
      byTimeS === null
        ? grinder.doseBy(dosing === 'timed' ? 'weighed' : dosing, askedG)
        : grinder.grind(byTimeS, (reading) => setText(scaleText(reading)));
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
    const byTimeS = timed && time.ok && !grinder ? time.value : null;
    onKeep({
      doseG: byScale ? weighed.doseG : dose.value,
      grindTimeS: firstPart ? firstPart.grindTimeS : byScale ? weighed.grindTimeS : byTimeS,
      measuredBy: byScale ? 'scale' : 'hand',
      ...(beans ? { way: 'beans' as const } : {}),
      ...(firstPart ? { firstPartG: firstPart.doseG } : {}),
    });
  };
  return {
    timed,
    grinds: grinder !== null,
    onScale,
    /** What stands on the scale is the dose. */
    take: (): void => {
      if (!onScale) return;
      const doseG = Math.round(10 * onScale.g) / 10;
      setText(scaleText(doseG));
      setWeighed({ doseG, grindTimeS: timed && time.ok ? time.value : null });
      setTouched(true);
    },
    timeText,
    setTimeText,
    time,
    text,
    setText: (next: string): void => {
      setText(next);
      setTouched(next !== '');
    },
    dose,
    weighed,
    grinding,
    touched,
    firstPart,
    /** What came is too little or too much: the next weight is the dose's, and this one the grind time's. */
    putRight: (): void => {
      if (!dose.ok) return;
      const byScale = weighed !== null && text === scaleText(weighed.doseG);
      setFirstPart({
        doseG: byScale ? weighed.doseG : dose.value,
        grindTimeS: byScale ? weighed.grindTimeS : timed && time.ok ? time.value : null,
      });
      setText('');
      setWeighed(null);
      setTouched(false);
    },
    grind,
    keep,
  };
}

/** The dose on the scale: ground by time, to the weight or struck level, or typed; judged at once, and topped up if short. */
export function WeighDose(props: Props) {
  const { grinder, askedG, dosing, beans, grindTimeS, devices, current } = props;
  const at = useWeighing(props);
  const { dose, time, weighed, grinding } = at;
  useShortcuts({ g: at.grind, k: at.keep });
  const window = doseWindow(grinder.recipe, askedG);
  const read = dose.ok && !grinding ? dose : null;
  const short = read !== null && !at.firstPart && read.value < window.low;
  // Pulled so, its time would say little of the grind.
  const over = read !== null && !at.firstPart && read.value > window.high;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        at.keep();
      }}
    >
      <Stack gap="sm">
        {at.timed && (
          <NumberField
            label="Grind time"
            unit="s"
            step={limits.grindTimeS.step}
            text={at.timeText}
            onText={at.setTimeText}
            error={time.ok ? null : time.error}
          />
        )}
        {at.onScale && (
          <Button
            variant={weighed || !current || !mayBeDose(at.onScale.g, askedG) ? 'default' : 'filled'}
            size="lg"
            onClick={at.take}
          >
            On the scale: {grams(at.onScale.g)}
            {at.onScale.stable === false && ', settling'}
          </Button>
        )}
        {at.grinds && !at.firstPart && (
          <Button
            variant={weighed || !current ? 'default' : 'filled'}
            size="lg"
            onClick={at.grind}
            disabled={(at.timed && !time.ok) || grinding}
          >
            {grinding ? 'Grinding' : doseButton[beans ? 'weighed' : dosing](time.ok ? time.value : grindTimeS, askedG)}
          </Button>
        )}
        <NumberField
          label={labelOf(
            devices !== null,
            beans,
            at.firstPart && (at.firstPart.doseG > askedG ? 'takenOut' : 'toppedUp'),
          )}
          unit="g"
          step={limits.doseG.step}
          aim={askedG}
          text={at.text}
          onText={at.setText}
          error={at.touched && !dose.ok ? dose.error : null}
          warning={read && (outsideBasket(read.value, grinder) ?? read.warning)}
        />
        <BandRow
          name="Dose"
          value={dose.ok ? dose.value : null}
          shown={dose.ok ? grams(dose.value) : '–'}
          window={window}
          unit="g"
        />
        {over && (
          <Button size="lg" variant={current ? 'filled' : 'default'} onClick={at.putRight}>
            Take {grams(read.value - askedG)} out
          </Button>
        )}
        <Button
          size="lg"
          type="submit"
          variant={current && !over && (weighed || !(at.grinds || at.onScale)) ? 'filled' : 'default'}
          disabled={grinding || at.text === ''}
        >
          Keep {dose.ok ? grams(dose.value) : 'this dose'}
        </Button>
        {short && (
          <Button size="lg" variant="default" onClick={at.putRight}>
            Top it up
          </Button>
        )}
      </Stack>
    </form>
  );
}

function labelOf(byDevice: boolean, beans: boolean, putRight: 'toppedUp' | 'takenOut' | null): string {
  if (putRight) return { toppedUp: 'With the rest', takenOut: 'What is left' }[putRight];
  if (beans) return 'Beans';
  return byDevice ? 'On the scale' : 'Weighed dose';
}

/** Whether it is near enough to what was asked for to be that, and no cup or portafilter that still stands there. */
const mayBeDose = (g: number, askedG: number): boolean => Math.abs(g - askedG) < askedG / 2;

/** Said before the shot: too much sticks to the screen, too little leaves a sludge. Null inside, or where nobody knows. */
function outsideBasket(doseG: number, grinder: Grinder): string | null {
  const basketG = tooSmallOrLarge({ doseG }, benchTargetOf(grinder));
  return basketG && reasonSaid({ code: 'basketTakes', doseG, minG: basketG.min, maxG: basketG.max });
}
