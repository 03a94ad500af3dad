/**
 * Sane limits of what people type, from the trade's own numbers: silent inside `usual`, a warning outside it, refused
 * outside `accept`.
 */
export interface Limits {
  unit: string;
  usual: readonly [number, number];
  accept: readonly [number, number];
  /** Smallest step that an instrument of the bar shows. */
  step: number;
}

export const limits = {
  doseG: { unit: 'g', usual: [7, 22], accept: [3, 30], step: 0.1 },
  yieldG: { unit: 'g', usual: [12, 45], accept: [1, 500], step: 0.1 },
  glassMl: { unit: 'ml', usual: [20, 80], accept: [1, 600], step: 1 },
  timeS: { unit: 's', usual: [18, 35], accept: [1, 180], step: 0.1 },
  firstDropS: { unit: 's', usual: [4, 10], accept: [0, 120], step: 0.1 },
  purgeG: { unit: 'g', usual: [0, 30], accept: [0, 100], step: 0.5 },
  grindTimeS: { unit: 's', usual: [2, 30], accept: [0.5, 60], step: 0.1 },
  doseToleranceG: { unit: 'g', usual: [0.1, 0.5], accept: [0.05, 3], step: 0.1 },
  yieldToleranceG: { unit: 'g', usual: [0.5, 3], accept: [0.1, 50], step: 0.5 },
  pressureBar: { unit: 'bar', usual: [8, 9.5], accept: [0, 16], step: 0.1 },
  tempC: { unit: '°C', usual: [90, 96], accept: [20, 100], step: 0.5 },
  airTempC: { unit: '°C', usual: [15, 32], accept: [-20, 60], step: 0.5 },
  humidityPct: { unit: '%', usual: [25, 85], accept: [0, 100], step: 1 },
  milkTempC: { unit: '°C', usual: [55, 65], accept: [4, 80], step: 1 },
} as const satisfies Record<string, Limits>;

/** A recipe makes its own usual: brewed coffee by the group yields 250 g in a minute, and nobody should be warned of it. */
const USUAL_NEAR_RECIPE = 0.25;

export type Quantity = keyof typeof limits;

export type LimitVerdict = 'usual' | 'unusual' | 'refused';

/**
 * Where a number lies against its limits. NaN and infinities are refused.
 * @param recipeValue what the recipe in force asks for: numbers near it are usual whatever the table says
 */
export function checkLimit(quantity: Quantity, value: number, recipeValue?: number): LimitVerdict {
  const { usual, accept } = limits[quantity];
  if (!(value >= accept[0] && value <= accept[1])) return 'refused';
  if (recipeValue !== undefined && Math.abs(value - recipeValue) <= USUAL_NEAR_RECIPE * recipeValue) return 'usual';
  return value >= usual[0] && value <= usual[1] ? 'usual' : 'unusual';
}

/**
 * A number as people type it: comma or point, spaces and a trailing unit allowed.
 * @returns null when it is no number.
 */
export function parseNumber(text: string): number | null {
  const match = /^\s*([+-]?\d*[.,]?\d+|[+-]?\d+[.,])\s*[a-z°%]*\s*$/i.exec(text);
  if (!match?.[1]) return null;
  const value = Number(match[1].replace(',', '.'));
  return Number.isFinite(value) ? value : null;
}
