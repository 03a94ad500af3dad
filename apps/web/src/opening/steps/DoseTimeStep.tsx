import { usual } from '@tempera/core/numbers';
import { Button, Group, Stack, Text } from '@mantine/core';
import { limits } from '@tempera/core/house';
import { dosesAtS, ENOUGH_DOSES, judgeDoses, lastLock } from '@tempera/core/calibration';
import { ofGrinder } from '@tempera/core/facts';
import { useState } from 'react';
import { useBenchDevices } from '../../capture/index.ts';
import { DoseVerdict } from '../../calibration/index.ts';
import { useSheets } from '../../kernel/sheets.ts';
import { grams, seconds } from '../../kernel/format.ts';
import { NumberField, readQuantity } from '../../ui/NumberField.tsx';
import { Readings } from '../../ui/Readings.tsx';
import classes from '../Opening.module.css';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** A grind time proven by doses of its own; those weighed at this time while the grinder was dialled in count too. */
export function DoseTimeStep({ state, view, session, write }: StepProps) {
  const grinderId = state.job.stationId ?? '';
  const grinder = view.bar.grinders.find(({ id }) => id === grinderId);
  const { data: sheets } = useSheets('grinder');
  if (!grinder || !sheets) return null;
  const timed = sheets.find(({ id }) => id === grinderId)?.sheet.doseDoubleS;
  const own = ofGrinder(view.facts, grinderId);
  const lockedS = lastLock(own)?.body.doseTimeS ?? null;
  const firstS =
    Math.round(10 * (lockedS ?? timed ?? grinder.recipe.doseG / (grinder.rateGps ?? usual.grindRateGps))) / 10;
  return (
    <Doses
      key={grinderId}
      grinder={grinder}
      firstS={firstS}
      before={dosesAtS(own, firstS)}
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
  /** Grams that this very time gave on the way here. */
  before: readonly number[];
  failed: boolean;
}

function Doses(props: Props) {
  const { grinder, write, failed } = props;
  const found = useFoundDoses(props);
  const { timeText, setTime, time, timeS, doses, setDoses, known, judged, enough, canGrind, grinding, grind } = found;
  const { doseG } = grinder.recipe;
  const better = enough && judged ? judged.betterS : null;
  const keep = (holds: boolean): void =>
    write({
      step: 'doseTime',
      grinderId: grinder.id,
      way: 'timed',
      discardedG: 0,
      grindTimeS: timeS,
      dosesG: doses,
      holds,
    });
  return (
    <Stack>
      <Text>Three doses by the time that was set at the lock: their mean should be {grams(doseG)}.</Text>
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
      {canGrind && (
        <Button
          size="lg"
          className={classes.alone}
          variant={enough ? 'default' : 'filled'}
          disabled={grinding || !time.ok}
          onClick={() => grind((dose) => setDoses((before) => [...before, dose]))}
        >
          {grinding ? 'Grinding' : `Grind ${seconds(timeS)} and weigh`}
        </Button>
      )}
      {known.length > 0 && (
        <Text className="faint">
          Weighed at this time while it was dialled in: {known.map((dose) => grams(dose)).join(', ')}.{' '}
          {known.length === 1 ? 'It counts.' : 'They count.'}
        </Text>
      )}
      <Readings label="Dose" quantity="doseG" near={doseG} values={doses} onValues={setDoses} />
      {judged && <DoseVerdict judged={judged} recipe={grinder.recipe} enough={enough} />}
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
          {judged && enough && !judged.holds ? 'Note that it does not hold' : 'The dose time holds'}
        </Button>
      </Group>
    </Stack>
  );
}

/** Doses on the scale until they agree; another grind time begins them anew. */
function useFoundDoses({ grinder, firstS, before, view, session }: Props) {
  const [timeText, setTimeText] = useState(firstS.toFixed(1));
  const [doses, setDoses] = useState<number[]>([]);
  const [grinding, setGrinding] = useState(false);
  const group = view.bar.machines.flatMap(({ groups }) => groups)[0];
  const devices = useBenchDevices({
    grinder,
    group: group ?? { id: '' },
    standing: view.facts,
    siteId: session.site.id,
  });
  const time = readQuantity(timeText, 'grindTimeS');
  const timeS = time.ok ? time.value : firstS;
  const known = timeS === firstS ? before : [];
  const all = [...known, ...doses];
  const enough = all.length >= ENOUGH_DOSES;
  const judged = judgeDoses(all, grinder.recipe, timeS);
  const grind = (keep: (dose: number) => void): void => {
    const port = devices?.grinder;
    if (!port || grinding) return;
    setGrinding(true);
    void port
      .grind(timeS, () => undefined)
      .then((dose) => {
        setGrinding(false);
        keep(dose);
      });
  };
  const setTime = (text: string): void => {
    setTimeText(text);
    setDoses([]);
  };
  return {
    known,
    timeText,
    setTime,
    time,
    timeS,
    doses,
    setDoses,
    judged,
    enough,
    canGrind: devices?.grinder != null,
    grinding,
    grind,
  };
}
