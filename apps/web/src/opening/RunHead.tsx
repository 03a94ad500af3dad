import { Button, Group, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { Link } from 'react-router';
import { useAir } from '../capture/index.ts';
import { clockAhead, degrees } from '../kernel/format.ts';
import classes from './Opening.module.css';
import { ReadyLine } from './ReadyLine.tsx';
import type { MorningView } from './useMorning.ts';
import { runWord } from './words.ts';

interface RunHeadProps {
  view: MorningView;
  session: Session;
  over: number;
  onPlan: () => void;
}

/** How far the morning is, whether it will be ready, and the ways out of the step. */
export function RunHead({ view, session, over, onPlan }: RunHeadProps) {
  return (
    <>
      <div className={classes.head}>
        <Text className={`faint ${classes.wide}`}>
          {runWord[view.morning.run]}, {view.morning.run === 'opening' ? 'open' : 'over'} by{' '}
          {clockAhead(view.morning.opensAtMs, session.site, view.nowMs)}, {over} of {view.states.length} done
          <Air siteId={session.site.id} nowMs={view.nowMs} />
        </Text>
        <ReadyLine view={view} session={session} />
      </div>
      <Group gap="xs" className={classes.ways}>
        <Button component={Link} to="/opening/plan" variant="default">
          The plan
        </Button>
        <Button component={Link} to="/opening/sign-off" variant="default">
          Sign-off
        </Button>
        <Button variant="default" onClick={onPlan}>
          Change
        </Button>
      </Group>
    </>
  );
}

/** The room's air, where something measures it. */
function Air({ siteId, nowMs }: { siteId: string; nowMs: number }) {
  const air = useAir(siteId, nowMs);
  if (!air) return null;
  return (
    <>
      , air {degrees(air.tempC)} and {Math.round(air.humidityPct)} % damp
    </>
  );
}
