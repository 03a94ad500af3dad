import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import type { Session } from '@tempera/contract/team';
import { paceOf, SCALDS_C, type Units } from '@tempera/core/house';
import { Link } from 'react-router';
import { useBar } from '../bar/index.ts';
import { keepsHouse, useSheets } from '../kernel/sheets.ts';
import { degrees, grams, millilitres } from '../kernel/format.ts';
import { Caution, Empty, Failed, Loading } from '../ui/Notice.tsx';
import { OneOf } from '../ui/OneOf.tsx';
import { knownDrinks, pacedDrink, stationsOf, stationWord, type KnownDrink } from './drinks.ts';
import classes from './House.module.css';
import { HouseTabs } from './HouseTabs.tsx';
import { useRecipesInForce } from './queries.ts';

/** Drinks as cuts of the recipes in force, in grams, and how many the bar can make in an hour. */
export function DrinksPage({ session }: { session: Session }) {
  const sheets = useSheets('drink');
  const { data: recipes, error, refetch } = useRecipesInForce();
  const failed = error ?? sheets.error;
  if (failed && !(recipes && sheets.data))
    return <Failed error={failed} onRetry={() => void Promise.all([refetch(), sheets.refetch()])} />;
  if (!recipes || !sheets.data) return <Loading what="the drinks" />;
  const drinks = knownDrinks(sheets.data, recipes);
  return (
    <Stack gap="md">
      <HouseTabs />
      <Group justify="space-between">
        <Title order={1}>Drinks</Title>
        {keepsHouse(session) && (
          <Button component={Link} to="/house/drinks/new">
            Add a drink
          </Button>
        )}
      </Group>
      {drinks.length === 0 ? (
        <Empty>No drink is on the card yet. Each is a cut or a multiple of a recipe.</Empty>
      ) : (
        <>
          <PaceNote drinks={drinks} />
          <DrinkTable drinks={drinks} linked />
          <Caution>
            Milk climbs on after the steam is shut. Above {degrees(SCALDS_C, 0)} it scalds; hot drinks burn.
          </Caution>
        </>
      )}
    </Stack>
  );
}

/** What the bar can make in an hour, and what holds it up. */
function PaceNote({ drinks }: { drinks: KnownDrink[] }) {
  const { data: bar } = useBar();
  const [people, setPeople] = useLocalStorage({ key: 'tempera.people', defaultValue: '2' });
  if (!bar) return null;
  const stations = stationsOf(bar, Number(people));
  const pace = paceOf(
    drinks.map((drink) => pacedDrink(drink, bar)),
    stations,
  );
  return (
    <section className={`sheet ${classes.pace}`} aria-label="Pace">
      <div>
        <Title order={2} size="h3">
          {pace ? `About ${Math.round(pace.drinksPerHour)} drinks an hour` : 'No pace without orders'}
        </Title>
        <Text className="faint">
          {pace
            ? `Held up by ${stationWord[pace.bottleneck]}: ${Math.round(pace.busyS[pace.bottleneck])} s of them for the mean order. A bound, with nobody waiting for anything else.`
            : 'Give the drinks their share of a hundred orders.'}
        </Text>
      </div>
      <div>
        <Text className="faint" id="people">
          Behind the bar
        </Text>
        <OneOf labelledBy="people" value={people} onChange={setPeople} options={['1', '2', '3', '4']} />
      </div>
    </section>
  );
}

/** The card: grams of every drink from the recipe in force. */
export function DrinkTable({
  drinks,
  units,
  linked = false,
}: {
  drinks: KnownDrink[];
  units?: Units;
  linked?: boolean;
}) {
  return (
    <div className={classes.scroll}>
      <table className={classes.drinks}>
        <thead>
          <tr>
            <th scope="col">Drink</th>
            <th scope="col">Coffee</th>
            <th scope="col">Stop at</th>
            <th scope="col">In the cup</th>
            <th scope="col">Milk</th>
            <th scope="col">Steam to</th>
            <th scope="col">Foam</th>
            <th scope="col">Water</th>
          </tr>
        </thead>
        <tbody>
          {drinks.map(({ id, drink, recipe, card }) => (
            <tr key={id}>
              <th scope="row">
                {linked ? <Link to={`/house/drinks/${id}`}>{drink.name}</Link> : drink.name}
                <span className="faint"> {recipe.name}</span>
              </th>
              <td data-label="Coffee">{grams(card.doseG, units)}</td>
              <td data-label="Stop at">{grams(card.stopAtG, units)}</td>
              <td data-label="In the cup" className="number">
                {grams(card.espressoG, units)}
              </td>
              <td data-label="Milk">
                {card.milkG > 0 ? `${millilitres(drink.milkMl, units)}, ${grams(card.milkG, units)}` : ''}
              </td>
              <td data-label="Steam to">
                {card.stopSteamC === null
                  ? ''
                  : `${degrees(card.stopSteamC, 0, units)} for ${degrees(drink.milkTempC, 0, units)}`}
              </td>
              <td data-label="Foam">{drink.foamMm > 0 ? `${drink.foamMm} mm` : ''}</td>
              <td data-label="Water">
                {card.waterG > 0 ? `${millilitres(drink.waterMl, units)}${drink.waterFirst ? ', first' : ''}` : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
