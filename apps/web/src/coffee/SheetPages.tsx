import { Stack, Text, Title } from '@mantine/core';
import { bagSheetSchema, coffeeSheetSchema } from '@tempera/contract/coffee';
import type { Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v4 as uuidv4 } from 'uuid';
import { useRecipesInForce } from '../house/index.ts';
import { keepsHouse, useKeepSheet, useSheets } from '../kernel/sheets.ts';
import { SheetEditor } from '../forms/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { FreshBand } from './FreshBand.tsx';
import { freshnessIn, freshWord } from './fresh.ts';
import { useBag, useStock } from './queries.ts';
import { SplitBag } from './SplitBag.tsx';
import { bagFields, coffeeFields, freshBag, freshCoffee } from './sheetFields.ts';

/** The sheet of a coffee, or of a new one. */
export function CoffeeSheetPage({ session }: { session: Session }) {
  const { id = 'new' } = useParams();
  const navigate = useNavigate();
  const coffees = useSheets('coffee');
  const cafe = useSheets('cafe');
  const { data: recipes } = useRecipesInForce();
  const keep = useKeepSheet('coffee');
  const newId = useMemo(() => uuidv4(), []);
  if (coffees.error && !coffees.data) return <Failed error={coffees.error} onRetry={() => void coffees.refetch()} />;
  if (!coffees.data || !recipes || !cafe.data) return <Loading what="the coffee" />;
  const current = coffees.data.find((coffee) => coffee.id === id) ?? null;
  if (id !== 'new' && !current) return <Text>There is no such coffee. Go back to the list.</Text>;
  const options = recipes.map(({ recipeId, name }) => ({ value: recipeId, label: name }));
  return (
    <Stack gap="md">
      <div>
        <Link to="/coffee">Coffee</Link>
        <Title order={1}>{current?.sheet.name ?? 'A new coffee'}</Title>
        {current && <Link to={`/taste/trial/${current.id}`}>Find a recipe for it by tasting</Link>}
      </div>
      <SheetEditor
        key={id}
        schema={coffeeSheetSchema}
        fields={coffeeFields(options, cafe.data[0]?.sheet.currency ?? 'EUR')}
        current={current}
        fresh={freshCoffee}
        save={keepsHouse(session) ? (change) => keep(current?.id ?? newId, change) : null}
        onDone={() => void navigate('/coffee')}
        timeZone={session.site.timeZone}
      />
    </Stack>
  );
}

/** The sheet of a bag, or of one that is taken in. */
export function BagSheetPage({ session }: { session: Session }) {
  const { id = 'new' } = useParams();
  const navigate = useNavigate();
  const { data: stock, error, refetch } = useStock();
  const bag = useBag(id === 'new' ? null : id);
  const keep = useKeepSheet('bag');
  const newId = useMemo(() => uuidv4(), []);
  const nowMs = useNow();
  const { timeZone, dayStartsMin } = session.site;
  const failed = error ?? bag.error;
  if (failed && !(stock && (id === 'new' || bag.data)))
    return <Failed error={failed} onRetry={() => void Promise.all([refetch(), bag.refetch()])} />;
  if (!stock || (id !== 'new' && !bag.data)) return <Loading what="the bag" />;
  const coffees = stock.coffees.filter(
    ({ retired, id: coffeeId }) => !retired || coffeeId === bag.data?.sheet.coffeeId,
  );
  if (coffees.length === 0) {
    return (
      <Text>
        A bag is of a coffee, and none is in the book yet. <Link to="/coffee/coffees/new">Add the coffee first.</Link>
      </Text>
    );
  }
  const coffee = stock.coffees.find((one) => one.id === bag.data?.sheet.coffeeId);
  const freshness = bag.data ? freshnessIn(stock, bag.data, timeZone, nowMs) : null;
  return (
    <Stack gap="md">
      <div>
        <Link to="/coffee/bags">Bags</Link>
        <Title order={1}>{bag.data ? `A bag of ${bag.data.coffee}` : 'A bag comes in'}</Title>
      </div>
      {freshness && coffee && bag.data?.state !== 'used' && (
        <section className="sheet" aria-label="Freshness" style={{ maxWidth: 640 }}>
          <Text>{freshWord(freshness)}</Text>
          <FreshBand freshness={freshness} coffee={coffee.sheet} />
        </section>
      )}
      {bag.data && (bag.data.state === 'closed' || bag.data.state === 'open') && (
        <SplitBag bag={bag.data} session={session} onDone={() => void navigate('/coffee/bags')} />
      )}
      <SheetEditor
        key={id}
        schema={bagSheetSchema}
        fields={bagFields(coffees.map((one) => ({ value: one.id, label: one.sheet.name })))}
        current={bag.data ?? null}
        fresh={freshBag(businessDay(nowMs, timeZone, dayStartsMin), coffees[0]?.id ?? '')}
        save={(change) => keep(bag.data?.id ?? newId, change)}
        onDone={() => void navigate('/coffee')}
        timeZone={timeZone}
      />
    </Stack>
  );
}
