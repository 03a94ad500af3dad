import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { Button, Text, Title } from '@mantine/core';
import { warmthOf } from '@tempera/core/bar';
import type { GaugeReading } from '@tempera/core/facts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useSheets } from '../kernel/sheets.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { Caution } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { Gauges } from './Gauges.tsx';
import classes from './Pieces.module.css';
import { useLearned } from './queries.ts';
import { useStandingFacts } from './useStandingFacts.ts';

/** A morning's warm-up lies within this of the sheet's word, or the sheet wants a look. */
const STATED_SHARE = 0.2;
const SDS = 2;
const tenth = (value: number): number => Math.round(10 * value) / 10;

/** A machine from the switch to hot: the clock ends when the gauges say so, not when the minutes are over. */
export function MachineWarmth({ machineId }: { machineId: string }) {
  const facts = useStandingFacts();
  const { data: learned } = useLearned();
  const { data: sheets } = useSheets('machine');
  const write = useWriteStep();
  const nowMs = useNow();
  const machine = sheets?.find(({ id }) => id === machineId)?.sheet;
  const known = learned?.machines.find(({ id }) => id === machineId);
  if (!machine) return null;
  const warmth = warmthOf(facts, machineId, nowMs);
  const minutes = warmth.is === 'unknown' ? 0 : Math.max(0, Math.floor((nowMs - warmth.sinceMs) / MS_PER_MINUTE));
  const usual = known ? Math.round(known.warmUpMin) : Math.round(machine.warmUpMin);
  const note = (step: 'switchedOn' | 'hot', readings: GaugeReading[] = []): void =>
    write({ step, machineId, readings, takesBack: null });
  return (
    <section className={`sheet ${classes.learned}`} aria-label="Warm-up">
      <div aria-live="polite">
        <Title order={2} size="h3">
          {warmth.is === 'unknown' && 'Not switched on yet today'}
          {warmth.is === 'warming' && (minutes === 0 ? 'Just switched on' : `On for ${minutes} min`)}
          {warmth.is === 'hot' && 'Hot'}
        </Title>
        {warmth.is === 'warming' && (
          <Text className="faint">
            {minutes < usual ? `Usually hot in about ${usual - minutes} min more.` : 'By now it is usually hot.'}
          </Text>
        )}
      </div>
      {warmth.is !== 'warming' && (
        <Button size="lg" variant={warmth.is === 'unknown' ? 'filled' : 'default'} onClick={() => note('switchedOn')}>
          Switched on now
        </Button>
      )}
      {warmth.is === 'warming' && (
        <div className={classes.band}>
          <Gauges gauges={machine.gauges} reader={null} onHot={(readings) => note('hot', readings)} />
          <Caution>
            Steam and metal burn. Pressure vessels, mains and gas are for a licensed technician, by the local code.
          </Caution>
        </div>
      )}
      {known && known.mornings > 0 && (
        <div className={classes.band}>
          <BandRow
            name="Warm-up"
            unit="min"
            digits={0}
            value={known.warmUpMin}
            window={{
              low: tenth(machine.warmUpMin * (1 - STATED_SHARE)),
              high: tenth(machine.warmUpMin * (1 + STATED_SHARE)),
            }}
            doubt={{ low: known.warmUpMin - SDS * known.sdMin, high: known.warmUpMin + SDS * known.sdMin }}
          />
          <Text className="faint">
            Learned from {known.mornings} mornings: {usual} min, give or take {Math.round(SDS * known.sdMin)}. The band
            is what the sheet below says, give or take 20 %.
          </Text>
        </div>
      )}
    </section>
  );
}
