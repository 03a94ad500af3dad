import { MS_PER_SECOND } from '@tempera/core/numbers';
import { Button, Checkbox, Group, Stack, Text } from '@mantine/core';
import { useInterval } from '@mantine/hooks';
import { useId, useState } from 'react';
import { flushWord } from '../boilerWords.ts';
import { useBoilerOf } from '../useBoilerOf.ts';
import { useWelcome } from '../../team/index.ts';
import classes from '../Opening.module.css';
import type { StepProps } from './stepProps.ts';

/** Three to ten seconds clear residue and what cooled overnight. */
const RINSE_S = 5;
const LEAST_S = 3;
/** A rinse that runs so long was forgotten: the hand is elsewhere, or the water was stopped without the tablet. */
const FORGOTTEN_S = 60;
const TICK_MS = 100;

/** Rinse by the clock, clean the screen; after detergent twice, and throw the first shot away. */
export function RinseStep({ state, view, write }: StepProps) {
  const { data: welcome } = useWelcome();
  const speed = welcome?.demo?.speed ?? 1;
  const twice = view.morning.detergent;
  /** What each rinse took; null where the clock stopped before the water did. */
  const [times, setTimes] = useState<(number | null)[]>([]);
  const [sinceMs, setSinceMs] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  const [screen, setScreen] = useState(false);
  const [thrown, setThrown] = useState(false);
  const [forgotten, setForgotten] = useState(false);
  useInterval(
    () => {
      const nowMs = Date.now();
      setNow(nowMs);
      if (sinceMs === null || ((nowMs - sinceMs) / MS_PER_SECOND) * speed < FORGOTTEN_S) return;
      setSinceMs(null);
      setForgotten(true);
    },
    TICK_MS,
    { autoInvoke: true },
  );
  const runsS = sinceMs === null ? null : Math.max(0, ((now - sinceMs) / MS_PER_SECOND) * speed);
  const groupId = state.job.stationId ?? '';
  const wanted = twice ? 2 : 1;
  const rinsed = times.length >= wanted;
  const startOrStop = (): void => {
    if (forgotten) {
      // The button that stopped the water stops it still: a finger that comes as the clock ends must not start it anew.
      setForgotten(false);
      setTimes([...times, null]);
      return;
    }
    if (sinceMs === null) {
      setNow(Date.now());
      setSinceMs(Date.now());
      return;
    }
    const tookS = Math.round(((Date.now() - sinceMs) / MS_PER_SECOND) * speed * 10) / 10;
    setSinceMs(null);
    if (tookS >= LEAST_S) setTimes([...times, tookS]);
  };
  const keep = (rinseS: number | null): void =>
    write({ step: 'rinsed', groupId, rinseS, screenCleaned: screen, detergent: twice });
  const ready = screen && (!twice || thrown);
  const boiler = useBoilerOf(view, groupId);
  const lacks = useId();
  return (
    <Stack>
      {boiler && <Text>{flushWord[boiler]}</Text>}
      <div className={classes.clock} role="timer">
        <span className={classes.figure}>{(runsS ?? times.at(-1) ?? 0).toFixed(1)}</span> s of {RINSE_S} s
        <Text className="faint">
          {rinseSays({ rinsed, forgotten, enough: runsS !== null && runsS >= RINSE_S, turn: times.length + 1, twice })}
        </Text>
      </div>
      <Button size="xl" variant={rinsed ? 'default' : 'filled'} onClick={startOrStop} className={classes.alone}>
        {runsS !== null || forgotten ? 'Water off' : times.length === 0 ? 'Water on' : 'Rinse again'}
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
      {!ready && sinceMs === null && (
        <Text id={lacks} className="faint">
          {screen ? 'Throw the first shot away and tick it' : 'Wipe the screen and tick it'}: then the group is done.
        </Text>
      )}
      <Group>
        <Button
          size="xl"
          aria-describedby={ready ? undefined : lacks}
          variant={rinsed && screen ? 'filled' : 'default'}
          disabled={!rinsed || !ready}
          onClick={() => keep(wholeS(times))}
        >
          {view.nameOf(groupId)} is clean
        </Button>
        {!rinsed && sinceMs === null && (
          <Button
            size="xl"
            variant="default"
            aria-describedby={ready ? undefined : lacks}
            disabled={!ready}
            onClick={() => keep(null)}
          >
            It was rinsed already
          </Button>
        )}
      </Group>
    </Stack>
  );
}

/** @returns seconds of all rinses together, to a tenth; null where one of them is not known */
function wholeS(times: readonly (number | null)[]): number | null {
  const known = times.filter((s) => s !== null);
  return known.length < times.length ? null : Math.round(known.reduce((sum, s) => sum + s, 0) * 10) / 10;
}

interface Rinsing {
  rinsed: boolean;
  forgotten: boolean;
  enough: boolean;
  /** Which rinse it is, from one on. */
  turn: number;
  twice: boolean;
}

function rinseSays({ rinsed, forgotten, enough, turn, twice }: Rinsing): string {
  if (rinsed) return 'Rinsed.';
  if (forgotten) return `The clock stopped itself at ${FORGOTTEN_S} s. Is the water off?`;
  if (enough) return 'Enough: stop the water.';
  if (twice) return `Rinse ${turn} of 2: until it runs clear.`;
  return 'Look at the stream: even all round, or the screen is clogged.';
}
