import { usual } from '@tempera/core/numbers';
import { Button, Group, Stack, Text } from '@mantine/core';
import { limits } from '@tempera/core/house';
import { ENOUGH_DOSES, judgeDoses, lastLock } from '@tempera/core/calibration';
import { ofGrinder, type DoseTimeStep as DoseTimeBody } from '@tempera/core/facts';
import { useState } from 'react';
import { useDevices } from '../../calibration/index.ts';
import { DoseVerdict } from '../../calibration/index.ts';
import { useSheets } from '../../kernel/sheets.ts';
import { useWelcome } from '../../team/index.ts';
import { BandRow } from '../../ui/BandRow.tsx';
import { grams, seconds } from '../../kernel/format.ts';
import { NumberField, readQuantity } from '../../ui/NumberField.tsx';
import { Readings } from '../../ui/Readings.tsx';
import classes from '../Opening.module.css';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** Two doses are enough where both lie this close, in parts of the tolerance. */
const CLOSE = 0.5;

const wayWord: Record<DoseTimeBody['way'], (doseG: number) => string> = {
  timed: (doseG) => `Find the grind time that gives ${grams(doseG)}: grind, weigh, and grind again.`,
  weighed: (doseG) => `Weigh every dose to ${grams(doseG)}; a few show how close the hand comes.`,
  levelled: () =>
    'Fill, settle and strike it level, each one alike. Settled and refilled it holds more, scraped hollow less: by how much stands on the basket once it was weighed.',
  line: () => 'Fill to the line in the basket, each one alike; a few on a scale show how close that comes.',
  eye: () => 'Dose by eye, each one alike; a few on a scale show how close the eye comes.',
};

/** Stale grounds out, the basket checked, and the dose found: by time, by weight, or by level. */
export function DoseTimeStep({ state, view, session, write }: StepProps) {
  const grinderId = state.job.stationId ?? '';
  const grinder = view.bar.grinders.find(({ id }) => id === grinderId);
  const { data: sheets } = useSheets('grinder');
  if (!grinder || !sheets) return null;
  const timed = sheets.find(({ id }) => id === grinderId)?.sheet.doseDoubleS;
  const lockedS = lastLock(ofGrinder(view.facts, grinderId))?.body.doseTimeS ?? null;
  const firstS = lockedS ?? timed ?? grinder.recipe.doseG / (grinder.rateGps ?? usual.grindRateGps);
  return (
    <Doses
      key={grinderId}
      grinder={grinder}
      firstS={Math.round(10 * firstS) / 10}
      way={view.bar.house.dosing}
      view={view}
      session={session}
      write={write}
      failed={state.notRight === 'dosesScatter'}
    />
  );
}

interface Props extends Pick<StepProps, 'view' | 'session' | 'write'> {
  grinder: StepProps['view']['bar']['grinders'][number];
  firstS: number;
  way: DoseTimeBody['way'];
  failed: boolean;
}

function Doses(props: Props) {
  const { grinder, way, write, failed } = props;
  const found = useFoundDoses(props);
  const { discardedG, timeText, setTime, time, timeS, doses, setDoses, judged, enough, canGrind, grinding, grind } =
    found;
  const { doseG } = grinder.recipe;
  if (discardedG === null) return <ThrowAway recipe={grinder.recipe} found={found} />;
  const better = enough && judged ? judged.betterS : null;
  const keep = (holds: boolean): void =>
    write({
      step: 'doseTime',
      grinderId: grinder.id,
      way,
      discardedG,
      grindTimeS: way === 'timed' ? timeS : null,
      dosesG: doses,
      holds,
    });
  return (
    <Stack>
      <Text>{wayWord[way](doseG)}</Text>
      {way === 'timed' && (
        <div className={classes.fields}>
          <NumberField
            label="Grind time"
            unit="s"
            step={limits.grindTimeS.step}
            text={timeText}
            onText={setTime}
            error={time.ok ? null : time.error}
          />
        </div>
      )}
      {canGrind && (
        <Button
          size="lg"
          className={classes.alone}
          variant={enough ? 'default' : 'filled'}
          disabled={grinding || !time.ok}
          onClick={() => grind((dose) => setDoses((before) => [...before, dose]))}
        >
          {grinding ? 'Grinding' : doseButton[way](timeS)}
        </Button>
      )}
      <Readings label="Dose" quantity="doseG" near={doseG} values={doses} onValues={setDoses} />
      {judged && <DoseVerdict judged={judged} recipe={grinder.recipe} enough={enough} way={way} />}
      {failed && <Warn>Last time the doses did not hold.</Warn>}
      <Group>
        {better !== null && (
          <Button size="xl" onClick={() => setTime(better.toFixed(1))}>
            It is set to {seconds(better)}
          </Button>
        )}
        <Button
          size="xl"
          variant={enough && judged?.holds ? 'filled' : 'default'}
          disabled={!enough || !judged}
          onClick={() => keep(judged?.holds ?? false)}
        >
          {judged && enough && !judged.holds ? 'Note that it does not hold' : 'The dose is found'}
        </Button>
      </Group>
    </Stack>
  );
}

