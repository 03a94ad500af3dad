import { Button, Checkbox, Group } from '@mantine/core';
import { useEffect, useState, type SubmitEvent } from 'react';
import { useWriteFacts } from '../kernel/facts.tsx';
import { useAwake } from '../kernel/senses.ts';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import classes from './Day.module.css';
import type { DayStation } from './useDay.ts';

interface TimeAShotProps {
  station: Pick<DayStation, 'grinder' | 'doseG' | 'state'>;
  groupId: string;
  onDone: () => void;
}

const tenths = (sinceMs: number): number => Math.round((performance.now() - sinceMs) / 100) / 10;
const TICK_MS = 100;

/** A customer's own shot, timed: start and stop, or the machine's seconds typed; the dose is as set. */
export function TimeAShot({ station, groupId, onDone }: TimeAShotProps) {
  const { grinder, doseG, state } = station;
  const writeFacts = useWriteFacts();
  const { recipe } = grinder;
  const [startedMs, setStartedMs] = useState<number | null>(null);
  useAwake(startedMs !== null);
  const [timeText, setTimeText] = useState('');
  const [yieldText, setYieldText] = useState(textOf('yieldG', recipe.yieldG));
  const [weighed, setWeighed] = useState(false);
  useEffect(() => {
    if (startedMs === null) return undefined;
    const timer = setInterval(() => setTimeText(tenths(startedMs).toFixed(1)), TICK_MS);
    return () => clearInterval(timer);
  }, [startedMs]);
  const time = readQuantity(timeText, 'timeS');
  const cup = readQuantity(yieldText, 'yieldG');
  const keep = (event: SubmitEvent): void => {
    event.preventDefault();
    if (!time.ok || !cup.ok || startedMs !== null) return;
    writeFacts([
      {
        kind: 'shot',
        grinderId: grinder.id,
        groupId,
        body: {
          recipeVersionId: recipe.id,
          setting: state.setting,
          doseG,
          yieldG: cup.value,
          timeS: time.value,
          firstDropS: null,
          flaw: null,
          measuredBy: 'hand',
          trace: null,
          // Where the grinder holds: it is no shot of the dialling in.
          check: true,
          service: true,
          measured: { dose: 'timed', ...(weighed ? {} : { yield: 'eye' as const }) },
        },
      },
    ]);
    onDone();
  };
  return (
    <form onSubmit={keep} className={classes.timing}>
      <Group align="start">
        {startedMs === null ? (
          <Button size="lg" variant={time.ok ? 'default' : 'filled'} onClick={() => setStartedMs(performance.now())}>
            Start
          </Button>
        ) : (
          <Button
            size="lg"
            onClick={() => {
              setTimeText(tenths(startedMs).toFixed(1));
              setStartedMs(null);
            }}
          >
            Stop
          </Button>
        )}
        <NumberField
          label="Time"
          unit="s"
          step={0.1}
          aim={(recipe.timeMinS + recipe.timeMaxS) / 2}
          text={timeText}
          onText={setTimeText}
          error={timeText === '' || time.ok ? null : time.error}
        />
        <NumberField
          label="Yield"
          unit="g"
          step={0.1}
          text={yieldText}
          onText={(text) => {
            setYieldText(text);
            setWeighed(true);
          }}
          error={cup.ok ? null : cup.error}
        />
      </Group>
      <Group>
        <Checkbox
          size="lg"
          label="It was weighed"
          checked={weighed}
          onChange={(event) => setWeighed(event.currentTarget.checked)}
        />
        <Button type="submit" size="lg" disabled={!time.ok || !cup.ok || startedMs !== null}>
          Keep it
        </Button>
        <Button size="lg" variant="subtle" color="umber" onClick={onDone}>
          Not now
        </Button>
      </Group>
    </form>
  );
}
