import { rights } from '@tempera/contract/rights';
import type { Session } from '@tempera/contract/team';
import { isAirNews } from '@tempera/core/capture';
import { stepsOf } from '@tempera/core/facts';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useNow } from '../ui/useNow.ts';
import { useInTurn } from './useInTurn.ts';
import { useAirByDevice } from './useReaders.ts';

/** Of several tablets that hear one hygrometer the first writes, and the others see that it was written. */
const LATEST_MS = MS_PER_MINUTE;

/** Writes the room's air down at a sane rate, where a device tells it to somebody who works at the bar. */
export function AirKeeper({ session }: { session: Session }) {
  const nowMs = useNow();
  const air = useAirByDevice(nowMs);
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const write = useWriteStep();
  const last = stepsOf(facts, 'air').at(-1);
  const told = last ? { ...last.body, atMs: Date.parse(last.at) } : null;
  const mayWrite = rights.air.write.includes(session.person.role);
  // Until the bar is read nobody knows what was told.
  const isNews = mayWrite && bar !== undefined && air !== null && isAirNews(air, told, nowMs);
  useInTurn(isNews, LATEST_MS, () => {
    if (!air) return;
    const [tempC, humidityPct] = [Math.round(10 * air.tempC) / 10, Math.round(air.humidityPct)];
    write({ step: 'air', tempC, humidityPct, measuredBy: 'device' });
  });
  return null;
}
