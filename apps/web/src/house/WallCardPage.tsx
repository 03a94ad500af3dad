import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { IconPrinter } from '@tabler/icons-react';
import { useBar } from '../bar/index.ts';
import { useSheets } from '../kernel/sheets.ts';
import { dayWord } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { businessDay } from '@tempera/core/house';
import { useNow } from '../ui/useNow.ts';
import { DrinkTable } from './DrinksPage.tsx';
import { knownDrinks } from './drinks.ts';
import classes from './House.module.css';
import { HouseTabs } from './HouseTabs.tsx';
import { useRecipesInForce } from './queries.ts';
import { aimWord, inOutWord, timeWord } from './recipeWords.ts';

/** One sheet for the wall: every grinder's recipe, and every drink in grams. */
export function WallCardPage({ session }: { session: Session }) {
  const drinks = useSheets('drink');
  const { data: recipes, error, refetch } = useRecipesInForce();
  const { data: bar } = useBar();
  const nowMs = useNow();
  if (error) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!recipes || !drinks.data || !bar) return <Loading what="the card" />;
  const known = knownDrinks(drinks.data, recipes);
  const { name, timeZone, dayStartsMin } = session.site;
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
        {bar.grinders.map(({ id, name: grinder, coffee, recipe, before }) => (
          <li key={id}>
            <strong>{grinder}</strong> {coffee}
            <br />
            <span className="number">{inOutWord(recipe)}</span>
            <br />
            {timeWord(recipe)}
            {before && (
              <>
                <br />
                {aimWord(before)}
              </>
            )}
          </li>
        ))}
      </ul>
      {known.length > 0 && <DrinkTable drinks={known} />}
    </Stack>
  );
}
