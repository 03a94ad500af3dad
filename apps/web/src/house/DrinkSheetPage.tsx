import { Stack, Text, Title } from '@mantine/core';
import { drinkSheetSchema } from '@tempera/contract/house';
import type { Session } from '@tempera/contract/team';
import { useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v4 as uuidv4 } from 'uuid';
import { SheetEditor, type Field } from '../forms/index.ts';
import { keepsHouse, useKeepSheet, useSheets } from '../kernel/sheets.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useRecipesInForce } from './queries.ts';

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
  if (drinks.error && !drinks.data) return <Failed error={drinks.error} onRetry={() => void drinks.refetch()} />;
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
