import {
  advise,
  doesAddUp,
  engineDefaults,
  fitCase,
  judgeLast,
  doseMissG,
  isLastFarOut,
  purgeAdviceG,
  windowMiddleS,
  type Advice,
  type AdviceCase,
  type CaseFit,
  type Expected,
} from '../calibration/index.ts';
import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import { cheapest } from './cheapest.ts';
import { dayNumbers } from './dayNumbers.ts';
import { doTwoMiss, doubtedShot, isOlder } from './lastPoured.ts';
import { levelBank } from './levelBank.ts';
import {
  cupsToCome,
  doesLookMend,
  expectedOf,
  outlook,
  outsideAt,
  type Day,
  type Outlook,
  type Place,
  type Service,
} from './outlook.ts';

/** What to do in service: leave it, or a small move; and when the next shot is timed. */
export interface ServiceAdvice {
  /** `repeat` with a dose is a trim: it is weighed from now on, and the collar is left; with a tamp the hands change and nothing else. */
  action: 'leave' | 'move' | 'repeat' | 'dose';
  setting: number;
  purgeG: number;
  doseG: number | null;
  /** Seconds that a firmer tamp is to be worth, a lighter one below 0, where the house answers a small miss so; null: no matter of the tamp. */
  tampS: number | null;
  /** What is expected once it is followed, and the chance that its cups are outside. */
  predicted: Expected;
  outside: number;
  /** The same where it stands, as long as nobody follows. */
  here: { predicted: Expected; outside: number };
  /** Minutes until the next timed shot; at least until the end where none is needed. */
  nextCheckMin: number;
  /** More of the cups may run outside than the house bears, and only a shot tells what to do about it. */
  asksToLook: boolean;
  /** Seconds of a shot of a moment ago that lay outside and turns nothing: the next one tells. Null: there is none. */
  doubtedS: number | null;
  /** Whether the bench answers: what was just seen is no drift of the day. */
  byBench: boolean;
  /** The judgement of the last shot, with its reasons, as at the bench. */
  bench: Advice;
}

/**
 * The rest of a served day: a setting is left, or moved, and the next look set, so that cups outside, looks and purges
 * together cost least. What no shot can be judged by (a fault, a dose that is off, a choke, a gush) is answered as at the bench.
 */
export function serve(given: AdviceCase, service: Service): ServiceAdvice {
  const input = servedThrough(given, service);
  const from = input.standsAt ?? input.shots.at(-1)?.setting ?? 0;
  const bench = advise(input);
  const fit = fitCase(input, from);
  const judgement = judgeLast(input, fit);
  const bank = levelBank(input);
  const day: Day = { input, bank, service, doseExponent: fit.line.doseExponent };
  const stands: Place = { setting: from, trimG: input.trimG };
  const isFresh = isJustPoured(input);
  // A shot that says nothing changes nothing: what was known before it says when to look again.
  const saysNothing = judgement.kind === 'noEvidence' || judgement.kind === 'noShot' || judgement.kind === 'moved';
  // What asks for a move at once asks for it until somebody moved; a blend is over with the next cup.
  const asksToMove = judgement.kind === 'choked' || (judgement.kind === 'sound' && isLastFarOut(input, fit));
  // What was poured before taste changed it speaks of another cup.
  const untried = input.untried === true;
  const asAtBench = !untried && (asksToMove || (isFresh && !saysNothing && judgement.kind !== 'sound'));
  const here = outlook(day, stands, stands);
  if (isFresh && !untried && judgement.kind === 'doseOff' && isDoseWrong(day, stands)) return byDose(day, bench, here);
  // Nothing was timed and nothing is remembered: the bench says where to start.
  const knowsNothing = input.shots.length === 0 && input.remembered === null && input.held === null;
  if (knowsNothing || (asAtBench && judgement.kind !== 'doseOff')) return byBench(day, bench, stands);
  // Nobody turns or weighs otherwise what is as good as surely inside, whatever it might save, nor what taste asked for before a shot shows it.
  const isQuiet = outsideAt(day, stands, 0) < dayNumbers.quietOutside;
  const chosen = isQuiet || untried ? here : cheapest(day, fit, here);
  if (chosen.place.setting !== from && isForTamp(day, fit, stands)) return byTamp(day, bench, here);
  if (chosen === here && !untried && isRunToAnswer(day, fit, here, bench)) return byBench(day, bench, stands);
  return inService(day, fit, { chosen, here, bench, mayAsk: !untried });
}

/** A run of shots outside on one side is answered, unless hardly a cup is to come: costs alone would leave it in a quiet bar. */
function isRunToAnswer(day: Day, fit: CaseFit, { place }: Outlook, bench: Advice): boolean {
  const outside = outsideAt(day, place, 0);
  const canAnswer = bench.action === 'move' || bench.doseG !== null;
  return (
    canAnswer &&
    outside > day.input.house.risk &&
    cupsToCome(day) * outside > 1 &&
    doesAddUp(day.input, fit, place.setting)
  );
}

