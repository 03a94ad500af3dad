import { Button, NativeSelect, Text, Title } from '@mantine/core';
import { Link, useNavigate } from 'react-router';
import { degrees, grams } from '../kernel/format.ts';
import classes from './Bench.module.css';
import { aimWord } from '../house/index.ts';
import { benchPath } from './benchPath.ts';
import type { BenchView } from './useBench.ts';

/** Which station this is, what it aims at, and the one next thing to do. */
export function BenchHead({
  view,
  instruction,
  onNewBag,
  check,
  opening,
  usedG,
}: {
  view: BenchView;
  check: boolean;
  /** Whether an opening is in hand, to go back to. */
  opening: boolean;
  instruction: string;
  /** Grams of this grinder since the opening began, or else today. */
  usedG: number;
  /** Null while a shot runs. */
  onNewBag: (() => void) | null;
}) {
  const { grinder, group, groups } = view;
  const { recipe, others } = grinder;
  const navigate = useNavigate();
  const recipes = [recipe, ...others.map((other) => other.recipe)].toSorted((a, b) => b.doseG - a.doseG);
  return (
    <div className={classes.head}>
      <div className={classes.what}>
        <Text className="faint">
          {grinder.name}, {grinder.coffee}, {group.name}
        </Text>
        <div aria-live="polite">
          <Title order={1}>{instruction}</Title>
        </div>
      </div>
      <div className={classes.aim}>
        <Text>
          <span className="number">{grams(recipe.doseG)}</span> in,{' '}
          <span className="number">{grams(recipe.yieldG)}</span> out,{' '}
          <span className="number">
            {recipe.timeMinS}–{recipe.timeMaxS} s
          </span>
        </Text>
        <RecipeNotes view={view} />
        {usedG > 0 && (
          <Text className={`faint ${classes.used}`}>
            {grams(usedG)} of coffee used {opening ? 'since the opening began' : 'today'}
          </Text>
        )}
      </div>
      <div className={classes.tools}>
        {opening && !check && (
          <Button className={classes.back} variant="default" component={Link} to="/opening">
            Opening
          </Button>
        )}
        {grinder.dualWalled && (
          <Button variant="default" component={Link} to={`/taste/${grinder.id}`}>
            Taste it
          </Button>
        )}
        <Button variant="default" onClick={() => onNewBag?.()} disabled={onNewBag === null}>
          New bag
        </Button>
        {others.length > 0 && (
          <NativeSelect
            aria-label="Recipe"
            size="lg"
            className={classes.recipe}
            value={recipe.recipeId}
            data={recipes.map(({ recipeId, name }) => ({ value: recipeId, label: name }))}
            onChange={({ currentTarget: { value } }) =>
              void navigate(benchPath(grinder.id, group.id, { check, recipeId: value }))
            }
          />
        )}
        <NativeSelect
          aria-label="Group"
          size="lg"
          className={classes.group}
          value={group.id}
          data={groups.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={({ currentTarget: { value } }) =>
            void navigate(benchPath(grinder.id, value, { check, recipeId: others.length > 0 ? recipe.recipeId : null }))
          }
        />
      </div>
    </div>
  );
}

/** What this recipe and machine ask for beside grams and seconds. */
function RecipeNotes({ view: { grinder, machine } }: { view: BenchView }) {
  const { recipe, dualWalled, before } = grinder;
  const { tampG, pressureShape, soakS, pauseS, tempC } = recipe;
  const lines = [
    before ? aimWord(before) : null,
    dualWalled ? 'Dual-walled basket: judge by yield and taste, move little' : null,
    machine?.lever ? 'A lever: time runs from its first pull' : null,
    machine?.lever && tempC !== null ? `Let the water fall to ${degrees(tempC)}` : null,
    soakS > 0 ? `Soak ${soakS} s${pauseS > 0 ? `, pause ${pauseS} s` : ''}` : null,
    pressureShape === '' ? null : pressureShape,
    tampG === null ? null : `Tamp with a push of ${Math.round(tampG)} g`,
  ].filter((line) => line !== null);
  return lines.length === 0 ? null : <Text className="faint">{lines.join('. ')}.</Text>;
}
