import { Button, Group, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { Link, useParams } from 'react-router';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { useWelcome } from '../team/index.ts';
import { NotFoundPage } from '../ui/NotFoundPage.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { TasteGrinder } from './TasteGrinder.tsx';

/** Tasting at any hour of the day. */
export function TastePage({ session }: { session: Session }) {
  const { grinderId = '' } = useParams();
  const { data: bar, error, refetch } = useBar();
  const { data: welcome } = useWelcome();
  const facts = useStandingFacts();
  const nowMs = useNow();
  if (!bar) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the sheet" />;
  const grinder = bar.grinders.find(({ id }) => id === grinderId);
  if (!grinder) return <NotFoundPage />;
  const people = welcome?.sites.find(({ id }) => id === session.site.id)?.people ?? [session.person];
  return (
    <>
      <Group justify="space-between" mb="sm">
        <Title order={1}>
          Taste {grinder.coffee} from {grinder.name}
        </Title>
        <Button component={Link} to="/" size="lg" variant="default">
          Back to the bar
        </Button>
      </Group>
      <div className="sheet">
        <TasteGrinder bar={bar} grinder={grinder} facts={facts} people={people} session={session} nowMs={nowMs} />
      </div>
    </>
  );
}