/** The place that was chosen, what there is to do for it, and when the next shot is timed. */
function inService(
  day: Day,
  fit: CaseFit,
  { chosen, here, bench, mayAsk }: { chosen: Outlook; here: Outlook; bench: Advice; mayAsk: boolean },
): ServiceAdvice {
  const { input } = day;
  const { setting, trimG } = chosen.place;
  const outside = outsideAt(day, chosen.place, 0);
  const isMoved = setting !== here.place.setting;
  const isLeft = !isMoved && trimG === here.place.trimG;
  const asksToLook = isLeft && mayAsk && outside > input.house.risk && doesLookMend(day, chosen.place);
  const doubted = doubtedShot(input, fit, chosen.place);
  return {
    action: isLeft ? 'leave' : isMoved ? 'move' : 'repeat',
    setting,
    purgeG: isMoved ? purgeAdviceG(input.recipe.doseG, input.retentionG) : 0,
    doseG: doseOf(input, chosen.place),
    tampS: null,
    predicted: expectedOf(day, chosen.place),
    nextCheckMin: Math.min(
      chosen.checkMin,
      doubted !== null && isJustPoured(input) ? doubted.checkMin : Infinity,
      asksToLook ? dayNumbers.openCheckMin : Infinity,
    ),
    asksToLook,
    doubtedS: isLeft ? (doubted?.timeS ?? null) : null,
    outside,
    here: standing(day, here.place),
    byBench: false,
    bench,
  };
}

/** A shot is judged until the next cups have gone through. */
const FRESH_MS = 5 * MS_PER_MINUTE;

const isJustPoured = (input: AdviceCase): boolean => !isOlder(input, input.shots.at(-1)?.atMs ?? null, FRESH_MS);

/** Whether the last dose is neither what is poured here nor what the recipe asks for: then it is put right first. */
function isDoseWrong({ input }: Day, { trimG }: Place): boolean {
  const last = input.shots.at(-1);
  return last !== undefined && doseMissG(last, input, input.recipe.doseG + trimG) !== 0;
}

/** The dose to weigh; null: the recipe's. */
const doseOf = ({ recipe }: AdviceCase, { trimG }: Place): number | null =>
  trimG === 0 ? null : Math.round((recipe.doseG + trimG) * 100) / 100;

/** From where it stands to the middle of the window, s: what a firmer tamp is to be worth. */
const tampSOf = (day: Day, stands: Place): number =>
  windowMiddleS(day.input.recipe.timeS) - expectedOf(day, stands).timeS;

/** Whether the hands come before the collar: a small miss in a house that tamps so, until two shots running say that it does not do. */
function isForTamp(day: Day, fit: CaseFit, stands: Place): boolean {
  const isSmall = Math.abs(tampSOf(day, stands)) <= engineDefaults.smallMissS;
  return day.input.house.smallMiss === 'tamp' && isSmall && !doTwoMiss(day.input, fit);
}

/** What the tamp makes of it nobody can foretell: the next shot does. */
const byTamp = (day: Day, bench: Advice, { place }: Outlook): ServiceAdvice => ({
  action: 'repeat',
  setting: place.setting,
  purgeG: 0,
  doseG: doseOf(day.input, place),
  tampS: tampSOf(day, place),
  predicted: expectedOf(day, place),
  nextCheckMin: dayNumbers.soonestCheckMin,
  asksToLook: false,
  doubtedS: null,
  outside: outsideAt(day, place, 0),
  here: standing(day, place),
  byBench: false,
  bench,
});

/** A dose that was off is put right, and the collar is left: its shot speaks for the grind as far as doses are known to. */
const byDose = (day: Day, bench: Advice, here: Outlook): ServiceAdvice => ({
  action: 'dose',
  setting: here.place.setting,
  purgeG: 0,
  doseG: bench.doseG,
  tampS: null,
  predicted: expectedOf(day, here.place),
  nextCheckMin: afterDoubtMin(day, here),
  asksToLook: false,
  doubtedS: null,
  outside: outsideAt(day, here.place, 0),
  here: standing(day, here.place),
  byBench: true,
  bench,
});

/** When to look again: soon where the grind may be off as well, which only a shot of the right dose tells. */
const afterDoubtMin = (day: Day, { place, checkMin }: Outlook): number =>
  outsideAt(day, place, 0) > day.input.house.risk ? Math.min(checkMin, dayNumbers.doubtedCheckMin) : checkMin;

/** Where it stands now, and how likely its cups are outside. */
const standing = (day: Day, stands: Place): ServiceAdvice['here'] => ({
  predicted: expectedOf(day, stands),
  outside: outsideAt(day, stands, 0),
});

/** Cups that nobody timed went through the grinder too: by the next look they have emptied its chamber. */
function servedThrough(input: AdviceCase, { cupsPerHour }: Service): AdviceCase {
  const gramsUntil = (atMs: number | null, beforeMs: number | null): number => {
    if (atMs === null || beforeMs === null) return 0;
    // The shot itself is one of them.
    const cups = Math.floor(((atMs - beforeMs) / MS_PER_HOUR) * cupsPerHour) - 1;
    return Math.max(0, cups) * input.recipe.doseG;
  };
  const shots = input.shots.map((shot, i) => {
    const servedG = gramsUntil(shot.atMs, input.shots[i - 1]?.atMs ?? null);
    return shot.purgedG === null || servedG === 0 ? shot : { ...shot, purgedG: shot.purgedG + servedG };
  });
  return { ...input, shots, purgedG: input.purgedG + gramsUntil(input.nowMs, input.shots.at(-1)?.atMs ?? null) };
}

function byBench(day: Day, bench: Advice, stands: Place): ServiceAdvice {
  const action = bench.action === 'lock' ? 'leave' : bench.action;
  return {
    action,
    setting: bench.setting,
    purgeG: bench.purgeG,
    doseG: bench.doseG,
    tampS: null,
    predicted: bench.predicted,
    // What was just seen is no small thing: the very next shot says whether it is mended.
    nextCheckMin: action === 'leave' ? dayNumbers.soonestCheckMin : 0,
    asksToLook: false,
    doubtedS: null,
    outside: outsideAt(day, bench.action === 'move' ? { ...stands, setting: bench.setting } : stands, 0),
    here: standing(day, stands),
    byBench: true,
    bench,
  };
}
