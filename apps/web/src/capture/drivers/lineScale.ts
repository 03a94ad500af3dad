import { asksForUnit, gramsOfLine, lineReader, spreadArrival, type MassUnit } from '@tempera/core/capture';
import type { LinkEvents } from './link.ts';

/** So many lines are looked at before somebody is asked what they mean. */
const LOOKED_AT = 5;

/** Reads the text of a scale, piece by piece, as weights. `means`: the unit of lines that name none; null: nobody said yet. */
export function textReader(means: MassUnit | null, { onReading, onSilent, onLine }: LinkEvents) {
  const linesOf = lineReader();
  const lately: string[] = [];
  let beforeMs: number | null = null;
  let read = false;
  return (piece: string, arrivedMs: number): void => {
    const lines = linesOf(piece);
    if (lines.length === 0) return;
    const times = spreadArrival(beforeMs, arrivedMs, lines.length);
    beforeMs = arrivedMs;
    lines.forEach((line, i) => {
      onLine?.(line);
      lately.push(line);
      lately.splice(0, lately.length - LOOKED_AT);
      if (means === null && asksForUnit(lately)) {
        onSilent('whichUnit');
        return;
      }
      const weight = gramsOfLine(line, means ?? 'g');
      if (weight) {
        if (!read) onSilent(null);
        read = true;
        onReading({ atMs: times[i] ?? arrivedMs, ...weight });
      } else if (!read && lately.length === LOOKED_AT) onSilent('notAWeight');
    });
  };
}
