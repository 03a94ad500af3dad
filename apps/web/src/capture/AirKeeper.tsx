import { rights } from '@tempera/contract/rights';
import type { Session } from '@tempera/contract/team';
import { isAirNews } from '@tempera/core/capture';
import { stepsOf } from '@tempera/core/facts';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useEffect, useEffectEvent } from 'react';
import { useStandingFacts } from '../bar/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useNow } from '../ui/useNow.ts';
import { useAirByDevice } from './useReaders.ts';

/** Of several tablets that hear one hygrometer the first writes, and the others see that it was written. */
const LATEST_MS = MS_PER_MINUTE;

/** Writes the room's air down at a sane rate, where a device tells it to somebody who works at the bar. */
export function AirKeeper({ session }: { session: Session }) {
  const nowMs = useNow();
  const air = useAirByDevice(nowMs);
  const facts = useStandingFacts();
  const write = useWriteStep();
  const last = stepsOf(facts, 'air').at(-1);
  const told = last ? { ...last.body, atMs: Date.parse(last.at) } : null;
  const isNews = rights.air.write.includes(session.person.role) && air !== null && isAirNews(air, told, nowMs);
  // What it shows when its turn has come: a number that flickers until then puts nothing off.
  const writeDown = useEffectEvent(() => {
    if (!air) return;
    const [tempC, humidityPct] = [Math.round(10 * air.tempC) / 10, Math.round(air.humidityPct)];
    write({ step: 'air', tempC, humidityPct, measuredBy: 'device' });
  });
  useEffect(() => {
    if (!isNews) return undefined;
    const timer = setTimeout(() => writeDown(), Math.random() * LATEST_MS);
    return () => clearTimeout(timer);
  }, [isNews]);
  return null;
}
