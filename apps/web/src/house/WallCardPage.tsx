import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { IconPrinter } from '@tabler/icons-react';
import type { Grinder } from '@tempera/contract/bar';
import { grinderSet, type GrinderSet } from '@tempera/core/calibration';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { useSheets } from '../kernel/sheets.ts';
import { dayWord } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { businessDay, unitSchools, type Units } from '@tempera/core/house';
import { useNow } from '../ui/useNow.ts';
import { DrinkTable } from './DrinksPage.tsx';
import { knownDrinks } from './drinks.ts';
import classes from './House.module.css';
import { HouseTabs } from './HouseTabs.tsx';
import { useRecipesInForce } from './queries.ts';
import { aimWord, inOutWord, timeWord } from './recipeWords.ts';
import { setWord } from './setWord.ts';

/** One sheet for the wall: every grinder's recipe, and every drink in grams. */
export function WallCardPage({ session }: { session: Session }) {
  const drinks = useSheets('drink');
  const cafe = useSheets('cafe');
  const { data: recipes, error, refetch } = useRecipesInForce();
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const nowMs = useNow();
  if (error && !recipes) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!recipes || !drinks.data || !bar || !cafe.data) return <Loading what="the card" />;
  const known = knownDrinks(drinks.data, recipes);
  const { name, timeZone, dayStartsMin } = session.site;
  // Whoever reads a wall has not signed in: it is written in the house's units.
  const units = unitSchools[cafe.data[0]?.sheet.unitSchool ?? 'metric'];
  return (
    <Stack gap="md" className={classes.wall}>
      <div className={classes.noPrint}>
        <HouseTabs />
      </div>
      <Group justify="space-between">
        <div>
          <Title order={1}>{name}</Title>
          <Text className="faint">As it holds {dayWord(businessDay(nowMs, timeZone, dayStartsMin))}</Text>
        </div>
        <Button
          className={classes.noPrint}
          variant="default"
          leftSection={<IconPrinter />}
          onClick={() => window.print()}
        >
          Print
        </Button>
      </Group>
      {bar.grinders.length === 0 && known.length === 0 && (
        <Empty>Nothing to hang up yet: no grinder holds a coffee with a recipe.</Empty>
      )}
      <ul className={classes.grinders}>
        {bar.grinders.map((grinder) => (
          <GrinderLine key={grinder.id} grinder={grinder} set={grinderSet(facts, grinder.id)} units={units} />
        ))}
      </ul>
      {known.length > 0 && <DrinkTable drinks={known} units={units} />}
    </Stack>
  );
}

/** What whoever works at a grinder has to know of it today. */
function GrinderLine({ grinder, set, units }: { grinder: Grinder; set: GrinderSet | null; units: Units }) {
  const { name, coffee, recipe, before } = grinder;
  return (
    <li>
      <strong>{name}</strong> {coffee}
      <br />
      <strong className="number">{set ? setWord(grinder, set) : 'Never dialled in'}</strong>
      {set?.changed && ' (changed since)'}
      <br />
      <span className="number">{inOutWord(recipe, units)}</span>
      <br />
      {timeWord(recipe)}
      {before && (
        <>
          <br />
          {aimWord(before, units)}
        </>
      )}
    </li>
  );
}
