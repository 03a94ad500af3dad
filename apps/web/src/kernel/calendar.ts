import type { Calendar } from '@tempera/core/house';
import { useMemo } from 'react';
import { useSheets } from './sheets.ts';

/** When the house is open and who is in, by its book; null while that is read. */
export function useCalendar(): Calendar | null {
  const { data: cafes } = useSheets('cafe');
  const sheet = cafes?.[0]?.sheet;
  return useMemo(() => sheet ?? null, [sheet]);
}
