import { useInterval } from '@mantine/hooks';
import { useState } from 'react';

const TICK_MS = 15_000;

/** The time now, fresh enough for "due in 12 min". */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useInterval(() => setNow(Date.now()), TICK_MS, { autoInvoke: true });
  return now;
}
