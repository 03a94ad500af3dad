import { Stack, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { Link } from 'react-router';
import { Empty, Loading } from '../ui/Notice.tsx';
import { UpkeepList } from './UpkeepList.tsx';
import { useUpkeep } from './useUpkeep.ts';

/** Everything that is kept up at the bar: what falls due first. */
export function UpkeepPage({ session }: { session: Session }) {
  const states = useUpkeep(session);
  if (!states) return <Loading what="the upkeep" />;
  return (
    <Stack gap="md">
      <div>
        <Link to="/bar">The bar, piece by piece</Link>
        <Title order={1}>Upkeep</Title>
        <Text className="faint">
          By the calendar or by what went through, whichever comes first. The rules stand on each machine’s and
          grinder’s sheet.
        </Text>
      </div>
      {states.length === 0 ? (
        <Empty>No sheet says yet what is kept up. Open a machine and add its filter, gaskets and service.</Empty>
      ) : (
        <UpkeepList session={session} states={states} />
      )}
    </Stack>
  );
}
