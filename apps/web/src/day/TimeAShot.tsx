import { Button, Group, Text } from '@mantine/core';
import { glassWeight, yieldInGlass, type GlassWeight } from '@tempera/core/capture';
import type { YieldWay } from '@tempera/core/facts';
import { limits } from '@tempera/core/house';
import { useState, type SubmitEvent } from 'react';
import { useLearned } from '../bar/index.ts';
import { servedWay } from '../calibration/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { useAwake } from '../kernel/senses.ts';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import { grams } from '../kernel/format.ts';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './Day.module.css';
import { useServedTimer } from './servedTimer.ts';
import type { DayStation } from './useDay.ts';

interface TimeAShotProps {
  station: Pick<DayStation, 'grinder' | 'house' | 'doseG' | 'state'>;
  groupId: string;
  onDone: () => void;
}

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
  const timer = useServedTimer(grinder.id, recipe.timeMaxS);
  const { running } = timer;
  useAwake(running);
  const [typedText, setTypedText] = useState<string | null>(null);
  const timeText = typedText ?? timer.timeS?.toFixed(1) ?? '';
  const [yieldText, setYieldText] = useState(textOf('yieldG', recipe.yieldG));
  const [way, setWay] = useState<YieldWay>('eye');
  const glass = useLearned().data?.glass ?? glassWeight([]);
  const ways = [...new Set<YieldWay>(['eye', house.yieldBy, 'scale'])];
  const time = readQuantity(timeText, 'timeS');
  const { quantity, unit } = fieldOf(way);
  const cup = readQuantity(yieldText, quantity);
  const done = (): void => {
    timer.clear();
    onDone();
  };
  const keep = (event: SubmitEvent): void => {
    event.preventDefault();
    if (!time.ok || !cup.ok || running) return;
    writeFacts([
      {
        kind: 'shot',
        grinderId: grinder.id,
        groupId,
        ...(timer.begun ? { at: timer.begun.at } : {}),
        body: {
          recipeVersionId: recipe.id,
          setting: timer.begun?.setting ?? state.setting,
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
    done();
  };
  return (
    <form onSubmit={keep} className={classes.timing}>
      <Group align="start">
        {running ? (
          <Button size="lg" className={classes.hand} onClick={timer.stop}>
            Stop
          </Button>
        ) : (
          <Button
            size="lg"
            className={classes.hand}
            variant={time.ok ? 'default' : 'filled'}
            onClick={() => {
              setTypedText(null);
              timer.start(state.setting);
            }}
          >
            Start
          </Button>
        )}
        <NumberField
          label="Time"
          unit="s"
          step={0.1}
          aim={(recipe.timeMinS + recipe.timeMaxS) / 2}
          text={timeText}
          onText={(text) => {
            // Whoever types the seconds has them from elsewhere.
            if (running) timer.stop();
            setTypedText(text);
          }}
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
      {timer.isForgotten && (
        <Text role="status">
          It was left running, so its time says nothing: type the seconds, or time the next one.
        </Text>
      )}
      {way === 'glass' && cup.ok && (
        <Text className="faint">About {grams(yieldInGlass(cup.value, glass).yieldG)}, crema included.</Text>
      )}
      <Group>
        <Button type="submit" size="lg" className={classes.hand} disabled={!time.ok || !cup.ok || running}>
          Keep it
        </Button>
        <Button size="lg" variant="subtle" color="umber" onClick={done}>
          Not now
        </Button>
      </Group>
    </form>
  );
}
