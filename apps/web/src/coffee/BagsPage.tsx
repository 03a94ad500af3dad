import { Button, Select, Stack, Title } from '@mantine/core';
import { bagStates, type Bag, type BagsQuery } from '@tempera/contract/coffee';
import type { Session } from '@tempera/contract/team';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayWord, kilograms } from '../kernel/format.ts';
import { LongTable, type Column, type Look } from '../ui/LongTable.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { nameIn, useBar } from '../bar/index.ts';
import { CoffeeTabs } from './CoffeeTabs.tsx';
import { freshnessIn, freshWord } from './fresh.ts';
import { firstBags, useBagPage, useStock } from './queries.ts';

const { perPage, ...opens } = firstBags;
const stateWord: Record<Bag['state'], string> = {
  closed: 'closed',
  open: 'open',
  hopper: 'in a hopper',
  used: 'used up',
};

/** Every bag that was ever taken in. */
export function BagsPage({ session }: { session: Session }) {
  const [look, setLook] = useState<Look<BagsQuery['sort']>>({ ...opens });
  const [state, setState] = useState<Bag['state'] | ''>('');
  const { data, error, refetch } = useBagPage({ ...look, perPage, ...(state === '' ? {} : { state }) });
  const { data: stock } = useStock();
  const { data: bar } = useBar();
  const nowMs = useNow();
  if (!data) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the bags" />;
  const freshIn = (bag: Bag): string => {
    const freshness = stock && bag.state !== 'used' ? freshnessIn(stock, bag, session.site.timeZone, nowMs) : null;
    return freshness ? freshWord(freshness) : '';
  };
  const isWord = ({ state: is, grinderId }: Bag): string =>
    is === 'hopper' ? `in ${nameIn(bar, grinderId) ?? 'a hopper'}` : stateWord[is];
  const columns: Column<Bag, BagsQuery['sort']>[] = [
    {
      name: 'Roasted',
      sort: 'roastedOn',
      cell: (bag) => <Link to={`/coffee/bags/${bag.id}`}>{dayWord(bag.sheet.roastedOn)}</Link>,
    },
    { name: 'Coffee', sort: 'coffee', cell: (bag) => bag.coffee },
    { name: 'Weight', sort: 'weightG', number: true, cell: (bag) => kilograms(bag.sheet.weightG) },
    { name: 'Is', cell: isWord },
    { name: 'Opened', sort: 'openedAt', cell: (bag) => (bag.openedAt ? dayWord(bag.openedAt.slice(0, 10)) : '') },
    { name: 'Fresh', cell: freshIn },
    { name: 'Mark', cell: (bag) => bag.sheet.label },
  ];
  return (
    <Stack gap="md">
      <CoffeeTabs />
      <Title order={1}>Bags</Title>
      <LongTable
        label="Bags"
        columns={columns}
        rows={data.rows}
        keyOf={({ id }) => id}
        total={data.total}
        perPage={perPage}
        look={look}
        onLook={setLook}
        searchLabel="Find by coffee, mark or date"
        empty="No bag matches. Take one in, or look for something else."
        beside={
          <>
            <Select
              label="Which"
              value={state}
              allowDeselect={false}
              data={[{ value: '', label: 'all' }, ...bagStates.map((value) => ({ value, label: stateWord[value] }))]}
              onChange={(value) => {
                setState(value ?? '');
                setLook({ ...look, page: 1 });
              }}
            />
            <Button component={Link} to="/coffee/bags/new">
              Take a bag in
            </Button>
          </>
        }
      />
    </Stack>
  );
}
