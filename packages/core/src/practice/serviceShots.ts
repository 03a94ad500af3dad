import { seededRandom, seedFrom } from '../numbers/index.ts';
import { collarStandsAt } from '../calibration/index.ts';
import { standingFacts, type AnyFact } from '../facts/index.ts';
import type { MorningJob } from './morning.ts';
import { simulatedStation } from './simulatedStation.ts';
import { pullShotFast } from './simulatedShot.ts';

/** Customers' own shots that somebody times on the simulated bar. */
export interface ServiceJob extends Pick<MorningJob, 'station' | 'recipe' | 'newId'> {
  /** When each is timed, ms since the epoch, and by whom. */
  timed: readonly { atMs: number; personId: string }[];
  /** What a person's hands add to ln T: a firmer tamp, a fuller basket. */
  handsLn: (personId: string) => number;
}

/** The pump is stopped this much early: the rest drips. */
const STOP_EARLY_G = 1.7;

/** The timed shots of a served stretch, at the mark where the collar stands. @param before facts so far, of this grinder */
export function simulateService({ station, recipe, newId, timed, handsLn }: ServiceJob, before: readonly AnyFact[]) {
  const standing = standingFacts(before);
  const setting = collarStandsAt(standing) ?? station.grinder.seedSetting;
  return timed.map(({ atMs, personId }): AnyFact => {
    const random = seededRandom(seedFrom(`served ${station.grinder.id} ${atMs}`));
    const set = simulatedStation(station, standing).shotSetUp(recipe.doseG, atMs, random);
    const shot = pullShotFast(
      { ...set, lnResistance: set.lnResistance + handsLn(personId), recipe },
      { atG: recipe.yieldG - STOP_EARLY_G, maxS: 2.5 * recipe.timeS.max },
    );
    return {
      id: newId(atMs),
      kind: 'shot',
      at: new Date(atMs).toISOString(),
      personId,
      grinderId: station.grinder.id,
      groupId: station.groupId,
      body: {
        recipeVersionId: recipe.recipeVersionId,
        setting,
        doseG: recipe.doseG,
        yieldG: Math.round(10 * shot.yieldG) / 10,
        timeS: Math.round(10 * shot.timeS) / 10,
        firstDropS: null,
        flaw: shot.channelled ? 'channel' : null,
        measuredBy: 'hand',
        trace: null,
        check: true,
        service: true,
        measured: { dose: 'timed' },
      },
    };
  });
}
