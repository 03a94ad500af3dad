import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Bar, PieceKind, Place } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { GRID_CM, misplaced, putDown } from '@tempera/core/bar';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ApiProblem, sentenceOf } from '../kernel/api.ts';
import { staysHere } from '../kernel/whereabouts.ts';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { keepsHouse } from '../kernel/sheets.ts';
import { NumberField } from '../ui/NumberField.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { parseNumber } from '@tempera/core/house';
import classes from './PlanPage.module.css';
import { Board, type Piece, type Plan, type Put } from './PlanBoard.tsx';
import { useBar, useChangePlan } from './queries.ts';

function planOf(bar: Bar): Plan {
  const piecesOf = (kind: PieceKind, list: readonly { id: string; name: string; place: Place }[]): Piece[] =>
    list.map(({ id, name, place }) => ({ kind, id, name, place }));
  return {
    room: bar.room,
    pieces: [
      ...piecesOf('counter', bar.counters),
      ...piecesOf('machine', bar.machines),
      ...piecesOf('grinder', [...bar.grinders, ...bar.waiting]),
      ...piecesOf('fixture', bar.fixtures),
    ],
  };
}

/** The bar with its pieces where the plan has them now. */
function barAs(bar: Bar, { room, pieces }: Plan): Bar {
  const moved = <T extends { id: string; place: Place }>(list: readonly T[]): T[] =>
    list.map((piece) => ({ ...piece, place: pieces.find(({ id }) => id === piece.id)?.place ?? piece.place }));
  return {
    ...bar,
    room,
    counters: moved(bar.counters),
    machines: moved(bar.machines),
    grinders: moved(bar.grinders),
    waiting: moved(bar.waiting),
    fixtures: moved(bar.fixtures),
  };
}

/** The plan editor: pieces moved by pointer, touch or keyboard, on a grid, with undo. */
export function PlanPage({ session }: { session: Session }) {
  const { data: bar, error, refetch } = useBar();
  if (!bar) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the plan" />;
  return <PlanEditor bar={bar} mayChange={keepsHouse(session)} />;
}

function PlanEditor({ bar, mayChange }: { bar: Bar; mayChange: boolean }) {
  const draft = usePlanDraft(bar);
  const { plan, put, overtaken, goOn, letGo, failure } = draft;
  const [chosenId, setChosenId] = useState<string | null>(null);
  const chosen = plan.pieces.find(({ id }) => id === chosenId) ?? null;
  const shown = barAs(bar, plan);
  const wrong = misplaced(
    plan.pieces.filter(({ kind }) => kind !== 'counter'),
    shown.counters.map(({ place }) => place),
  );
  const nameOf = (id: string): string => plan.pieces.find((piece) => piece.id === id)?.name ?? '';
  return (
    <Stack gap="sm">
      <Group justify="space-between">
        <div>
          <Title order={1}>The plan</Title>
          <Text className="faint">
            {mayChange
              ? 'Drag a piece, or choose it and use the arrow keys. It snaps to 2 cm.'
              : 'Only a head barista or the office moves things here.'}
          </Text>
        </div>
        {mayChange && <Ways draft={draft} />}
      </Group>
      {overtaken && (
        <Group role="alert" className={classes.overtaken}>
          <Text>Somebody else moved things meanwhile. Yours is kept here.</Text>
          <Button onClick={goOn}>Go on with mine</Button>
          <Button variant="default" onClick={letGo}>
            Take theirs
          </Button>
        </Group>
      )}
      {failure !== null && (
        <Text role="alert" c="var(--out)">
          {failure}
        </Text>
      )}
      <Board shown={shown} plan={plan} chosenId={chosenId} mayChange={mayChange} onChoose={setChosenId} onPut={put} />
      <div className={classes.under}>
        {chosen && mayChange ? (
          <ChosenPiece
            key={`${chosen.id} ${JSON.stringify(chosen.place)}`}
            piece={chosen}
            room={plan.room}
            onPut={put}
          />
        ) : (
          <Text className="faint">Choose a piece to see its size.</Text>
        )}
        <div aria-live="polite">
          {wrong.map(({ id, why }) => (
            <Text key={id}>
              {nameOf(id)} {why === 'overlaps' ? 'stands in something else.' : 'stands off the counter.'}
            </Text>
          ))}
        </div>
        <Link to="/bar">Pieces and their sheets</Link>
      </div>
    </Stack>
  );
}

