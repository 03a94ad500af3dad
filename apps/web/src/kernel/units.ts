import { digitsFor, kept, shown, usualUnits, type Dimension, type Units } from '@tempera/core/house';
import { useSyncExternalStore } from 'react';

/** The units that whoever stands here reads and types in; everything is kept in g, ml, degC and bar. */

let units: Units = usualUnits;
const watchers = new Set<() => void>();

/** From now on numbers are written as this person reads them: known with the session, before anything of it is drawn. */
export function readIn(wanted: Units): void {
  if (JSON.stringify(wanted) === JSON.stringify(units)) return;
  units = wanted;
  for (const watcher of watchers) watcher();
}

/** The units that numbers are written in now. */
export const unitsNow = (): Units => units;

function watch(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
}

/** The same for a component: the frame draws everything anew when they change. */
export const useUnits = (): Units => useSyncExternalStore(watch, unitsNow);

/** "18.0 g", "0.635 oz": a kept quantity as this person reads it, or in the units that are asked for. `digits` are those of the kept unit. */
export const written = (dimension: Dimension, value: number, digits: number, as = units): string =>
  `${shown(dimension, value, as).toFixed(digitsFor(dimension, digits, as))} ${as[dimension]}`;

/** The number alone, as a field shows it: no trailing zeros. */
export const bare = (dimension: Dimension, value: number, digits: number): string =>
  String(Number(shown(dimension, value, units).toFixed(digitsFor(dimension, digits, units))));

/** What was typed in this person's unit, as it is kept. */
export const unbare = (dimension: Dimension, typed: number): number => kept(dimension, typed, units);

const dimensions: Record<string, Dimension> = { g: 'mass', ml: 'volume', '°C': 'temperature', bar: 'pressure' };

/** What a kept unit measures, where people differ in how they read it; null for the rest. */
export const dimensionOf = (unit: string): Dimension | null => dimensions[unit] ?? null;

/** The unit that this person reads where `unit` is kept. */
export function unitShown(unit: string): string {
  const dimension = dimensionOf(unit);
  return dimension === null ? unit : units[dimension];
}

/** A kept number, or a part of a window, as this person reads it. */
export function numberShown(unit: string, value: number): number {
  const dimension = dimensionOf(unit);
  return dimension === null ? value : shown(dimension, value, units);
}

const decimalsOf = (value: number): number => String(value).split('.')[1]?.length ?? 0;

/** Limits as this person reads them. */
export function limitsShown<L extends { min: number; max: number; unit: string }>(limits: L) {
  const { min, max, unit } = limits;
  const number = (value: number): string =>
    String(Number(numberShown(unit, value).toFixed(digitsShown(unit, decimalsOf(value)))));
  return { ...limits, min: number(min), max: number(max), unit: unitShown(unit) };
}

/** Digits that say as much to this person as `digits` of the kept unit. */
export function digitsShown(unit: string, digits: number): number {
  const dimension = dimensionOf(unit);
  return dimension === null ? digits : digitsFor(dimension, digits, units);
}
