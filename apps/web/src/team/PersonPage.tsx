import { Stack, Text, Title } from '@mantine/core';
import { skills } from '@tempera/contract/signOffs';
import { personSheetSchema, roles, type Session } from '@tempera/contract/team';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v4 as uuidv4 } from 'uuid';
import { SheetEditor, type Field } from '../forms/index.ts';
import { keepsHouse, useKeepSheet, useSheets } from '../kernel/sheets.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { usePieces } from './pieces.ts';
import { roleWord, skillWord } from './roleWords.ts';

/** Who may be made what is said where it is chosen: the office makes no heads. */
const fieldsFor = (
  isHead: boolean,
  { skills: pieces, nameOf }: ReturnType<typeof usePieces>,
  heads: readonly { value: string; label: string }[],
  self: string,
): readonly Field[] => [
  { type: 'text', name: 'name', label: 'Name, as the bar calls them', wide: true },
  {
    type: 'choice',
    name: 'role',
    label: 'Is here as',
    options: roles.filter((role) => isHead || role !== 'head').map((value) => ({ value, label: roleWord[value] })),
  },
  {
    type: 'list',
    name: 'signOffs',
    label: 'Signed off by a head, to work alone at',
    one: 'sign-off',
    wide: true,
    blank: { skill: 'dial', on: '', until: '', by: self },
    of: [
      {
        type: 'choice',
        name: 'skill',
        label: 'What',
        options: [...skills, ...pieces].map((value) => ({ value, label: skillWord(value, nameOf) })),
      },
      { type: 'day', name: 'on', label: 'Since' },
      { type: 'day', name: 'until', label: 'Lapses on', optional: true },
      { type: 'choice', name: 'by', label: 'By', options: heads, none: 'not noted' },
    ],
  },
];

/** Somebody of the house, or somebody new. */
export function PersonPage({ session }: { session: Session }) {
  const { id = 'new' } = useParams();
  const navigate = useNavigate();
  const { data: people, error, refetch } = useSheets('person');
  const keep = useKeepSheet('person');
  const pieces = usePieces();
  const [newId] = useState(() => uuidv4());
  if (!people) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the team" />;
  const current = people.find((person) => person.id === id) ?? null;
  if (id !== 'new' && !current) return <Text>There is nobody by that name. Go back to the team.</Text>;
  const isHead = session.person.role === 'head';
  const noted = new Set(current?.sheet.signOffs.map(({ by }) => by));
  const heads = people
    .filter((one) => (one.sheet.role === 'head' && !one.retired) || noted.has(one.id))
    .map((one) => ({ value: one.id, label: one.sheet.name }));
  const may = keepsHouse(session) && (isHead || current?.sheet.role !== 'head');
  return (
    <Stack gap="md">
      <div>
        <Link to="/team">Team</Link>
        <Title order={1}>{current?.sheet.name ?? 'Somebody new'}</Title>
      </div>
      <SheetEditor
        key={id}
        schema={personSheetSchema}
        fields={fieldsFor(isHead || current?.sheet.role === 'head', pieces, heads, isHead ? session.person.id : '')}
        current={current}
        fresh={{ name: '', role: 'trainee', signOffs: [] }}
        save={may ? (change) => keep(current?.id ?? newId, change) : null}
        whoMay={
          isHead ? 'Only a head barista or the office changes this.' : 'Only a head barista changes a head barista.'
        }
        onDone={() => void navigate('/team')}
        timeZone={session.site.timeZone}
      />
    </Stack>
  );
}