/** Doses on the scale until they agree: the first is thrown away, and another grind time begins them anew. */
function useFoundDoses({ grinder, firstS, way, view, session }: Props) {
  const { data: welcome } = useWelcome();
  const [discardedG, setDiscardedG] = useState<number | null>(null);
  const [timeText, setTimeText] = useState(firstS.toFixed(1));
  const [doses, setDoses] = useState<number[]>([]);
  const [grinding, setGrinding] = useState(false);
  const group = view.bar.machines.flatMap(({ groups }) => groups)[0];
  const devices = useDevices(
    { grinder, group: group ?? { id: '' }, standing: view.facts },
    session.site.id,
    welcome?.demo ?? null,
  );
  const { doseG, doseToleranceG } = grinder.recipe;
  const time = readQuantity(timeText, 'grindTimeS');
  const agree = doses.length === 2 && doses.every((dose) => Math.abs(dose - doseG) <= CLOSE * doseToleranceG);
  const enough = doses.length >= ENOUGH_DOSES || agree;
  const timeS = time.ok ? time.value : firstS;
  const judged = judgeDoses(doses, grinder.recipe, way === 'timed' ? timeS : null);
  const grind = (keep: (dose: number) => void): void => {
    if (!devices || grinding) return;
    setGrinding(true);
    const ground =
      way === 'timed' || discardedG === null
        ? devices.grinder.grind(timeS, () => undefined)
        : devices.grinder.doseBy(way, doseG);
    void ground.then((dose) => {
      setGrinding(false);
      keep(dose);
    });
  };
  const setTime = (text: string): void => {
    setTimeText(text);
    setDoses([]);
  };
  return {
    discardedG,
    setDiscardedG,
    timeText,
    setTime,
    time,
    timeS,
    doses,
    setDoses,
    judged,
    enough,
    canGrind: devices !== null,
    grinding,
    grind,
  };
}

/** The dose that sat in the chute overnight, and whether the house's dose fits its basket. */
function ThrowAway({
  recipe: { doseG, basketId },
  found: { canGrind, grinding, grind, setDiscardedG },
}: {
  recipe: Props['grinder']['recipe'];
  found: ReturnType<typeof useFoundDoses>;
}) {
  const { data: baskets } = useSheets('basket');
  const basket = baskets?.find(({ id }) => id === basketId)?.sheet;
  return (
    <Stack>
      <Text size="lg">Grind one dose and throw it away: it sat in the chute overnight, stale and damp.</Text>
      {basket && (
        <BandRow
          name="Basket"
          unit="g"
          value={doseG}
          window={{ low: basket.minG, high: basket.maxG }}
          shown={grams(doseG)}
        />
      )}
      {basket && (doseG < basket.minG || doseG > basket.maxG) && (
        <Warn>The house dose does not fit {basket.name}. Take the recipe’s basket, or have the recipe looked at.</Warn>
      )}
      <Group>
        {canGrind && (
          <Button size="xl" disabled={grinding} onClick={() => grind(setDiscardedG)}>
            {grinding ? 'Grinding' : 'Grind and throw away'}
          </Button>
        )}
        <Button size="xl" variant={canGrind ? 'default' : 'filled'} onClick={() => setDiscardedG(doseG)}>
          It is thrown away
        </Button>
      </Group>
    </Stack>
  );
}

const doseButton: Record<DoseTimeBody['way'], (timeS: number) => string> = {
  timed: (timeS) => `Grind ${seconds(timeS)} and weigh`,
  weighed: () => 'Grind to the weight',
  levelled: () => 'Fill, strike level and weigh',
  line: () => 'Fill to the line and weigh',
  eye: () => 'Dose by eye and weigh',
};
