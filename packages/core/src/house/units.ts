/** Both schools of units. Everything is kept in g, ml, degC and bar; people read and type what they are used to. */
export const massUnits = ['g', 'oz'] as const;
export const volumeUnits = ['ml', 'fl oz'] as const;
export const temperatureUnits = ['°C', '°F'] as const;
export const pressureUnits = ['bar', 'psi'] as const;

export interface Units {
  mass: (typeof massUnits)[number];
  volume: (typeof volumeUnits)[number];
  temperature: (typeof temperatureUnits)[number];
  pressure: (typeof pressureUnits)[number];
}

export const usualUnits: Units = { mass: 'g', volume: 'ml', temperature: '°C', pressure: 'bar' };

/** What a house may write on its wall, by the school it belongs to. */
export const unitSchools = {
  metric: usualUnits,
  customary: { mass: 'oz', volume: 'fl oz', temperature: '°F', pressure: 'psi' },
} as const satisfies Record<string, Units>;
export type UnitSchool = keyof typeof unitSchools;

export type Dimension = keyof Units;

interface Scale {
  /** Of the kept unit, as many shown ones. */
  factor: number;
  offset: number;
  /** Digits that say as much as the kept unit's usual ones. */
  moreDigits: number;
}

const same: Scale = { factor: 1, offset: 0, moreDigits: 0 };
const scales: { [D in Dimension]: Record<Units[D], Scale> } = {
  // An ounce is 28.35 g, a fluid ounce 29.57 ml, a bar 14.504 psi.
  mass: { g: same, oz: { factor: 1 / 28.349523125, offset: 0, moreDigits: 2 } },
  volume: { ml: same, 'fl oz': { factor: 1 / 29.5735295625, offset: 0, moreDigits: 1 } },
  temperature: { '°C': same, '°F': { factor: 1.8, offset: 32, moreDigits: 0 } },
  pressure: { bar: same, psi: { factor: 14.503773773, offset: 0, moreDigits: -1 } },
};

function scaleOf(dimension: Dimension, units: Units): Scale {
  return (scales[dimension] as Record<string, Scale>)[units[dimension]] ?? same;
}

/** A kept number as this person reads it. */
export function shown(dimension: Dimension, kept: number, units: Units): number {
  const { factor, offset } = scaleOf(dimension, units);
  return kept * factor + offset;
}

/** A number as this person typed it, in the unit that is kept. */
export function kept(dimension: Dimension, typed: number, units: Units): number {
  const { factor, offset } = scaleOf(dimension, units);
  return (typed - offset) / factor;
}

/** A difference or a doubt as this person reads it: the zero of the scale plays no part. */
export function shownSpan(dimension: Dimension, span: number, units: Units): number {
  return span * scaleOf(dimension, units).factor;
}

/** How many digits say as much as `digits` of the kept unit. */
export function digitsFor(dimension: Dimension, digits: number, units: Units): number {
  return Math.max(0, digits + scaleOf(dimension, units).moreDigits);
}
