import type { Calendar } from '@tempera/core/house';
import { useMemo } from 'react';
import { useSheets } from './sheets.ts';

/** When the house is open and who is in, by its book; null while that is read. */
export const useCalendar = (): Calendar | null => useCalendarRead().calendar;

/** The same, and whether it is still on its way: what stands by the hour is not drawn before it. */
export function useCalendarRead(): { calendar: Calendar | null; isPending: boolean } {
  const { data: cafes, isPending } = useSheets('cafe');
  const sheet = cafes?.[0]?.sheet;
  return useMemo(() => ({ calendar: sheet ?? null, isPending }), [sheet, isPending]);
}
