import { Text, Title } from '@mantine/core';
import { Link, useParams } from 'react-router';
import { useBar } from '../bar/index.ts';
import { useGrinderStates } from '../bar/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { NotFoundPage } from '../ui/NotFoundPage.tsx';
import classes from './ChooseGroupPage.module.css';

/** Which group the grinder is dialled in on; its usual one comes first. */
export function ChooseGroupPage() {
  const { grinderId = '' } = useParams();
  const { data: bar, error, refetch } = useBar();
  const { all } = useGrinderStates(bar, useNow());
  if (!bar) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the groups" />;
  const standing = all.find(({ grinder }) => grinder.id === grinderId);
  if (!standing) return <NotFoundPage />;
  const { grinder, lastGroup } = standing;
  return (
    <>
      <Title order={1}>{grinder.name}: on which group?</Title>
      <Text className="faint">{grinder.coffee}. Stay on one group while dialling in.</Text>
      {bar.machines.map((machine) => (
        <section key={machine.id} aria-label={machine.name} className={classes.machine}>
          <Title order={2} size="h3">
            {machine.name}
          </Title>
          <div className={classes.groups}>
            {machine.groups.map((group) => (
              <Link
                key={group.id}
                to={`/bench/${grinder.id}/${group.id}`}
                className={classes.group}
                data-last={group.id === lastGroup?.id}
              >
                {group.name}
                {group.id === lastGroup?.id && <span className="faint">used last</span>}
              </Link>
            ))}
          </div>
        </section>
      ))}
    </>
  );
}
