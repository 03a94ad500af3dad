import '@mantine/spotlight/styles.css';
import { useDebouncedValue } from '@mantine/hooks';
import {
  createSpotlight,
  Spotlight,
  type SpotlightActionData,
  type SpotlightActionGroupData,
} from '@mantine/spotlight';
import type { Session } from '@tempera/contract/team';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { usePaletteStations } from '../bar/index.ts';
import { call } from '../kernel/api.ts';
import { onPaletteAsked } from '../kernel/paletteStore.ts';
import type { PaletteLine, Room } from '../kernel/room.ts';
import { rooms } from './rooms.ts';

const [store, palette] = createSpotlight();
const TYPING_MS = 150;

/** What rooms say of things that a search finds, and what can be done in them. */
const hitWays = Object.assign({}, ...rooms.map(({ hits = {} }) => hits)) as NonNullable<Room['hits']>;
const doings = rooms.flatMap(({ does = [] }) => does);

/** Find anything, do anything: stations, recipes, coffees, people, actions. Opens on / and on Ctrl+K. */
export default function Palette({ session, onHelp }: { session: Session; onHelp: () => void }) {
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const [asked] = useDebouncedValue(typed.trim(), TYPING_MS);
  const stations = usePaletteStations();
  const { data: found } = useQuery({
    queryKey: ['search', asked],
    queryFn: () => call('GET /search', { query: { q: asked } }),
    enabled: asked !== '',
    placeholderData: keepPreviousData,
  });
  useEffect(() => onPaletteAsked(palette.open), []);

  const go = ({ id, label, to, says = '' }: PaletteLine): SpotlightActionData => ({
    id,
    label,
    description: says,
    onClick: () => void navigate(to),
  });
  const hits = asked === '' ? [] : (found?.hits ?? []);
  const actions: SpotlightActionGroupData[] = [
    {
      group: 'In the house',
      actions: hits.flatMap(({ kind, id, name }) => {
        const way = hitWays[kind];
        return way ? [go({ id: `${kind} ${id}`, label: name, to: way.path(id), says: way.word })] : [];
      }),
    },
    { group: 'Stations', actions: stations.map(go) },
    {
      group: 'Do',
      actions: [
        ...doings.filter(({ may }) => may?.(session) ?? true).map(go),
        { id: 'keys', label: 'Keys', description: 'Every single-key shortcut', onClick: onHelp },
      ],
    },
  ];

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
