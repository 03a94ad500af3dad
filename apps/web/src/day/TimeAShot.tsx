import { Button, Group, Text } from '@mantine/core';
import { glassWeight, yieldInGlass, type GlassWeight } from '@tempera/core/capture';
import type { YieldWay } from '@tempera/core/facts';
import { limits } from '@tempera/core/house';
import { useEffect, useState, type SubmitEvent } from 'react';
import { useLearned } from '../bar/index.ts';
import { servedWay } from '../calibration/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { useAwake } from '../kernel/senses.ts';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import { grams } from '../kernel/format.ts';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './Day.module.css';
import type { DayStation } from './useDay.ts';

interface TimeAShotProps {
  station: Pick<DayStation, 'grinder' | 'house' | 'doseG' | 'state'>;
  groupId: string;
  onDone: () => void;
}

const tenths = (sinceMs: number): number => Math.round((performance.now() - sinceMs) / 100) / 10;
const TICK_MS = 100;

/** How the yield of a customer's shot is known; nobody has to say more than that it looked as it should. */
const wayWord: Partial<Record<YieldWay, string>> = {
  eye: 'As it should',
  scale: 'Weighed',
  glass: 'In a glass',
  volume: 'By the counter',
};
const fieldOf = (way: YieldWay) =>
  way === 'glass' ? ({ quantity: 'glassMl', unit: 'ml' } as const) : ({ quantity: 'yieldG', unit: 'g' } as const);
const aimText = (way: YieldWay, yieldG: number, { gPerMl }: GlassWeight): string =>
  way === 'glass' ? textOf('glassMl', Math.round(yieldG / gPerMl)) : textOf('yieldG', yieldG);

/** A customer's own shot, timed: start and stop, or the machine's seconds typed; the dose is as set. */
export function TimeAShot({ station, groupId, onDone }: TimeAShotProps) {
  const { grinder, house, doseG, state } = station;
  const writeFacts = useWriteFacts();
  const { recipe } = grinder;
  const [startedMs, setStartedMs] = useState<number | null>(null);
  useAwake(startedMs !== null);
  const [timeText, setTimeText] = useState('');
  const [yieldText, setYieldText] = useState(textOf('yieldG', recipe.yieldG));
  const [way, setWay] = useState<YieldWay>('eye');
  const glass = useLearned().data?.glass ?? glassWeight([]);
  const ways = [...new Set<YieldWay>(['eye', house.yieldBy, 'scale'])];
  useEffect(() => {
    if (startedMs === null) return undefined;
    const timer = setInterval(() => setTimeText(tenths(startedMs).toFixed(1)), TICK_MS);
    return () => clearInterval(timer);
  }, [startedMs]);
  const time = readQuantity(timeText, 'timeS');
  const { quantity, unit } = fieldOf(way);
  const cup = readQuantity(yieldText, quantity);
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
          ...(way === 'glass' ? yieldInGlass(cup.value, glass) : { yieldG: cup.value }),
          timeS: time.value,
          firstDropS: null,
          flaw: null,
          measuredBy: 'hand',
          trace: null,
          // Where the grinder holds: it is no shot of the dialling in.
          check: true,
          service: true,
          measured: { dose: servedWay[house.dosing], ...(way === 'scale' ? {} : { yield: way }) },
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
          unit={unit}
          step={limits[quantity].step}
          text={yieldText}
          onText={(text) => {
            setYieldText(text);
            // Whoever types a number has read it somewhere.
            if (way === 'eye') setWay('scale');
          }}
          error={cup.ok ? null : cup.error}
        />
      </Group>
      <OneOf
        label="How the yield is known"
        value={way}
        onChange={(next) => {
          setWay(next);
          if (fieldOf(next).unit !== unit || next === 'eye') setYieldText(aimText(next, recipe.yieldG, glass));
        }}
        options={ways.map((value) => ({ value, label: wayWord[value] ?? '' }))}
      />
      {way === 'glass' && cup.ok && (
        <Text className="faint">About {grams(yieldInGlass(cup.value, glass).yieldG)}, crema included.</Text>
      )}
      <Group>
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
