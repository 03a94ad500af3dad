import { useSyncExternalStore } from 'react';
import { useWelcome } from '../team/index.ts';
import type { DeviceNow, DeviceShelf } from './deviceShelf.ts';
import { shelfHere } from './shelfHere.ts';

const NONE: readonly DeviceNow[] = [];
const watchNothing = (): (() => void) => () => undefined;

/** This tablet's devices; null until it is known whether they are the demo's stand-ins. */
export function useShelf(): DeviceShelf | null {
  const { data: welcome } = useWelcome();
  return welcome ? shelfHere(welcome.demo !== null) : null;
}

/** They as they are now. */
export function useDeviceList(): readonly DeviceNow[] {
  const shelf = useShelf();
  return useSyncExternalStore(shelf?.watch ?? watchNothing, shelf?.all ?? (() => NONE));
}
