import { gaussian } from '../numbers/index.ts';
import { grindThrough, oldShare, type AdviceCase, type CaseShot, type Remembered } from '../calibration/index.ts';
import type { DrawnStation } from './drawnBar.ts';
import { lnOfDose, trueTimeS } from './resistance.ts';
import { pullShotFast, type ShotReading } from './simulatedShot.ts';

export interface MorningResult {
  shots: number;
  grams: number;
  moves: number;
  locked: boolean;
  /** Whether the setting that was left truly meets the window. */
  trulyInside: boolean;
  /** Chance that was stated at the lock; null when the way states none. */
  statedChance: number | null;
  /** For each predicted next shot: whether it fell inside its 80 % band. */
  bandHits: boolean[];
  setting: number;
  /** Where the collar stood for each shot. */
  settings: number[];
  /** Whether the dose that was left is not the recipe's. */
  trimmed: boolean;
  /** Whether the collar clicks from mark to mark. */
  stepped: boolean;
}

/** What a way of working does after the shots so far. */
export interface Turn {
  action: 'lock' | 'repeat' | 'move';
  setting: number;
  purgeG: number;
  /** The dose to weigh; null: the recipe's. */
  doseG: number | null;
  /** What it expects of the next shot there, when it says. */
  expects: { lowS: number; highS: number; inWindow: number } | null;
}
export type WayOfWorking = (input: AdviceCase, station: DrawnStation) => Turn;

const MAX_SHOTS = 20;
/** The pump is stopped this much before the yield: the rest drips; and by a hand, not on the gram. */
const STOP_EARLY_G = 1.3;
const STOP_SD_G = 0.7;

/** A station with grounds in its chute: what a morning and a served day share. */
export class LiveStation {
  private readonly station: DrawnStation;
  private heldLnR: number | null = null;
  private pulled = 0;
  /** Added to ln of resistance by air, burrs and bags. */
  surroundings = 0;

  constructor(station: DrawnStation) {
    this.station = station;
  }

  /** Pulls a shot after `purgedG` grams of purge, aiming at `doseG`. */
  pull(setting: number, purgedG: number, askedG: number): CaseShot {
    const { station } = this;
    const { recipe, random, retentionG, crew = [] } = station;
    const person = crew[this.pulled % Math.max(1, crew.length)];
    const hands = person?.hands ?? station.hands;
    this.pulled += 1;
    const fresh = station.lnResistanceAt(setting);
    const held = this.heldLnR ?? fresh;
    const doseG = this.dosed(askedG);
    const ground = fresh + (held - fresh) * oldShare(doseG, purgedG, retentionG);
    this.heldLnR = grindThrough({ x: held }, fresh, purgedG + doseG, retentionG).x;
    const { measuring } = station;
    // What the glass makes of a gram this time: the mark is reached that much sooner or later.
    const inGlass = measuring ? Math.exp(measuring.yieldOff + measuring.yieldSd * gaussian(random)) : 1;
    const stop = {
      atG: inGlass * (recipe.yieldG - STOP_EARLY_G + STOP_SD_G * gaussian(random)),
      maxS: 2.5 * recipe.timeS.max,
    };
    const lnResistance = ground + this.surroundings;
    const shot = pullShotFast({ doseG, lnResistance, groupEffect: 0, recipe, hands, random }, stop);
    const by = person?.name ?? null;
    const seen = { ...written(shot, stop.maxS), setting, doseG, purgedG, atMs: null, group: null, by };
    if (!measuring) return seen;
    const read = Math.exp(measuring.readSd * gaussian(random)) / inGlass;
    const { measured } = measuring;
    return { ...seen, doseG: askedG, yieldG: Math.max(1, tenths(seen.yieldG * read)), firstDropS: null, measured };
  }

  private dosed(askedG: number): number {
    const { measuring, doseSdG, random } = this.station;
    if (measuring) return askedG * Math.exp(measuring.doseOff + measuring.doseSd * gaussian(random));
    return tenths(askedG + doseSdG * gaussian(random));
  }

  /** Whether shots at this setting and dose truly meet the window now. */
  trulyInside(setting: number, doseG: number): boolean {
    const { min, max } = this.station.recipe.timeS;
    const timeS = this.trulyS(setting, doseG);
    return timeS >= min && timeS <= max;
  }

  /** Seconds that a sound shot at this setting and dose truly takes now. */
  trulyS(setting: number, doseG: number): number {
    const { recipe, measuring } = this.station;
    const trulyG = doseG * Math.exp(measuring?.doseOff ?? 0);
    const lnR = this.station.lnResistanceAt(setting) + this.surroundings + lnOfDose(trulyG, recipe.doseG);
    // Served as the house measures: to its own mark on the glass.
    return trueTimeS(recipe, lnR, recipe.yieldG * Math.exp(measuring?.yieldOff ?? 0));
  }
}

const tenths = (value: number): number => Math.round(value * 10) / 10;

function written(shot: ShotReading, maxS: number): Pick<CaseShot, 'timeS' | 'yieldG' | 'firstDropS' | 'fault'> {
  const choked = shot.timeS >= maxS;
  return {
    timeS: Math.max(0.1, tenths(shot.timeS)),
    yieldG: Math.max(0.1, tenths(shot.yieldG)),
    firstDropS: tenths(shot.firstDropS),
    fault: choked ? 'choke' : shot.channelSeen ? 'channel' : null,
  };
}

/** Runs one way of working through a morning until it locks or twenty shots are gone. */
export function runMorning(
  station: DrawnStation,
  way: WayOfWorking,
  remembered: Remembered | null = null,
): MorningResult {
  const live = new LiveStation(station);
  const { recipe, believed } = station;
  const shots: CaseShot[] = [];
  const bandHits: boolean[] = [];
  let grams = 0;
  let moves = 0;
  let turn: Turn = { action: 'repeat', setting: station.startSetting, purgeG: 0, doseG: null, expects: null };
  while (shots.length < MAX_SHOTS && turn.action !== 'lock') {
    const shot = live.pull(turn.setting, turn.purgeG, turn.doseG ?? recipe.doseG);
    if (turn.expects && shot.fault === null) {
      bandHits.push(shot.timeS >= turn.expects.lowS && shot.timeS <= turn.expects.highS);
    }
    shots.push(shot);
    grams += turn.purgeG + shot.doseG;
    const input: AdviceCase = {
      ...believed,
      held: null,
      remembered,
      trimG: 0,
      nowMs: null,
      events: [],
      shots,
      standsAt: shot.setting,
      purgedG: 0,
    };
    turn = way(input, station);
    if (turn.setting !== shot.setting) moves += 1;
  }
  const locked = turn.action === 'lock';
  return {
    shots: shots.length,
    grams,
    moves,
    locked,
    trulyInside: live.trulyInside(turn.setting, turn.doseG ?? recipe.doseG),
    statedChance: locked ? (turn.expects?.inWindow ?? null) : null,
    bandHits,
    setting: turn.setting,
    settings: shots.map(({ setting }) => setting),
    trimmed: turn.doseG !== null && turn.doseG !== recipe.doseG,
    stepped: station.dial.stepMarks === 1,
  };
}
