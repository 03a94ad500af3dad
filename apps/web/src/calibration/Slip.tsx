import { Button, Group, Text, Title } from '@mantine/core';
import type { RecipeVersion } from '@tempera/contract/house';
import { shotMiss, type RecipeTarget } from '@tempera/core/calibration';
import type { ShotBody } from '@tempera/core/facts';
import { around } from '../ui/Band.tsx';
import { BandRow } from '../ui/BandRow.tsx';
import { ratio, seconds } from '../kernel/format.ts';
import classes from './Slip.module.css';
import { flawWord } from '../journal/index.ts';

/** A tenth is what a clock shows. */
const WORTH_SAYING_S = 0.05;

interface Props {
  shot: ShotBody;
  recipe: RecipeVersion;
  number: number;
  dripping: boolean;
  onEdit: (() => void) | null;
  target: RecipeTarget;
  /** What the house does with it once it is in the cup. */
  asks: readonly string[];
}

/** A shot on its slip: each number against its window. */
export function Slip({ shot, recipe, target, number, dripping, onEdit, asks }: Props) {
  const { doseG, yieldG, timeS, firstDropS, flaw } = shot;
  // One number says how far off a shot was; what a flawed one would have taken nobody knows.
  const judgedS = flaw === null ? shotMiss(shot, target).normalisedS : timeS;
  const ratioWindow = {
    low: (recipe.yieldG - recipe.yieldToleranceG) / recipe.doseG,
    high: (recipe.yieldG + recipe.yieldToleranceG) / recipe.doseG,
  };
  return (
    <section aria-label={`Shot ${number}`} className={classes.slip}>
      <Group justify="space-between" wrap="nowrap">
        <Title order={2} size="h3">
          Shot {number}
          {flaw && <span className={classes.flaw}> {flawWord[flaw].toLowerCase()}</span>}
          {shot.partial && <span className="faint"> trace in part</span>}
          {dripping && <span className="faint"> still dripping</span>}
        </Title>
        {onEdit && (
          <Button variant="default" onClick={onEdit}>
            Flawed?
          </Button>
        )}
      </Group>
      {!dripping && flaw === null && <Text className={classes.asks}>{asks.join(', ')}.</Text>}
      <BandRow name="Time" value={judgedS} window={{ low: recipe.timeMinS, high: recipe.timeMaxS }} unit="s" />
      {Math.abs(judgedS - timeS) >= WORTH_SAYING_S && (
        <Text className="faint">At the recipe’s dose and yield; the clock said {seconds(timeS)}.</Text>
      )}
      <BandRow name="Yield" value={yieldG} window={around(recipe.yieldG, recipe.yieldToleranceG)} unit="g" />
      <BandRow name="Dose" value={doseG} window={around(recipe.doseG, recipe.doseToleranceG)} unit="g" />
      <BandRow
        name="Ratio"
        value={yieldG / doseG}
        shown={ratio(yieldG, doseG)}
        window={ratioWindow}
        unit=""
        digits={2}
      />
      <BandRow
        name="First drop"
        missing="not seen"
        value={firstDropS}
        window={{ low: recipe.firstDropMinS, high: recipe.firstDropMaxS }}
        unit="s"
      />
      {flaw && <Text className="faint">Marked as flawed: the engine does not count it as plain evidence.</Text>}
    </section>
  );
}
