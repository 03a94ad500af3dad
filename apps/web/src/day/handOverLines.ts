import type { Bar } from '@tempera/contract/bar';
import type { StationChanges } from '@tempera/core/day';
import { dialNumber, grams, seconds } from '../kernel/format.ts';
import { dueWord } from './dueWord.ts';
import type { DayStation } from './useDay.ts';

/** How one grinder stands, in one line: dial, dose, aim, due. */
export function standsLine(
  { grinder, state, doseG, grindTimeS, advice }: DayStation,
  timeZone: string,
  nowMs: number,
): string {
  const dose = `${grams(doseG)}${grindTimeS === null ? '' : ` in ${seconds(grindTimeS)}`}`;
  const { yieldG, timeMinS, timeMaxS } = grinder.recipe;
  const aim = `${grams(yieldG)} out in ${timeMinS}–${timeMaxS} s`;
  const due = state.dueAtMs === null ? '' : `; a shot is due ${dueWord(state.dueAtMs, timeZone, nowMs)}`;
  return `${grinder.name} at ${dialNumber(state.setting)}, ${dose}, ${aim}, by now about ${seconds(advice.here.predicted.timeS)}${due}`;
}

/** What changed at a grinder, in one line; null where nothing did. */
export function changedLine(change: StationChanges, bar: Bar): string | null {
  const grinder = bar.grinders.find(({ id }) => id === change.grinderId);
  const { moved, timesS, bags, putOff } = change;
  const said = [
    moved &&
      `turned from ${dialNumber(moved.from)} to ${dialNumber(moved.to)}${moved.times > 1 ? ` in ${moved.times} moves` : ''}`,
    timesS.length > 0 &&
      (timesS.length === 1
        ? `one shot, ${seconds(timesS[0] ?? 0)}`
        : `${timesS.length} shots, from ${seconds(timesS[0] ?? 0)} to ${seconds(timesS.at(-1) ?? 0)}`),
    bags > 0 && (bags === 1 ? 'another bag' : `${bags} bags`),
    putOff && 'its look was put off',
  ].filter((part) => typeof part === 'string');
  return said.length === 0 ? null : `${grinder?.name ?? 'A grinder'}: ${said.join('; ')}`;
}

/** What differs from the recipe today; null where nothing does. */
export function aimLine({ grinder }: DayStation): string | null {
  const { before, recipe, name } = grinder;
  if (!before) return null;
  const from = `${grams(before.doseG)} to ${grams(before.yieldG)}`;
  return `${name}: ${grams(recipe.doseG)} to ${grams(recipe.yieldG)} instead of ${from}, for taste`;
}
