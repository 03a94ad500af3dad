import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { Stack, Text } from '@mantine/core';
import { warmthOf } from '@tempera/core/bar';
import { limits } from '@tempera/core/house';
import { Gauges, useLearned } from '../../bar/index.ts';
import { useGauges } from '../../capture/index.ts';
import { useSheets } from '../../kernel/sheets.ts';
import { clock } from '../../kernel/format.ts';
import classes from '../Opening.module.css';
import type { StepProps } from './stepProps.ts';

/** Where the water of a group should be before coffee is pulled through it. */
const BREW_WATER = { unit: '°C', min: limits.tempC.usual[0], max: limits.tempC.usual[1] } as const;

/** Where nothing was learned of a machine yet. */
const USUAL_WARM_UP_MIN = 25;

/** The warm-up's clock, which ends when the gauges say so. */
export function HotStep({ state, view, session, write }: StepProps) {
  const machineId = state.job.stationId ?? '';
  const { data: sheets } = useSheets('machine');
  const { data: learned } = useLearned();
  const reader = useGauges(machineId);
  const warmth = warmthOf(view.facts, machineId, view.nowMs);
  const gauges = sheets?.find(({ id }) => id === machineId)?.sheet.gauges ?? [];
  const usualMin = learned?.machines.find(({ id }) => id === machineId)?.warmUpMin ?? null;
  if (warmth.is === 'unknown') return <Text>It is not switched on yet.</Text>;
  const minutes = Math.max(0, Math.floor((view.nowMs - warmth.sinceMs) / MS_PER_MINUTE));
  const hotAtMs = usualMin === null ? null : warmth.sinceMs + usualMin * MS_PER_MINUTE;
  const groups = view.bar.machines.find(({ id }) => id === machineId)?.groups ?? [];
  const minutesOn = (view.nowMs - warmth.sinceMs) / MS_PER_MINUTE;
  return (
    <Stack>
      <div className={classes.clock} role="timer">
        <span className={classes.figure}>{minutes}</span> min on
        {hotAtMs !== null && (
          <Text className="faint">
            Usually hot about {clock(hotAtMs, session.site.timeZone)}. Read the gauges then.
          </Text>
        )}
      </div>
      <Gauges
        gauges={gauges}
        byDevice={reader?.groups ? groups.map(({ name }) => ({ name, ...BREW_WATER })) : []}
        reader={
          reader && {
            label: reader.label,
            read: () => reader.read({ gauges, groups, minutesOn, usualMin: usualMin ?? USUAL_WARM_UP_MIN }),
          }
        }
        onHot={(readings) => write({ step: 'hot', machineId, readings, takesBack: null })}
      />
    </Stack>
  );
}
