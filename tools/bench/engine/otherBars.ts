import { otherBars, runOtherBar, type MorningResult, type OtherBar } from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { mean, percentOf } from '../statistics.ts';

const MORNINGS = 600;
const FIRST_SEED = 20_001;

/** The engine on bars that it was not built on; where the people are otherwise, cold and after ten mornings with them. */
export function measureOtherBars(): Figure[] {
  return otherBars.flatMap((bar) =>
    bar.hands
      ? [...rowOf(bar, `${bar.name}, met before`, true, true), ...rowOf(bar, `${bar.name}, new`, false, false)]
      : rowOf(bar, bar.name, false, true),
  );
}

function rowOf(bar: OtherBar, row: string, heard: boolean, aimed: boolean): Figure[] {
  const seeds = Array.from({ length: MORNINGS }, (_, i) => FIRST_SEED + i);
  const { engine, thumb } = runOtherBar(bar, seeds, heard);
  const right = (mornings: readonly MorningResult[]): number =>
    percentOf(
      mornings.filter(({ locked }) => locked),
      ({ trulyInside }) => trulyInside,
    );
  const shots = (mornings: readonly MorningResult[]): number => mean(mornings.map((morning) => morning.shots));
  const cell = (column: string, value: number, unit: string, aim?: string): Figure => ({
    name: `${row}: ${column}`,
    value,
    unit,
    ...(aim && aimed ? { aim } : {}),
    cell: { table: 'other bars', row, column },
  });
  return [
    cell('right', right(engine), '%', 'at least 94'),
    cell('right by thumb', right(thumb), '%'),
    cell('shots', shots(engine), ''),
    cell('of thumb’s', shots(engine) / shots(thumb), '', 'at most 0.65'),
  ];
}
