import { Stack, Text, Title } from '@mantine/core';
import type { GrinderSheet, GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import type { SheetKind } from '@tempera/contract/sheetPaths';
import { sheetSchemas } from '@tempera/contract/sheets';
import type { Session } from '@tempera/contract/team';
import { useMemo } from 'react';
import { Link, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { v4 as uuidv4, validate } from 'uuid';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { keepsHouse, useKeepSheet, useSheets } from '../kernel/sheets.ts';
import { Slot } from '../kernel/slots.tsx';
import { SheetEditor, type Field } from '../forms/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { LearnedGrinder, LearnedGroup } from './LearnedParts.tsx';
import { MachineGroups } from './MachineGroups.tsx';
import { MachineWarmth } from './MachineWarmth.tsx';
import { useBar } from './queries.ts';
import {
  basketFields,
  counterFields,
  fixtureFields,
  freshPieces,
  grinderFields,
  groupFields,
  machineFields,
} from './sheetFields.ts';

const pieceKinds = ['machine', 'group', 'grinder', 'basket', 'fixture', 'counter'] as const;
type Kind = (typeof pieceKinds)[number] & SheetKind;

const kindWord: Record<Kind, string> = {
  machine: 'machine',
  group: 'group head',
  grinder: 'grinder',
  basket: 'basket',
  fixture: 'piece',
  counter: 'counter',
};

/** The sheet of one piece of the bar, or of a new one. */
export function PiecePage({ session }: { session: Session }) {
  const { kind = '', id = '' } = useParams();
  const known = pieceKinds.find((candidate) => candidate === kind);
  if (!known || (id !== 'new' && !validate(id))) return <Text>There is no such piece. Go back to the bar.</Text>;
  return <Piece key={`${kind} ${id}`} kind={known} id={id} session={session} />;
}

function Piece({ kind, id, session }: { kind: Kind; id: string; session: Session }) {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const { key: cameFrom } = useLocation();
  const own = useSheets(kind);
  const machines = useSheets('machine');
  const baskets = useSheets('basket');
  const keep = useKeepSheet(kind);
  const { data: bar } = useBar();
  const grinder = bar?.grinders.find((one) => one.id === id);
  const newId = useMemo(() => uuidv4(), []);
  const error = own.error ?? machines.error ?? baskets.error;
  const known = own.data && machines.data && baskets.data;
  if (error && !known)
    return <Failed error={error} onRetry={() => void Promise.all([own.refetch(), machines.refetch()])} />;
  if (!own.data || !machines.data || !baskets.data) return <Loading what="the sheet" />;
  const current = own.data.find((sheet) => sheet.id === id) ?? null;
  if (id !== 'new' && !current) return <Text>There is no such {kindWord[kind]}. Go back to the bar.</Text>;
  const options = machines.data
    .filter(({ retired }) => !retired)
    .map((machine) => ({ value: machine.id, label: machine.sheet.name }));
  const fields: Record<Kind, readonly Field[]> = {
    machine: machineFields,
    group: groupFields(options, baskets.data),
    grinder: grinderFields,
    basket: basketFields,
    fixture: fixtureFields,
    counter: counterFields,
  };
  const fresh = { ...freshPieces[kind], ...(kind === 'group' ? firstOf(search, options, own.data) : {}) };
  const back = (): void => void (cameFrom === 'default' ? navigate('/bar') : navigate(-1));
  return (
    <Stack gap="md">
      <div>
        <Text className="faint">
          <Link to="/bar">The bar, piece by piece</Link>
        </Text>
        <Title order={1}>{current ? current.sheet.name : `A new ${kindWord[kind]}`}</Title>
      </div>
      {current && kind === 'grinder' && <LearnedGrinder grinderId={id} />}
      {current && kind === 'machine' && (
        <>
          <MachineWarmth machineId={id} />
          <MachineGroups machineId={id} mayChange={keepsHouse(session)} />
        </>
      )}
      {current && kind === 'group' && <LearnedGroup groupId={id} />}
      <SheetEditor
        schema={sheetSchemas[kind] as never}
        fields={fields[kind]}
        current={current as never}
        fresh={fresh as never}
        save={keepsHouse(session) ? (change) => keep(current?.id ?? newId, change) : null}
        onDone={back}
        timeZone={session.site.timeZone}
      />
      {current && kind === 'group' && !current.retired && (
        <PanelBoundary what="The check of the buttons">
          <Slot of="groupChecks" told={{ group: current as Kept<GroupSheet>, mayChange: keepsHouse(session) }} />
        </PanelBoundary>
      )}
      {current && kind === 'grinder' && grinder && (
        <PanelBoundary what="The check of the doses">
          <Slot
            of="grinderChecks"
            told={{ sheet: current as Kept<GrinderSheet>, grinder, mayChange: keepsHouse(session) }}
          />
        </PanelBoundary>
      )}
    </Stack>
  );
}

/** A new group head: of the machine that was looked at, or of the first, beside the ones it has. */
function firstOf(
  search: URLSearchParams,
  options: readonly { value: string }[],
  pieces: readonly Pick<Kept<unknown>, 'retired' | 'sheet'>[],
) {
  const machineId = search.get('machine') ?? options[0]?.value ?? '';
  const groups = pieces.filter(({ retired }) => !retired).map(({ sheet }) => sheet as GroupSheet);
  const taken = groups.filter((group) => group.machineId === machineId).map(({ position }) => position);
  return { machineId, position: Number(search.get('position') ?? Math.max(0, ...taken) + 1) };
}
