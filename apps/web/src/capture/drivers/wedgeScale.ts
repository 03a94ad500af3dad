import { gramsOfLine, type MassUnit } from '@tempera/core/capture';
import type { LinkEvents, ScaleLink } from './link.ts';

/** No hand types so fast; a scale that types does. */
const FASTEST_HAND_MS = 45;
const FEWEST_KEYS = 3;
const OF_A_NUMBER = /^[\d.,+\-\sa-zA-Z]$/;

/**
 * A scale that types its number, as a keyboard would: keys that come faster than any hand, ended by Enter, are a reading. Into
 * a field that has the focus it types as well, and Enter keeps it there.
 */
export function wedgeScale(keys: Window, unit: MassUnit, { onReading, onSilent }: LinkEvents): ScaleLink {
  let typed = '';
  let lastMs = -Infinity;
  const hear = (event: KeyboardEvent): void => {
    const fast = event.timeStamp - lastMs < FASTEST_HAND_MS;
    lastMs = event.timeStamp;
    if (event.key === 'Enter') {
      const weight = fast && typed.length >= FEWEST_KEYS ? gramsOfLine(typed, unit) : null;
      typed = '';
      if (!weight) return;
      onReading({ atMs: Date.now(), g: weight.g, stable: weight.stable ?? true });
      return;
    }
    if (!OF_A_NUMBER.test(event.key)) return;
    typed = fast ? typed + event.key : event.key;
    // The unit that follows a number is no shortcut of the page.
    if (fast && typed.length > 1) event.stopPropagation();
  };
  keys.addEventListener('keydown', hear, true);
  onSilent(null);
  return {
    tare: null,
    close: async () => {
      keys.removeEventListener('keydown', hear, true);
      await Promise.resolve();
    },
  };
}
