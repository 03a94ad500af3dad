import { Button, Select, Text, Title } from '@mantine/core';
import type { GroupSheet } from '@tempera/contract/bar';
import type { RecipeVersion } from '@tempera/contract/house';
import type { Kept, SheetChange } from '@tempera/contract/sheet';
import { ENOUGH_YIELDS, judgeButton, type VolumeShot } from '@tempera/core/capture';
import { useState } from 'react';
import { useRecipesInForce } from '../house/index.ts';
import { sentenceOf } from '../kernel/api.ts';
import { useKeepSheet } from '../kernel/sheets.ts';
import { Readings } from '../ui/Readings.tsx';
import { ButtonVerdict } from './ButtonVerdict.tsx';
import classes from '../ui/Check.module.css';
import { useBar } from '../bar/index.ts';

/** Checks a volume button: yields that it gave, what it should give, and the count that would. */
export function ButtonCheck({ group, mayChange }: { group: Kept<GroupSheet>; mayChange: boolean }) {
  const { data: recipes } = useRecipesInForce();
  const { data: bar } = useBar();
  const { buttons } = group.sheet;
  const [name, setName] = useState(buttons[0]?.name ?? '');
  const [recipeId, setRecipeId] = useState<string | null>(null);
  const button = buttons.find((one) => one.name === name);
  // First the recipe that this basket is for, in the order of the grinders.
  const usual = bar?.grinders.find((grinder) => grinder.recipe.basketId === group.sheet.basketId)?.recipe.recipeId;
  const recipe = recipes?.find((one) => one.recipeId === (recipeId ?? usual)) ?? recipes?.[0];
  if (!button || !recipe || !recipes) return null;
  return (
    <section className={`sheet ${classes.check}`} aria-label="Check a button">
      <Title order={2} size="h3">
        Check a volume button
      </Title>
      <div className={classes.choices}>
        <Select
          label="Button"
          value={name}
          allowDeselect={false}
          data={buttons.map((one) => one.name)}
          onChange={(chosen) => setName(chosen ?? '')}
        />
        <Select
          label="Should give"
          value={recipe.recipeId}
          allowDeselect={false}
          data={recipes.map((one) => ({ value: one.recipeId, label: one.name }))}
          onChange={setRecipeId}
        />
      </div>
      <Yields
        key={`${name} ${recipe.recipeId}`}
        group={group}
        name={name}
        counts={button.counts}
        recipe={recipe}
        mayChange={mayChange}
      />
    </section>
  );
}

interface YieldsProps {
  group: Kept<GroupSheet>;
  name: string;
  counts: number;
  recipe: RecipeVersion;
  mayChange: boolean;
}

function Yields({ group, name, counts, recipe, mayChange }: YieldsProps) {
  const [shots, setShots] = useState<VolumeShot[]>([]);
  const [failure, setFailure] = useState<unknown>(null);
  const keep = useKeepSheet('group');
  const now = shots.filter(({ count }) => count === counts).map(({ yieldG }) => yieldG);
  const before = shots.filter(({ count }) => count !== counts);
  const judged = judgeButton(shots, counts, recipe);
  const next = judged?.nextCount ?? counts;
  const program = async (): Promise<void> => {
    const buttons = group.sheet.buttons.map((one) => (one.name === name ? { ...one, counts: next } : one));
    const change: SheetChange<GroupSheet> = {
      basedOn: group.revision,
      retired: false,
      sheet: { ...group.sheet, buttons },
    };
    try {
      await keep(group.id, change);
      setFailure(null);
    } catch (error) {
      setFailure(error);
    }
  };
  return (
    <>
      <Text>
        {name} is programmed to <strong>{counts}</strong> counts. Let the machine stop it {ENOUGH_YIELDS} times, and
        weigh.
      </Text>
      <Readings
        label="Yield"
        quantity="yieldG"
        near={recipe.yieldG}
        values={now}
        onValues={(values) => setShots([...before, ...values.map((yieldG) => ({ count: counts, yieldG }))])}
      />
      {judged && (
        <div className={classes.band}>
          <ButtonVerdict judged={judged} counts={counts} recipe={recipe} />
        </div>
      )}
      {failure !== null && (
        <Text role="alert" c="var(--out)">
          {sentenceOf(failure)}
        </Text>
      )}
      {mayChange && judged?.enough && next !== counts && (
        <Button size="lg" className={classes.alone} onClick={() => void program()}>
          It is programmed to {next}
        </Button>
      )}
    </>
  );
}
