/** How a dose is known: weighed, as beans before they were ground, ground for a set time, struck level, to the basket's line, by the scoop, or by eye. */
export const doseWays = ['scale', 'beans', 'timed', 'levelled', 'line', 'scoop', 'eye'] as const;
export type DoseWay = (typeof doseWays)[number];

/** How a yield is known: on the scale, weighed after a timed stop, by the machine's volume, in a marked glass, or by eye. */
export const yieldWays = ['scale', 'weighedAfter', 'volume', 'glass', 'eye'] as const;
export type YieldWay = (typeof yieldWays)[number];

/** How the numbers of a shot are known; what is absent was on the scale. */
export interface Measured {
  dose?: DoseWay | undefined;
  yield?: YieldWay | undefined;
}

/** What grounds feel like between the fingers, finest first. */
export const textures = ['powder', 'flour', 'fineSalt', 'salt', 'sand'] as const;
export type Texture = (typeof textures)[number];

/** What else eyes and fingers tell: clumps say that a finer setting has arrived; crema and puck say little, and may be noted. */
const signs = ['clumping', 'thinCrema', 'layeredCrema', 'stuckPuck', 'sludgyPuck'] as const;

/** How a customer's shot looked as it ran, to somebody who timed nothing. */
export const looks = ['asItShould', 'fastPale', 'slowDark', 'littleIn'] as const;
export type Look = (typeof looks)[number];
export const isLook = (sign: Sighting): sign is Look => (looks as readonly Sighting[]).includes(sign);

export const sightings = [...textures, ...signs, ...looks] as const;
export type Sighting = (typeof sightings)[number];

/** How full a basket was struck or ground: hollow or under the line, level or on it, settled and refilled or over it. */
export const fills = ['under', 'level', 'over'] as const;
export type Fill = (typeof fills)[number];
