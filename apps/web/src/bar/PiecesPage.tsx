import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { Link } from 'react-router';
import { keepsHouse, useSheets } from '../kernel/sheets.ts';
import { grams } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import classes from './Pieces.module.css';

/** Everything that stands in the bar, with its sheet; what is out of use last. */
export function PiecesPage({ session }: { session: Session }) {
  const [machines, groups, grinders] = [useSheets('machine'), useSheets('group'), useSheets('grinder')];
  const [baskets, fixtures, counters] = [useSheets('basket'), useSheets('fixture'), useSheets('counter')];
  const all = [machines, groups, grinders, baskets, fixtures, counters];
  const failed = all.find(({ error, data }) => error && !data);
  const mayChange = keepsHouse(session);
  if (failed) return <Failed error={failed.error} onRetry={() => void Promise.all(all.map((q) => q.refetch()))} />;
  if (all.some(({ data }) => !data)) return <Loading what="the bar" />;
  const machineName = (id: string): string => machines.data?.find((machine) => machine.id === id)?.sheet.name ?? '';
  return (
    <Stack gap="md">
      <div className={classes.head}>
        <Title order={1}>The bar, piece by piece</Title>
        <Group gap="xs">
          <Button component={Link} to="/bar/upkeep" size="md" variant="default">
            Upkeep
          </Button>
          <Button component={Link} to="/plan" size="md" variant="default">
            {mayChange ? 'Move things on the plan' : 'See the plan'}
          </Button>
        </Group>
      </div>
      <div className={classes.kinds}>
        <Pieces
          title="Machines"
          kind="machine"
          mayChange={mayChange}
          pieces={machines.data?.map(({ id, retired, sheet }) => ({ id, retired, name: sheet.name, says: '' }))}
        />
        <Pieces
          title="Group heads"
          kind="group"
          mayChange={mayChange && (machines.data?.length ?? 0) > 0}
          pieces={groups.data?.map(({ id, retired, sheet }) => ({
            id,
            retired,
            name: sheet.name,
            says: machineName(sheet.machineId),
          }))}
        />
        <Pieces
          title="Grinders"
          kind="grinder"
          mayChange={mayChange}
          pieces={grinders.data?.map(({ id, retired, sheet }) => ({
            id,
            retired,
            name: sheet.name,
            says: sheet.stepped ? 'stepped' : 'stepless',
          }))}
        />
        <Pieces
          title="Baskets"
          kind="basket"
          mayChange={mayChange}
          pieces={baskets.data?.map(({ id, retired, sheet }) => ({
            id,
            retired,
            name: sheet.name,
            says: `${grams(sheet.minG)} to ${grams(sheet.maxG)}`,
          }))}
        />
        <Pieces
          title="Scales, knock boxes, milk"
          kind="fixture"
          mayChange={mayChange}
          pieces={fixtures.data?.map(({ id, retired, sheet }) => ({ id, retired, name: sheet.name, says: '' }))}
        />
        <Pieces
          title="Counters"
          kind="counter"
          mayChange={mayChange}
          pieces={counters.data?.map(({ id, retired, sheet }) => ({ id, retired, name: sheet.name, says: '' }))}
        />
      </div>
    </Stack>
  );
}

interface PiecesProps {
  title: string;
  kind: string;
  mayChange: boolean;
  pieces: { id: string; retired: boolean; name: string; says: string }[] | undefined;
}

function Pieces({ title, kind, mayChange, pieces = [] }: PiecesProps) {
  const inOrder = pieces.toSorted((a, b) => Number(a.retired) - Number(b.retired) || a.name.localeCompare(b.name));
  return (
    <section className="sheet" aria-label={title}>
      <Title order={2} size="h3">
        {title}
      </Title>
      {pieces.length === 0 && <Text className="faint">None yet.</Text>}
      <ul className={classes.list}>
        {inOrder.map(({ id, retired, name, says }) => (
          <li key={id}>
            <Link to={`/bar/${kind}/${id}`} data-retired={retired}>
              {name}
            </Link>{' '}
            <span className="faint">{retired ? 'out of use' : says}</span>
          </li>
        ))}
      </ul>
      {mayChange && (
        <Button component={Link} to={`/bar/${kind}/new`} variant="default">
          Add one
        </Button>
      )}
    </section>
  );
}
