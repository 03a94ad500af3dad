/** The first drop of a usual shot falls between these shares of its window: 4 to 8 s of 25 to 30 s. */
const DROP_FROM = 0.16;
const DROP_UNTIL = 0.27;
/** As far off as a hand stops a cup: 1.5 g of 36 g. */
const YIELD_SHARE = 0.042;
const LEAST_YIELD_G = 1;

const half = (value: number): number => Math.round(2 * value) / 2;

interface ShotAimed {
  yieldG: number;
  timeMinS: number;
  timeMaxS: number;
}

/** Numbers of a recipe that follow from those of its shot. */
export const besides = ['yieldToleranceG', 'firstDropMinS', 'firstDropMaxS'] as const;
type Beside = (typeof besides)[number];

/** What is usual beside a yield and a time where nobody says otherwise, whether a short cup or one that takes a minute. */
export function usualBeside({ yieldG, timeMinS, timeMaxS }: ShotAimed): Record<Beside, number> {
  return {
    yieldToleranceG: Math.max(LEAST_YIELD_G, half(YIELD_SHARE * yieldG)),
    firstDropMinS: Math.round(DROP_FROM * timeMinS),
    firstDropMaxS: Math.round(DROP_UNTIL * timeMaxS),
  };
}
