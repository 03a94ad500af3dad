import { Title } from '@mantine/core';
import { skillsAtBench } from '@tempera/contract/signOffs';
import type { Session } from '@tempera/contract/team';
import { useParams, useSearchParams } from 'react-router';
import { NotFoundPage } from '../ui/NotFoundPage.tsx';
import { NotSignedOff, useWelcome } from '../team/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { Bench } from './Bench.tsx';
import { CollarDisputes } from './CollarDisputes.tsx';
import { useBench } from './useBench.ts';

/** The calibration bench of one grinder on one group. */
export function BenchPage({ session }: { session: Session }) {
  const { grinderId = '', groupId = '' } = useParams();
  const [params] = useSearchParams();
  const { view, unknown, error, retry } = useBench(grinderId, groupId, useNow(), params.get('recipe'));
  const check = params.get('check') !== null;
  const { isPending } = useWelcome();
  if (unknown) return <NotFoundPage />;
  if (error && !view) return <Failed error={error} onRetry={retry} />;
  if (!view || isPending) {
    return (
      <>
        <Title order={1} className="visually-hidden">
          Bench
        </Title>
        <Loading what="the bench" />
      </>
    );
  }
  return (
    <>
      <NotSignedOff
        session={session}
        skills={skillsAtBench(grinderId, view.machine?.id ?? null)}
        nameOf={(id) => [view.machine, view.grinder].find((one) => one?.id === id)?.name ?? null}
        asks={view.house.alone === 'asked'}
      />
      <CollarDisputes session={session} grinderId={grinderId} />
      <Bench
        key={`${grinderId} ${groupId} ${check} ${view.grinder.recipe.recipeId}`}
        view={view}
        session={session}
        check={check}
      />
    </>
  );
}
