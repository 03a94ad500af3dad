import { advise, marksFiner, newBar, type BarModel } from '../calibration/index.ts';
import { runMorning, type MorningResult } from './closedLoop.ts';
import { drawStation, type DrawnStation } from './drawnBar.ts';
import type { Hands } from './simulatedShot.ts';
import { byEngine, byRuleOfThumb, turnOf } from './waysOfWorking.ts';

/** A bar on which the engine was not built: one thing about it is otherwise. */
export interface OtherBar {
  name: string;
  of: (station: DrawnStation) => DrawnStation;
  /** Whether it is its people that are otherwise: those the engine has met before. */
  hands: boolean;
}

const withHands =
  (change: Partial<Hands>) =>
  (station: DrawnStation): DrawnStation => {
    const hands = { ...station.hands, ...change };
    return { ...station, hands, crew: [{ name: 'one', hands }] };
  };

/** The house believes that a mark is worth this many times what it is. */
const believing =
  (factor: number) =>
  (station: DrawnStation): DrawnStation => ({
    ...station,
    believed: { ...station.believed, secondsPerMark: (station.believed.secondsPerMark ?? 0) * factor },
  });

function coarse(station: DrawnStation): DrawnStation {
  const { startSetting, believed } = station;
  const FACTOR = 2;
  return {
    ...station,
    lnResistanceAt: (setting) => station.lnResistanceAt(startSetting + FACTOR * (setting - startSetting)),
    believed: { ...believed, secondsPerMark: (believed.secondsPerMark ?? 0) * FACTOR },
  };
}

/** ln of resistance that a step adds for each step that it lies from where the morning began. */
const CURVES_BY = 0.003;

function curved(station: DrawnStation): DrawnStation {
  const { startSetting, dial } = station;
  const steps = (setting: number): number => marksFiner(dial, setting, startSetting) / dial.stepMarks;
  return {
    ...station,
    lnResistanceAt: (setting) =>
      station.lnResistanceAt(setting) + CURVES_BY * steps(setting) * Math.abs(steps(setting)),
  };
}

function takingTurns(station: DrawnStation): DrawnStation {
  const hands = (prepSd: number): Hands => ({ ...station.hands, prepSd });
  return {
    ...station,
    crew: [
      { name: 'even', hands: hands(0.035) },
      { name: 'uneven', hands: hands(0.085) },
    ],
  };
}

export const otherBars: readonly OtherBar[] = [
  { name: 'uneven hands', of: withHands({ prepSd: 0.09 }), hands: true },
  { name: 'even hands', of: withHands({ prepSd: 0.03 }), hands: true },
  { name: 'two people taking turns', of: takingTurns, hands: true },
  { name: 'chute of 0.5 g', of: (station) => ({ ...station, retentionG: 0.5 }), hands: false },
  { name: 'chute of 9 g', of: (station) => ({ ...station, retentionG: 9 }), hands: false },
  { name: 'a mark is worth 1.7 times as much as believed', of: believing(1 / 1.7), hands: false },
  { name: 'a mark is worth 1.7 times less than believed', of: believing(1.7), hands: false },
  { name: 'coarse dial', of: coarse, hands: false },
  { name: '10 % unseen channels', of: withHands({ channelChance: 0.1, channelSeen: 0 }), hands: false },
  { name: 'curved response', of: curved, hands: false },
];

/** Seeds beside those of any other run: the people are met on other grinders. */
const MET_SEED = 500_000;
const MORNINGS_MET = 10;

/** What ten mornings with the same people, each on another grinder, have taught of their hands. */
function met(bar: OtherBar, seed: number): BarModel {
  let known = newBar();
  for (let i = 0; i < MORNINGS_MET; i += 1) {
    const station = bar.of(drawStation(MET_SEED + MORNINGS_MET * seed + i));
    let after = known;
    runMorning(
      station,
      (input) => {
        const advice = advise(input);
        after = advice.fit.bar;
        return turnOf(advice);
      },
      { bar: known, grinder: 'this', reference: station.startSetting },
    );
    known = { ...newBar(), noise: after.noise, ...(after.hands ? { hands: after.hands } : {}) };
  }
  return known;
}

/** Mornings on another bar, by the engine and by the rule of thumb, on the same seeds. @param heard whether the people are known */
export function runOtherBar(
  bar: OtherBar,
  seeds: readonly number[],
  heard: boolean,
): { engine: MorningResult[]; thumb: MorningResult[] } {
  const A_CREW = 10;
  let known: BarModel | null = null;
  const engine = seeds.map((seed, i) => {
    if (heard && i % A_CREW === 0) known = met(bar, seed);
    const station = bar.of(drawStation(seed));
    return runMorning(station, byEngine, known && { bar: known, grinder: 'this', reference: station.startSetting });
  });
  return { engine, thumb: seeds.map((seed) => runMorning(bar.of(drawStation(seed)), byRuleOfThumb)) };
}
