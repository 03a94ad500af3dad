import type { JobState } from '@tempera/core/opening';
import { useEffect, useState } from 'react';
import { nextThingsOf } from './nextThingsOf.ts';
import type { MorningView } from './useMorning.ts';

/** What stood before this person last, on this device: home and run show the same, through a reload too. */
const placeOf = ({ morning }: MorningView, personId: string): string => `tempera.thing.${morning.fromMs}.${personId}`;

/**
 * The one thing before a person. It stays until it is done, left out, or in somebody else's hands: a new plan never changes
 * the step under a finger.
 * @param picked a step taken out of its turn; null goes by the plan
 */
export function useCurrentThing(view: MorningView, personId: string, picked: JobState | null = null): JobState | null {
  const place = placeOf(view, personId);
  const [key, setKey] = useState(() => sessionStorage.getItem(place));
  const shown = view.states.find(({ job }) => job.key === key);
  const stays =
    shown !== undefined &&
    (shown.standing === 'ready' || (shown.standing === 'underWay' && shown.personId === personId));
  const current = picked ?? (stays ? shown : (nextThingsOf(view, personId)[0]?.state ?? null));
  const currentKey = current?.job.key ?? null;
  if (currentKey !== null && currentKey !== key) setKey(currentKey);
  useEffect(() => {
    if (currentKey !== null) sessionStorage.setItem(place, currentKey);
  }, [place, currentKey]);
  return current;
}
