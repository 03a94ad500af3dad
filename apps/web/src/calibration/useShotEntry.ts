import type { RecipeVersion } from '@tempera/contract/house';
import { yieldInGlass, type GlassWeight } from '@tempera/core/capture';
import type { YieldWay } from '@tempera/core/facts';
import type { Quantity } from '@tempera/core/house';
import { useReducer, useState } from 'react';
import { digitsShown, numberShown, unitShown } from '../kernel/units.ts';
import { readQuantity, type Reading } from '../ui/NumberField.tsx';
import type { HandNumbers } from './benchFacts.ts';
import { entryAfter, freshEntry, type EntryField } from './entryMoves.ts';

/** What a shot that is typed starts from. */
export interface EntryStart {
  recipe: RecipeVersion;
  glass: GlassWeight;
  way: YieldWay;
  /** Read off a clock; null: nobody timed it yet, and the entry begins at the aim. */
  timeS: number | null;
  firstDropS: number | null;
  /** The dose to begin with where none was weighed; null: a weighed one waits. */
  doseG: number | null;
}

/** From here on a scale of the bar shows whole grams enough. */
const WHOLE_FROM_G = 100;

/** How a field is typed: in which kept unit, and with how many decimals. */
function instrumentOf(field: EntryField, way: YieldWay, recipe: RecipeVersion): { unit: string; decimals: number } {
  if (field === 'time' || field === 'drop') return { unit: 's', decimals: 1 };
  if (field === 'yield' && way === 'glass') return { unit: 'ml', decimals: digitsShown('ml', 0) };
  const whole = field === 'yield' && recipe.yieldG >= WHOLE_FROM_G;
  return { unit: 'g', decimals: digitsShown('g', whole ? 0 : 1) };
}

const quantityOf: Record<EntryField, Quantity> = { yield: 'yieldG', time: 'timeS', drop: 'firstDropS', dose: 'doseG' };

/** A shot as it is typed: its fields, what they read as, and the numbers once all of them can be kept. */
export function useShotEntry({ recipe, glass, way: firstWay, timeS, firstDropS, doseG }: EntryStart) {
  const [way, setWay] = useState(firstWay);
  const textIn = (field: EntryField, value: number, by: YieldWay): string => {
    const { unit, decimals } = instrumentOf(field, by, recipe);
    return numberShown(unit, value).toFixed(decimals);
  };
  const aimIn = (by: YieldWay): string =>
    textIn('yield', by === 'glass' ? recipe.yieldG / glass.gPerMl : recipe.yieldG, by);
  const [entry, send] = useReducer(entryAfter, null, () =>
    freshEntry(
      {
        yield: aimIn(firstWay),
        time: textIn('time', timeS ?? (recipe.timeMinS + recipe.timeMaxS) / 2, firstWay),
        drop: firstDropS === null ? '' : textIn('drop', firstDropS, firstWay),
        dose: doseG === null ? '' : textIn('dose', doseG, firstWay),
      },
      'yield',
    ),
  );
  const { texts } = entry;
  const near: Record<EntryField, number | undefined> = {
    yield: way === 'glass' ? undefined : recipe.yieldG,
    time: recipe.timeMinS,
    drop: undefined,
    dose: recipe.doseG,
  };
  const read = (field: EntryField): Reading =>
    readQuantity(texts[field], field === 'yield' && way === 'glass' ? 'glassMl' : quantityOf[field], near[field]);
  const readings = {
    yield: read('yield'),
    time: read('time'),
    drop: texts.drop.trim() === '' ? null : read('drop'),
    dose: doseG === null ? null : read('dose'),
  };
  const lateDrop = readings.drop?.ok && readings.time.ok && readings.drop.value > readings.time.value;
  const inGlass = way === 'glass' && readings.yield.ok ? readings.yield.value : null;
  return {
    entry,
    send,
    way,
    /** Another way to read the yield: it begins at the aim again, in that way's unit. */
    readBy: (next: YieldWay) => {
      setWay(next);
      send({ kind: 'typed', field: 'yield', text: aimIn(next) });
      send({ kind: 'focused', field: 'time' });
      send({ kind: 'focused', field: 'yield' });
    },
    readings,
    lateDrop: lateDrop === true,
    inGlassG: inGlass === null ? null : inGlass * glass.gPerMl,
    fields: (doseG === null ? (['yield', 'time', 'drop'] as const) : (['yield', 'time', 'drop', 'dose'] as const)).map(
      (field) => {
        const { unit, decimals } = instrumentOf(field, way, recipe);
        return { field, unit: unitShown(unit), decimals };
      },
    ),
    /** The numbers as they are kept; null while one of them cannot be. */
    numbers: (): HandNumbers | null => {
      const { yield: inCup, time, drop, dose } = readings;
      if (!inCup.ok || !time.ok || (drop && !drop.ok) || (dose && !dose.ok) || lateDrop) return null;
      return {
        ...(way === 'glass' ? yieldInGlass(inCup.value, glass) : { yieldG: inCup.value }),
        timeS: time.value,
        firstDropS: drop?.ok ? drop.value : null,
        way,
        ...(dose?.ok ? { doseG: dose.value } : {}),
      };
    },
  };
}
