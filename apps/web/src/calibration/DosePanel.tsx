import { Button, NativeSelect, Stack, Text, Title } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import type { Grinder } from '@tempera/contract/bar';
import { doseWays, type DoseBody, type DoseWay, type FactOf } from '@tempera/core/facts';
import type { ServicePolicy } from '@tempera/core/house';
import type { BenchDevices } from '../capture/index.ts';
import { grams, seconds } from '../kernel/format.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { dialingWay, doseWayWord, fillWord } from './doseWords.ts';
import { doseWindow } from './doseWindow.ts';
import { FillDose } from './FillDose.tsx';
import { WeighDose } from './WeighDose.tsx';

interface Props {
  grinder: Grinder;
  /** What is asked for, g: between two marks it may differ from the recipe. */
  askedG: number;
  dosing: ServicePolicy['dosing'];
  grindTimeS: number;
  devices: BenchDevices | null;
  /** Whether the dose is the thing to do now. */
  current: boolean;
  onKeep: (dose: Omit<DoseBody, 'setting'>) => void;
}

/** The dose, by whatever way there is: on the scale, or without one. */
export function DosePanel({ dosing, ...props }: Props) {
  // Kept beside the house's way that it was chosen against: when the house changes its mind, so does the bench.
  const [chosen, setChosen] = useLocalStorage<{ dosing: string; way: DoseWay } | null>({
    key: 'tempera.doseWay',
    defaultValue: null,
  });
  const way = chosen?.dosing === dosing ? chosen.way : dialingWay[dosing];
  return (
    <Stack component="section" aria-label="Dose" gap="sm">
      <Title order={2} size="h3">
        Dose {grams(props.askedG)}
      </Title>
      {way === 'scale' || way === 'beans' ? (
        <WeighDose {...props} dosing={dosing} beans={way === 'beans'} />
      ) : (
        <FillDose {...props} way={way} />
      )}
      <NativeSelect
        aria-label="How the dose is measured"
        size="lg"
        value={way}
        data={doseWays.map((value) => ({ value, label: doseWayWord[value] }))}
        onChange={({ currentTarget: { value } }) => {
          const found = doseWays.find((one) => one === value);
          if (found) setChosen({ dosing, way: found });
        }}
      />
    </Stack>
  );
}

interface WaitingProps {
  grinder: Grinder;
  askedG: number;
  /** What stands in the portafilter. */
  doseG: number;
  /** How it was written down; null: the shot that runs has it. */
  dose: FactOf<'dose'> | null;
  /** How it is known. */
  way: DoseWay;
  /** The grind time for the next dose; null where none is known, or nothing is ground by time. */
  nextTimeS: number | null;
  onAgain: (() => void) | null;
}

/** The dose that waits in the portafilter, and what it says of the grind time. */
export function WaitingDose({ grinder, askedG, doseG, dose, way, nextTimeS, onAgain }: WaitingProps) {
  const fill = dose?.body.fill;
  return (
    <Stack component="section" aria-label="Dose" gap="sm">
      <Title order={2} size="h3">
        In the basket: {way === 'scale' ? '' : 'about '}
        {grams(doseG)}
      </Title>
      {way !== 'scale' && (
        <Text className="faint">{fill === undefined ? doseWayWord[way] : `${fillWord(way, fill)}, not weighed`}</Text>
      )}
      <BandRow name="Dose" value={doseG} window={doseWindow(grinder.recipe, askedG)} unit="g" />
      {dose && nextTimeS !== null && <Text aria-live="polite">{followWord(dose.body, nextTimeS)}</Text>}
      {onAgain && (
        <Button variant="default" onClick={onAgain}>
          Throw it out and {way === 'scale' ? 'weigh' : 'dose'} again
        </Button>
      )}
    </Stack>
  );
}

/** "17.0 g in 6.0 s: grind 6.3 s." */
function followWord({ doseG, firstPartG, grindTimeS }: DoseBody, nextTimeS: number): string {
  if (grindTimeS === null) return `Grind ${seconds(nextTimeS)} next.`;
  const says = `${grams(firstPartG ?? doseG)} in ${seconds(grindTimeS)}`;
  return nextTimeS === grindTimeS ? `${says}: the time fits.` : `${says}: grind ${seconds(nextTimeS)} next.`;
}
