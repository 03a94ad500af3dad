import { MS_PER_SECOND } from '@tempera/core/numbers';
import { Button, Checkbox, Group, Stack, Text } from '@mantine/core';
import { useInterval } from '@mantine/hooks';
import { useState } from 'react';
import { useWelcome } from '../../team/index.ts';
import classes from '../Opening.module.css';
import type { StepProps } from './stepProps.ts';

/** Three to ten seconds clear residue and what cooled overnight. */
const RINSE_S = 5;
const LEAST_S = 3;
const TICK_MS = 100;

/** Rinse by the clock, clean the screen; after detergent twice, and throw the first shot away. */
export function RinseStep({ state, view, write }: StepProps) {
  const { data: welcome } = useWelcome();
  const speed = welcome?.demo?.speed ?? 1;
  const twice = view.morning.detergent;
  const [times, setTimes] = useState<number[]>([]);
  const [sinceMs, setSinceMs] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  const [screen, setScreen] = useState(false);
  const [thrown, setThrown] = useState(false);
  useInterval(() => setNow(Date.now()), TICK_MS, { autoInvoke: true });
  const runsS = sinceMs === null ? null : Math.max(0, ((now - sinceMs) / MS_PER_SECOND) * speed);
  const groupId = state.job.stationId ?? '';
  const wanted = twice ? 2 : 1;
  const rinsed = times.length >= wanted;
  const startOrStop = (): void => {
    if (sinceMs === null) {
      setNow(Date.now());
      setSinceMs(Date.now());
      return;
    }
    const tookS = Math.round(((Date.now() - sinceMs) / MS_PER_SECOND) * speed * 10) / 10;
    setSinceMs(null);
    if (tookS >= LEAST_S) setTimes([...times, tookS]);
  };
  return (
    <Stack>
      <div className={classes.clock} role="timer">
        <span className={classes.figure}>{(runsS ?? times.at(-1) ?? 0).toFixed(1)}</span> s of {RINSE_S} s
        <Text className="faint">
          {rinsed
            ? 'Rinsed.'
            : runsS !== null && runsS >= RINSE_S
              ? 'Enough: stop the water.'
              : twice
                ? `Rinse ${times.length + 1} of 2: until it runs clear.`
                : 'Look at the stream: even all round, or the screen is clogged.'}
        </Text>
      </div>
      <Button size="xl" variant={rinsed ? 'default' : 'filled'} onClick={startOrStop} className={classes.alone}>
        {runsS === null ? (times.length === 0 ? 'Water on' : 'Rinse again') : 'Water off'}
      </Button>
      <Checkbox
        size="lg"
        label="The dispersion screen is wiped clean"
        checked={screen}
        onChange={(event) => setScreen(event.currentTarget.checked)}
      />
      {twice && (
        <Checkbox
          size="lg"
          label="The first shot after detergent was thrown away"
          checked={thrown}
          onChange={(event) => setThrown(event.currentTarget.checked)}
        />
      )}
      <Group>
        <Button
          size="xl"
          variant={rinsed && screen ? 'filled' : 'default'}
          disabled={!rinsed || !screen || (twice && !thrown)}
          onClick={() =>
            write({
              step: 'rinsed',
              groupId,
              rinseS: Math.round(times.reduce((sum, s) => sum + s, 0) * 10) / 10,
              screenCleaned: screen,
              detergent: twice,
            })
          }
        >
          {view.nameOf(groupId)} is clean
        </Button>
      </Group>
    </Stack>
  );
}
