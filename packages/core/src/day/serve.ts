import {
  advise,
  engineDefaults,
  fitCase,
  judgeLast,
  marksFiner,
  middleThirdLn,
  missOf,
  isDoseNear,
  isLastFarOut,
  purgeAdviceG,
  trimDoses,
  weighableTrims,
  windowMiddleS,
  type Advice,
  type AdviceCase,
  type CaseFit,
  type Expected,
} from '../calibration/index.ts';
import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import { dayNumbers } from './dayNumbers.ts';
import { levelBank } from './levelBank.ts';
import {
  expectedOf,
  outlook,
  outsideAt,
  settingsInReach,
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
  // A house that answers a small miss with the dose goes along with a coffee that ages so: the collar stays, and no purge is due.
  const doseFirst = input.house.smallMiss === 'dose';
  const grams = [0, ...(doseFirst ? weighableTrims(input) : trimDoses(input, fit.line))];
  const trimG = pouredTrimG(input, grams);
  const stands: Place = { setting: from, trimG };
  const isFresh = isJustPoured(input);
  // A shot that says nothing changes nothing: what was known before it says when to look again.
  const saysNothing = judgement.kind === 'noEvidence' || judgement.kind === 'noShot' || judgement.kind === 'moved';
  // What asks for a move at once asks for it until somebody moved; a blend is over with the next cup.
  const asksToMove = judgement.kind === 'choked' || (judgement.kind === 'sound' && isLastFarOut(input, fit));
  // What was poured before taste changed it speaks of another cup.
  const untried = input.untried === true;
  const asAtBench = !untried && (asksToMove || (isFresh && !saysNothing && judgement.kind !== 'sound'));
  const here = outlook(day, stands, stands);
  if (isFresh && !untried && judgement.kind === 'doseOff' && isDoseWrong(input)) return byDose(day, bench, here);
  // Nothing was timed and nothing is remembered: the bench says where to start.
  const knowsNothing = input.shots.length === 0 && input.remembered === null;
  if (knowsNothing || (asAtBench && judgement.kind !== 'doseOff')) return byBench(day, bench, stands);
  // Nobody turns or weighs otherwise what is as good as surely inside, whatever it might save, nor what taste asked for before a shot shows it.
  const isQuiet = outsideAt(day, stands, 0) < dayNumbers.quietOutside;
  const stays = isQuiet || untried;
  const trims = stays
    ? [trimG]
    : doseFirst || (isBetweenMarks(day, stands) && doTwoAgree(input, fit))
      ? grams
      : [...new Set([0, trimG])];
  const chosen = [from, ...(stays ? [] : settingsInReach(day, stands))]
    .flatMap((setting) => trims.map((trim) => outlook(day, { setting, trimG: trim }, stands)))
    .filter(({ place }) => !isAgainstLast(input, fit, place))
    .reduce((least, one) => (one.cost < least.cost ? one : least), here);
  if (chosen.place.setting !== from && isForTamp(day, fit, stands)) return byTamp(day, bench, here);
  const { setting } = chosen.place;
  const isTrimmed = chosen.place.trimG !== trimG;
  const doubted = doubtedShot(input, fit, chosen.place);
  return {
    action: setting !== from ? 'move' : isTrimmed ? 'repeat' : 'leave',
    setting,
    purgeG: setting === from ? 0 : purgeAdviceG(input.recipe.doseG, input.retentionG),
    doseG: doseOf(input, chosen.place),
    tampS: null,
    predicted: expectedOf(day, chosen.place),
    nextCheckMin: doubted === null || !isFresh ? chosen.checkMin : Math.min(chosen.checkMin, doubted.checkMin),
    doubtedS: isTrimmed || setting !== from ? null : (doubted?.timeS ?? null),
    outside: outsideAt(day, chosen.place, 0),
    here: standing(day, stands),
    byBench: false,
    bench,
  };
}

/** A shot is judged until the next cups have gone through. */
const FRESH_MS = 5 * MS_PER_MINUTE;

const isJustPoured = (input: AdviceCase): boolean => !isOlder(input, input.shots.at(-1)?.atMs ?? null, FRESH_MS);

/** Whether something is older than that; what nobody timed is not. */
const isOlder = ({ nowMs }: AdviceCase, atMs: number | null, ms: number): boolean =>
  atMs !== null && nowMs !== null && nowMs - atMs >= ms;

/** The trim that was poured last, or was locked: of those that may be, the one nearest to the last dose. */
function pouredTrimG({ recipe, shots, trimG }: AdviceCase, trims: readonly number[]): number {
  const last = shots.at(-1);
  const off = last ? last.doseG - recipe.doseG : trimG;
  return trims.reduce((nearest, grams) => (Math.abs(grams - off) < Math.abs(nearest - off) ? grams : nearest), 0);
}

