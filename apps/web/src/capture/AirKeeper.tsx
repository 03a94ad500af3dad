import { isAirNews } from '@tempera/core/capture';
import { stepsOf } from '@tempera/core/facts';
import { useEffect } from 'react';
import { useStandingFacts } from '../bar/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useNow } from '../ui/useNow.ts';
import { useAirByDevice } from './useReaders.ts';

/** Of several tablets that hear one hygrometer the first writes, and the others see that it was written. */
const LATEST_MS = 60_000;

/** Writes the room's air down at a sane rate, where a device tells it. */
export function AirKeeper() {
  const nowMs = useNow();
  const air = useAirByDevice(nowMs);
  const facts = useStandingFacts();
  const write = useWriteStep();
  const last = stepsOf(facts, 'air').at(-1);
  const told = last ? { ...last.body, atMs: Date.parse(last.at) } : null;
  const isNews = air !== null && isAirNews(air, told, nowMs);
  const [tempC, humidityPct] = [air?.tempC ?? 0, air?.humidityPct ?? 0];
  useEffect(() => {
    if (!isNews) return undefined;
    const body = {
      step: 'air' as const,
      tempC: Math.round(10 * tempC) / 10,
      humidityPct: Math.round(humidityPct),
      measuredBy: 'device' as const,
    };
    const timer = setTimeout(() => write(body), Math.random() * LATEST_MS);
    return () => clearTimeout(timer);
  }, [isNews, tempC, humidityPct, write]);
  return null;
}