/** The plan as it is moved about: undone, done again, and kept based on what was seen. */
function usePlanDraft(bar: Bar) {
  // Null: nothing was moved, and the plan shows what is kept, whoever moves it.
  const [history, setHistory] = useState<{ plans: Plan[]; at: number; basedOn: number } | null>(null);
  const change = useChangePlan();
  const navigate = useNavigate();
  const plan = history?.plans[history.at] ?? planOf(bar);
  const overtaken = history !== null && history.basedOn !== bar.planRevision;

  const become = (next: Plan): void => {
    const plans = [...(history?.plans.slice(0, history.at + 1) ?? [plan]), next];
    setHistory({ plans, at: plans.length - 1, basedOn: history?.basedOn ?? bar.planRevision });
  };
  const put = (id: string, place: (piece: Piece) => Place): void =>
    become({
      ...plan,
      pieces: plan.pieces.map((piece) => (piece.id === id ? { ...piece, place: place(piece) } : piece)),
    });
  const step = (by: number): void => {
    if (!history) return;
    const to = history.at + by;
    if (to >= 0 && to < history.plans.length) setHistory({ ...history, at: to });
  };
  useShortcuts({ u: () => step(-1), r: () => step(1) });
  const keep = (): void => {
    if (!history) return;
    const pieces = plan.pieces.map(({ kind, id, place }) => ({ kind, id, place }));
    const isHere = staysHere();
    change.mutate(
      { basedOn: history.basedOn, room: plan.room, pieces },
      { onSuccess: () => isHere() && void navigate('/') },
    );
  };
  const refused =
    change.error !== null && !(change.error instanceof ApiProblem && change.error.problem.code === 'changedMeanwhile');
  return {
    plan,
    put,
    step,
    keep,
    overtaken,
    isPending: change.isPending,
    failure: refused ? sentenceOf(change.error) : null,
    canUndo: history !== null && history.at > 0,
    canRedo: history !== null && history.at < history.plans.length - 1,
    goOn: () => history && setHistory({ ...history, basedOn: bar.planRevision }),
    letGo: () => setHistory(null),
  };
}

/** Back, forth, and keeping it. */
function Ways({ draft }: { draft: ReturnType<typeof usePlanDraft> }) {
  const { step, keep, canUndo, canRedo, overtaken, isPending } = draft;
  return (
    <Group gap="xs">
      <Button variant="default" leftSection={<IconArrowBackUp />} disabled={!canUndo} onClick={() => step(-1)}>
        Undo
      </Button>
      <Button variant="default" leftSection={<IconArrowForwardUp />} disabled={!canRedo} onClick={() => step(1)}>
        Redo
      </Button>
      <Button size="md" disabled={!canUndo || overtaken} loading={isPending} onClick={keep}>
        Keep the plan
      </Button>
    </Group>
  );
}

const LEAST_CM = 5;

function ChosenPiece({ piece, room, onPut }: { piece: Piece; room: Bar['room']; onPut: Put }) {
  const [width, setWidth] = useState(String(piece.place.widthCm));
  const [depth, setDepth] = useState(String(piece.place.depthCm));
  const widthCm = parseNumber(width) ?? NaN;
  const depthCm = parseNumber(depth) ?? NaN;
  const fits = widthCm >= LEAST_CM && widthCm <= room.widthCm && depthCm >= LEAST_CM && depthCm <= room.depthCm;
  const same = widthCm === piece.place.widthCm && depthCm === piece.place.depthCm;
  return (
    <Group align="flex-end" gap="md">
      <NumberField label={`${piece.name}: width`} unit="cm" step={GRID_CM} text={width} onText={setWidth} />
      <NumberField label="Depth" unit="cm" step={GRID_CM} text={depth} onText={setDepth} />
      <Button
        variant="default"
        disabled={!fits || same}
        onClick={() => onPut(piece.id, ({ place }) => putDown({ ...place, widthCm, depthCm }, place, room))}
      >
        Set size
      </Button>
    </Group>
  );
}
