import { besides, usualBeside } from '@tempera/core/house';
import { useEffect, useRef } from 'react';
import { draftOf, type SheetForm } from '../forms/index.ts';

/**
 * In a first version, what nobody wrote of the first drop and of what a cup may be off by goes along with its yield and its time: a cup that takes a
 * minute does not drip like a short one.
 * @param isFirst whether it is a first version; a later one says what the one before said
 */
export function useUsualBeside({ form, fields, read }: SheetForm<unknown>, isFirst: boolean): void {
  const told = useRef(form.values);
  const { yieldG, timeMinS, timeMaxS } = read as Record<'yieldG' | 'timeMinS' | 'timeMaxS', unknown>;
  const { setFieldValue, values } = form;
  useEffect(() => {
    if (!isFirst || typeof yieldG !== 'number' || typeof timeMinS !== 'number' || typeof timeMaxS !== 'number') return;
    const now = draftOf(fields, usualBeside({ yieldG, timeMinS, timeMaxS }));
    for (const name of besides) {
      // What somebody wrote stays.
      if (values[name] !== told.current[name] || values[name] === now[name]) continue;
      told.current = { ...told.current, [name]: now[name] };
      setFieldValue(name, now[name]);
    }
  }, [fields, isFirst, setFieldValue, timeMaxS, timeMinS, values, yieldG]);
}