/** What is off by less than so many sds is noise. */
const TRIM_SDS = 1;

/** Whether no mark comes near the middle, by more than noise: then the dose may take up the rest, and only then. */
function isBetweenMarks(day: Day, stands: Place): boolean {
  const half = middleThirdLn(day.input);
  const middle = Math.log(windowMiddleS(day.input.recipe.timeS));
  return [stands.setting, ...settingsInReach(day, { ...stands, trimG: 0 })].every((setting) => {
    const { timeS, sd } = expectedOf(day, { setting, trimG: 0 });
    const off = Math.abs(Math.log(timeS) - middle);
    return off > half && (setting !== stands.setting || off > TRIM_SDS * sd);
  });
}

/** Normalised times of the last two sound shots, newest first. */
const lastTwoS = ({ shots }: AdviceCase, { heard }: CaseFit): number[] =>
  shots
    .flatMap(({ fault }, i) => (fault === null ? (heard[i]?.normalisedS ?? []) : []))
    .slice(-2)
    .toReversed();

/** Seconds by which the last shot lay outside; 0 where it lay inside, or says nothing. */
function lastMissS({ shots, recipe }: AdviceCase, { heard }: CaseFit): number {
  const normalisedS = shots.at(-1)?.fault === null ? heard.at(-1)?.normalisedS : null;
  return normalisedS == null ? 0 : missOf(normalisedS, recipe.timeS);
}

/** A sound shot of a moment ago that lay outside, where nothing is turned for it: the next one says whether it was that cup. */
function doubtedShot(input: AdviceCase, fit: CaseFit, { setting }: Place): { timeS: number; checkMin: number } | null {
  const last = input.shots.at(-1);
  const missS = lastMissS(input, fit);
  const { doubtedCheckMin, soonestCheckMin } = dayNumbers;
  if (!last || missS === 0 || last.setting !== setting) return null;
  if (isOlder(input, last.atMs, 2 * doubtedCheckMin * MS_PER_MINUTE)) return null;
  const isFar = Math.abs(missS) > engineDefaults.smallMissS;
  return { timeS: last.timeS, checkMin: isFar ? soonestCheckMin : doubtedCheckMin };
}

/** Whether a setting would take a shot that lay outside farther out: whatever was seen before it, nobody turns that way before the next. */
const isAgainstLast = (input: AdviceCase, fit: CaseFit, { setting }: Place): boolean =>
  marksFiner(input.dial, setting, input.shots.at(-1)?.setting ?? setting) * lastMissS(input, fit) > 0;

/** Whether the last two sound shots lie on one side, off the middle third: what a single one says of the rest between two marks is noise. */
function doTwoAgree(input: AdviceCase, fit: CaseFit): boolean {
  const [last = 0, before = 0] = lastTwoS(input, fit).map((timeS) => {
    const off = Math.log(timeS / windowMiddleS(input.recipe.timeS));
    return Math.abs(off) > middleThirdLn(input) ? Math.sign(off) : 0;
  });
  return last !== 0 && last === before;
}

/** The dose to weigh; null: the recipe's. */
const doseOf = ({ recipe }: AdviceCase, { trimG }: Place): number | null =>
  trimG === 0 ? null : Math.round((recipe.doseG + trimG) * 100) / 100;

/** Whether the last dose lies farther off than any trim and the recipe's tolerance explain: then it is put right first. */
function isDoseWrong(input: AdviceCase): boolean {
  const shot = input.shots.at(-1);
  return shot !== undefined && !isDoseNear(shot, input, Math.max(...engineDefaults.trimsG));
}

/** From where it stands to the middle of the window, s: what a firmer tamp is to be worth. */
const tampSOf = (day: Day, stands: Place): number =>
  windowMiddleS(day.input.recipe.timeS) - expectedOf(day, stands).timeS;

/** Whether the hands come before the collar: a small miss in a house that tamps so, until two shots running say that it does not do. */
function isForTamp(day: Day, fit: CaseFit, stands: Place): boolean {
  const { house, recipe } = day.input;
  if (house.smallMiss !== 'tamp' || Math.abs(tampSOf(day, stands)) > engineDefaults.smallMissS) return false;
  const [last, before] = lastTwoS(day.input, fit).map((timeS) => Math.sign(missOf(timeS, recipe.timeS)));
  return last === undefined || last === 0 || last !== before;
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
  nextCheckMin: here.checkMin,
  doubtedS: null,
  outside: outsideAt(day, here.place, 0),
  here: standing(day, here.place),
  byBench: true,
  bench,
});

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
    doubtedS: null,
    outside: outsideAt(day, bench.action === 'move' ? { ...stands, setting: bench.setting } : stands, 0),
    here: standing(day, stands),
    byBench: true,
    bench,
  };
}
