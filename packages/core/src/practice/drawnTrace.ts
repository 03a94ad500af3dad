import type { MassTrace } from '../capture/index.ts';
import { gaussian, type Random } from '../numbers/index.ts';
import { drawStation } from './drawnBar.ts';
import { pullShot, type Hands } from './simulatedShot.ts';

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
const HZ = 10;

const evenHands: Hands = { prepSd: 0.05, channelChance: 0, channelSeen: 1 };

type Station = ReturnType<typeof drawStation>;

function shotOf({ random, recipe }: Station, lnResistance: number, hands: Hands): DrawnTrace {
  const shot = pullShot(
    { doseG: recipe.doseG, lnResistance, groupEffect: 0, recipe, hands, random },
    { atG: recipe.yieldG - 1.3, maxS: 90 },
  );
  const massG: (number | null)[] = shot.massG.map((mass) => (random() < LOST_CHANCE ? null : mass));
  if (random() < KNOCK_CHANCE) {
    const at = Math.floor(random() * massG.length);
    massG[at] = (shot.massG[at] ?? 0) + 3 + 6 * random();
  }
  return {
    trace: { hz: HZ, massG, pumpOffS: random() < MACHINE_TELLS_CHANCE ? shot.timeS : null },
    firstDropS: shot.firstDropS,
    stopS: shot.timeS,
    yieldG: shot.yieldG,
    channel: shot.channelled,
  };
}

const anyCollar = (random: Random): number => 0.2 * gaussian(random);

/** Draws a shot of any bar, its trace, lost samples and now and then a knock. */
export function drawTrace(seed: number, channelled: boolean): DrawnTrace {
  const station = drawStation(seed);
  return shotOf(station, anyCollar(station.random), { ...evenHands, channelChance: channelled ? 1 : 0 });
}

/** Good shots of one station, and one more through a bed that had a way in it from the first drops on, or had none. */
export function drawStart(seed: number, channelled: boolean): { good: MassTrace[]; shot: DrawnTrace } {
  const station = drawStation(seed);
  const GOOD = 6;
  const good = Array.from({ length: GOOD }, () => shotOf(station, 0, evenHands).trace);
  const hands = { ...evenHands, channelChance: channelled ? 1 : 0, channelSeen: 0 };
  return { good, shot: shotOf(station, anyCollar(station.random), hands) };
}

/** The same shot under a restless scale: it jumps a little before or after the first drop, lags, or single drops fall first. */
export function drawRestlessTrace(seed: number, channelled: boolean): DrawnTrace {
  const drawn = drawTrace(seed, channelled);
  // Of its own, so that the shot is the one without them.
  const { random } = drawStation(seed + 1_000_000);
  const slow = random() < 1 / 3 ? withSlowDrops(drawn, random) : drawn;
  return lagged(random() < 2 / 3 ? withJump(slow, random) : slow, random);
}

const changed = (drawn: DrawnTrace, of: (massG: number, atS: number) => number): DrawnTrace => ({
  ...drawn,
  trace: {
    ...drawn.trace,
    massG: drawn.trace.massG.map((mass, i) => (mass === null ? null : of(mass, i / HZ))),
  },
});

function withSlowDrops(drawn: DrawnTrace, random: Random): DrawnTrace {
  const earlyS = 0.6 + 1.2 * random();
  const EVERY_S = 0.4;
  const dropG = 0.08 + 0.06 * random();
  const firstDropS = drawn.firstDropS - earlyS;
  const most = Math.ceil(earlyS / EVERY_S);
  const fallen = (atS: number): number =>
    atS < firstDropS ? 0 : Math.min(most, 1 + Math.floor((atS - firstDropS) / EVERY_S));
  const slow = changed(drawn, (massG, atS) => massG + dropG * fallen(atS));
  return { ...slow, firstDropS, yieldG: drawn.yieldG + most * dropG };
}

function withJump(drawn: DrawnTrace, random: Random): DrawnTrace {
  const byG = (0.3 + 0.9 * random()) * (random() < 1 / 2 ? -1 : 1);
  const { firstDropS, stopS } = drawn;
  const jumpS =
    random() < 1 / 2 ? 0.85 * random() * firstDropS : firstDropS + 0.5 + (stopS - firstDropS - 0.5) * random();
  return changed(drawn, (massG, atS) => (atS >= jumpS ? massG + byG : massG));
}

/** The scale follows with a time constant, and reads to 0.1 g. */
function lagged(drawn: DrawnTrace, random: Random): DrawnTrace {
  const lagS = 0.1 + 0.3 * random();
  const follows = 1 - Math.exp(-1 / (HZ * lagS));
  let shownG: number | null = null;
  return changed(drawn, (massG) => {
    shownG = shownG === null ? massG : shownG + follows * (massG - shownG);
    return Math.round(shownG * 10) / 10;
  });
}
