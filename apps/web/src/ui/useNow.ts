import { useInterval } from '@mantine/hooks';
import { useState } from 'react';
import { houseNowMs } from '../kernel/clock.ts';

const TICK_MS = 15_000;

/** The time now by the house’s clock, fresh enough for "due in 12 min". */
export function useNow(): number {
  const [now, setNow] = useState(houseNowMs);
  useInterval(() => setNow(houseNowMs()), TICK_MS, { autoInvoke: true });
  return now;
}
