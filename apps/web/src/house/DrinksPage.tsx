import { Button, Group, SegmentedControl, Stack, Text, Title } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { drinkSheetSchema } from '@tempera/contract/house';
import type { Session } from '@tempera/contract/team';
import { paceOf, SCALDS_C } from '@tempera/core/house';
import { useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v4 as uuidv4 } from 'uuid';
import { useBar } from '../bar/index.ts';
import { keepsHouse, useKeepSheet, useSheets } from '../shell/sheets.ts';
import { SheetEditor, type Field } from '../sheet/index.ts';
import { degrees, grams, millilitres } from '../ui/format.ts';
import { Caution, Empty, Failed, Loading } from '../ui/Notice.tsx';
import { knownDrinks, pacedDrink, stationsOf, stationWord, type KnownDrink } from './drinks.ts';
import classes from './House.module.css';
import { HouseTabs } from './HouseTabs.tsx';
import { useRecipesInForce } from './queries.ts';

/** Drinks as cuts of the recipes in force, in grams, and how many the bar can make in an hour. */
export function DrinksPage({ session }: { session: Session }) {
  const sheets = useSheets('drink');
  const { data: recipes, error, refetch } = useRecipesInForce();
  const failed = error ?? sheets.error;
  if (failed) return <Failed error={failed} onRetry={() => void Promise.all([refetch(), sheets.refetch()])} />;
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
        <SegmentedControl aria-labelledby="people" value={people} onChange={setPeople} data={['1', '2', '3', '4']} />
      </div>
    </section>
  );
}

/** The card: grams of every drink from the recipe in force. */
export function DrinkTable({ drinks, linked = false }: { drinks: KnownDrink[]; linked?: boolean }) {
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
              <td>{grams(card.doseG)}</td>
              <td>{grams(card.stopAtG)}</td>
              <td className="number">{grams(card.espressoG)}</td>
              <td>{card.milkG > 0 ? `${millilitres(drink.milkMl)}, ${grams(card.milkG)}` : ''}</td>
              <td>
                {card.stopSteamC === null ? '' : `${degrees(card.stopSteamC, 0)} for ${degrees(drink.milkTempC, 0)}`}
              </td>
              <td>{drink.foamMm > 0 ? `${drink.foamMm} mm` : ''}</td>
              <td>{card.waterG > 0 ? `${millilitres(drink.waterMl)}${drink.waterFirst ? ', first' : ''}` : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const drinkFields = (recipes: readonly { value: string; label: string }[]): readonly Field[] => [
  { type: 'text', name: 'name', label: 'Name' },
  { type: 'choice', name: 'recipeId', label: 'A cut of', options: recipes },
  {
    type: 'number',
    name: 'share',
    label: 'Share of the yield',
    unit: '',
    step: 0.05,
    says: '1 is the whole yield, 0.65 a short one.',
  },
  {
    type: 'number',
    name: 'baskets',
    label: 'Baskets in a drink',
    unit: '',
    step: 0.5,
    says: '0.5 is one spout of a double.',
  },
  { type: 'number', name: 'milkMl', part: 'Milk', label: 'Milk', unit: 'ml', step: 10, digits: 0 },
  { type: 'number', name: 'milkTempC', label: 'Served at', unit: '°C', step: 1, digits: 0, quantity: 'milkTempC' },
  { type: 'number', name: 'foamMm', label: 'Foam', unit: 'mm', step: 1 },
  { type: 'number', name: 'waterMl', part: 'Water', label: 'Water', unit: 'ml', step: 10, digits: 0 },
  { type: 'yes', name: 'waterFirst', label: 'Water first' },
  { type: 'number', name: 'orders', part: 'On the card', label: 'Of a hundred orders', unit: '', step: 1 },
  { type: 'number', name: 'position', label: 'Place on the card', unit: '', step: 1 },
];

const freshDrink = {
  name: '',
  share: 1,
  baskets: 1,
  milkMl: 0,
  foamMm: 0,
  milkTempC: 60,
  waterMl: 0,
  waterFirst: false,
  orders: 5,
};

/** The sheet of a drink, or of a new one. */
export function DrinkSheetPage({ session }: { session: Session }) {
  const { id = 'new' } = useParams();
  const navigate = useNavigate();
  const drinks = useSheets('drink');
  const { data: recipes } = useRecipesInForce();
  const keep = useKeepSheet('drink');
  const newId = useMemo(() => uuidv4(), []);
  if (drinks.error) return <Failed error={drinks.error} onRetry={() => void drinks.refetch()} />;
  if (!drinks.data || !recipes) return <Loading what="the drink" />;
  const current = drinks.data.find((drink) => drink.id === id) ?? null;
  if (id !== 'new' && !current) return <Text>There is no such drink. Go back to the card.</Text>;
  return (
    <Stack gap="md">
      <div>
        <Link to="/house/drinks">Drinks</Link>
        <Title order={1}>{current?.sheet.name ?? 'A new drink'}</Title>
      </div>
      <SheetEditor
        key={id}
        schema={drinkSheetSchema}
        fields={drinkFields(recipes.map(({ recipeId, name }) => ({ value: recipeId, label: name })))}
        current={current}
        fresh={{ ...freshDrink, recipeId: recipes[0]?.recipeId ?? '', position: drinks.data.length + 1 }}
        save={keepsHouse(session) ? (change) => keep(current?.id ?? newId, change) : null}
        onDone={() => void navigate('/house/drinks')}
        timeZone={session.site.timeZone}
      />
    </Stack>
  );
}
