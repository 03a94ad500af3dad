import { useEffect, useState } from 'react';
import type { ScaleReading } from './drivers/link.ts';
import type { BenchDevices } from './ports.ts';

/** A number that stands so long without news is taken off the screen. */
const STALE_MS = 5_000;
const LOOKS_EVERY_MS = 200;

/** What stands on a scale by now, a few times a second; null while it says nothing. */
export function useOnScale(scale: BenchDevices['scale']): ScaleReading | null {
  const [shown, setShown] = useState<ScaleReading | null>(null);
  useEffect(() => {
    if (!scale) return undefined;
    let last: { reading: ScaleReading; heardAtMs: number } | null = null;
    const off = scale.listen((reading) => {
      last = { reading, heardAtMs: Date.now() };
    });
    const timer = setInterval(() => {
      setShown(last && Date.now() - last.heardAtMs < STALE_MS ? last.reading : null);
    }, LOOKS_EVERY_MS);
    return () => {
      off();
      clearInterval(timer);
      setShown(null);
    };
  }, [scale]);
  return shown;
}
