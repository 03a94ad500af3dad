import '@mantine/spotlight/styles.css';
import { useDebouncedValue } from '@mantine/hooks';
import {
  createSpotlight,
  Spotlight,
  type SpotlightActionData,
  type SpotlightActionGroupData,
} from '@mantine/spotlight';
import type { Search } from '@tempera/contract/search';
import type { Session } from '@tempera/contract/team';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useBar } from '../bar/index.ts';
import { api } from './api.ts';
import { onPaletteAsked } from './paletteStore.ts';
import { keepsHouse } from './sheets.ts';

const [store, palette] = createSpotlight();
const TYPING_MS = 150;

/** Where a thing of the house is looked at. A person's entries stand in the journal. */
const pathOf: Record<Search['hits'][number]['kind'], (id: string) => string> = {
  recipe: (id) => `/house/recipes/${id}`,
  coffee: (id) => `/coffee/coffees/${id}`,
  drink: (id) => `/house/drinks/${id}`,
  person: (id) => `/journal?person=${id}`,
};

const kindWord: Record<Search['hits'][number]['kind'], string> = {
  recipe: 'Recipe',
  coffee: 'Coffee',
  drink: 'Drink',
  person: 'Person: what they entered',
};

/** Find anything, do anything: stations, recipes, coffees, people, actions. Opens on / and on Ctrl+K. */
export default function Palette({ session, onHelp }: { session: Session; onHelp: () => void }) {
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const [asked] = useDebouncedValue(typed.trim(), TYPING_MS);
  const { data: bar } = useBar();
  const { data: found } = useQuery({
    queryKey: ['search', asked],
    queryFn: () => api<Search>('GET', `/search?q=${encodeURIComponent(asked)}`),
    enabled: asked !== '',
    placeholderData: keepPreviousData,
  });
  useEffect(() => onPaletteAsked(palette.open), []);

  const actions = useMemo((): SpotlightActionGroupData[] => {
    const go = (id: string, label: string, to: string, description = ''): SpotlightActionData => ({
      id,
      label,
      description,
      onClick: () => void navigate(to),
    });
    const stations = [
      ...(bar?.grinders ?? []).map(({ id, name, coffee }) => go(id, name, `/bench/${id}`, `Bench: ${coffee}`)),
      ...(bar?.waiting ?? []).map(({ id, name }) => go(id, name, `/bar/grinder/${id}`, 'Waits for a coffee')),
      ...(bar?.machines ?? []).flatMap((machine) => [
        go(machine.id, machine.name, `/bar/machine/${machine.id}`, 'Machine'),
        ...machine.groups.map(({ id, name }) => go(id, name, `/bar/group/${id}`, `Group head of ${machine.name}`)),
      ]),
    ];
    const mine = [
      go('take-in', 'Take a bag in', '/coffee/bags/new'),
      ...(keepsHouse(session)
        ? [go('plan', 'Move things on the plan', '/plan'), go('new-coffee', 'Add a coffee', '/coffee/coffees/new')]
        : []),
      ...(session.person.role === 'head' ? [go('new-recipe', 'Write a recipe', '/house/recipes/new')] : []),
      go('pieces', 'The bar, piece by piece', '/bar'),
      go('wall', 'Print the wall card', '/house/wall'),
      go('drinks', 'Drinks and the pace', '/house/drinks'),
      go('policies', 'How the house decides', '/house/policies'),
      go('bags', 'Bags', '/coffee/bags'),
      go('use', 'What calibrating takes', '/coffee/use'),
      go('cafe', 'The café: clock, height, money', '/house/cafe'),
      go('journal', 'Journal', '/journal'),
      { id: 'keys', label: 'Keys', description: 'Every single-key shortcut', onClick: onHelp },
    ];
    const hits = asked === '' ? [] : (found?.hits ?? []);
    return [
      {
        group: 'In the house',
        actions: hits.map(({ kind, id, name }) => go(`${kind} ${id}`, name, pathOf[kind](id), kindWord[kind])),
      },
      { group: 'Stations', actions: stations },
      { group: 'Do', actions: mine },
    ];
  }, [asked, bar, found, navigate, onHelp, session]);

  return (
    <Spotlight
      store={store}
      actions={actions}
      query={typed}
      onQueryChange={setTyped}
      shortcut={['mod + K']}
      scrollable
      maxHeight="60dvh"
      overlayProps={{ blur: 0 }}
      attributes={{ content: { 'aria-label': 'Find anything' } }}
      nothingFound="Nothing by that name."
      searchProps={{ placeholder: 'A station, a recipe, a coffee, a person, something to do', 'aria-label': 'Find' }}
    />
  );
}
