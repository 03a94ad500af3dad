import { gaussian } from '../numbers/index.ts';
import type { MassTrace } from '../capture/index.ts';
import { drawStation } from './drawnBar.ts';
import { pullShot } from './simulatedShot.ts';

/** A trace as a bar scale would send it, and what was true of the shot. */
export interface DrawnTrace {
  trace: MassTrace & { pumpOffS: number | null };
  firstDropS: number;
  stopS: number;
  yieldG: number;
  /** A channel opened that its flow can show; null: none did. */
  channel: boolean;
}

const LOST_CHANCE = 0.01;
const KNOCK_CHANCE = 0.15;
const MACHINE_TELLS_CHANCE = 0.5;

/** Draws a shot of any bar, its trace, lost samples and now and then a knock. */
export function drawTrace(seed: number, channelled: boolean): DrawnTrace {
  const station = drawStation(seed);
  const { random, recipe } = station;
  const shot = pullShot(
    {
      doseG: recipe.doseG,
      lnResistance: 0.2 * gaussian(random),
      groupEffect: 0,
      recipe,
      hands: { prepSd: 0.05, channelChance: channelled ? 1 : 0, channelSeen: 1 },
      random,
    },
    { atG: recipe.yieldG - 1.3, maxS: 90 },
  );
  const massG: (number | null)[] = shot.massG.map((mass) => (random() < LOST_CHANCE ? null : mass));
  if (random() < KNOCK_CHANCE) {
    const at = Math.floor(random() * massG.length);
    massG[at] = (shot.massG[at] ?? 0) + 3 + 6 * random();
  }
  return {
    trace: { hz: 10, massG, pumpOffS: random() < MACHINE_TELLS_CHANCE ? shot.timeS : null },
    firstDropS: shot.firstDropS,
    stopS: shot.timeS,
    yieldG: shot.yieldG,
    channel: shot.channelled,
  };
}
