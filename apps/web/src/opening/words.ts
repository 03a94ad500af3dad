import type { ChangeCause, Danger, Fault, Job, NotRight } from '@tempera/core/opening';
import type { RunKind } from '@tempera/core/facts';
import type { GramsUsed } from '@tempera/core/coffee';
import { skillSaid, type Skill } from '@tempera/contract/signOffs';
import { grams, inWords } from '../kernel/format.ts';
import { jobWords } from '../journal/index.ts';

interface Names {
  nameOf: (id: string | null) => string;
  /** The coffee in a grinder. */
  coffeeOf: (grinderId: string | null) => string;
}

/** Titles that begin with the deed and name the station; the others go by the name of the job. */
const titles: Partial<Record<Job['kind'], (at: string, withName: string, coffee: string) => string>> = {
  water: (at) => `Water and filter of ${at}`,
  switchOn: (at) => `Switch ${at} on`,
  hot: (at) => `Read the gauges of ${at}`,
  hopper: (at, _, coffee) => (coffee ? `Fill ${at} with ${coffee}` : `Fill ${at}`),
  rinse: (at) => `Rinse ${at}`,
  firstDose: (at) => `Throw the first dose of ${at} away`,
  doseTime: (at) => `Prove the dose time of ${at}`,
  dial: (at, withName) => `Dial in ${at} on ${withName}`,
  groupCheck: (at, withName) => `Check ${at} with ${withName}`,
  button: (at) => `Measure the button of ${at}`,
  emptyHopper: (at) => `Empty the hopper of ${at}`,
  brushChute: (at) => `Brush the chute of ${at}`,
  backFlush: (at) => `Back-flush ${at}`,
  wand: (at) => `Clean the wand of ${at}`,
  trays: (at) => `Empty the trays of ${at}`,
  switchOff: (at) => `Switch ${at} off`,
  taste: (at, _, coffee) => (coffee ? `Taste ${coffee} from ${at}` : `Taste ${at}`),
};

export const runWord: Record<RunKind, string> = {
  opening: 'Opening',
  afternoon: 'Afternoon',
  station: 'One station',
  closing: 'Closing',
};

/** What whoever is on a run alone is signed off for. */
export const runSkill = (run: RunKind): Skill => (run === 'closing' ? 'closing' : 'opening');

/** "Noor is not signed off for closing." */
export const notSignedOffWord = (names: readonly string[], skill: Skill): string =>
  `${inWords(names)} ${names.length === 1 ? 'is' : 'are'} not signed off for ${skillSaid(skill)}.`;

/** What a run goes over. */
export const runSays: Record<RunKind, string> = {
  opening: 'Everything from the water to the signature.',
  afternoon: 'The grinders in use, once more; what taste decided this morning stands.',
  station: 'One grinder, dialled in and tasted again.',
  closing: 'Beans into tubs, groups and wands cleaned, power down, and what tomorrow begins with.',
};

/** What a job asks for, in one line. */
export const jobTitle = (
  { kind, stationId, withId }: Pick<Job, 'kind' | 'stationId' | 'withId'>,
  { nameOf, coffeeOf }: Names,
): string => titles[kind]?.(nameOf(stationId), nameOf(withId), coffeeOf(stationId)) ?? jobWords[kind].name;

const shortWord: Record<Job['kind'], string> = {
  water: 'Water',
  switchOn: 'On',
  hot: 'Gauges',
  scale: 'Scale',
  hopper: 'Fill',
  rinse: 'Rinse',
  firstDose: '1st dose',
  dial: 'Dial',
  doseTime: 'Prove',
  groupCheck: 'Check',
  button: 'Button',
  taste: 'Taste',
  milk: 'Milk',
  emptyHopper: 'Empty',
  brushChute: 'Brush',
  soak: 'Soak',
  backFlush: 'Flush',
  wand: 'Wand',
  trays: 'Trays',
  switchOff: 'Off',
  upkeep: 'Upkeep',
  tomorrow: 'Next day',
  signOff: 'Sign',
};

/** A job where there is no room for its title; in a station's own line without the station. */
export const shortTitle = ({ kind, stationId }: Job, { nameOf }: Names, ownLine: boolean): string =>
  ownLine || stationId === null ? shortWord[kind] : `${shortWord[kind]} ${nameOf(stationId)}`;

export const cautionOf: Record<Danger, string> = {
  scald: 'Hot water and metal burn: stand clear when rinsing, hands off group and basket, never unlock under pressure.',
  steam: 'Steam burns: blow the wand into a cloth, away from hands and faces.',
  burrs: 'Burrs cut and restart: unplug before a hand or a tool goes in, and never reach in to clear a jam.',
  detergent: 'Detergent: gloves, the maker’s dose, rinse until clear, and throw the first shot away.',
  mains: 'Boiler, mains or gas out of order: stop, and call a licensed technician, by your local code.',
  caffeine: 'Tasting all morning: spit, and drink water; caffeine adds up.',
  milk: 'Milk: keep to your local food law; separate jugs for allergens.',
};

/** What is not right, said plainly, and who mends it. */
const notRightWord: Record<NotRight, (at: string) => string> = {
  noWater: (at) => `${at} gets no water. Leave it off; open the tap or call a licensed technician.`,
  filterOld: (at) => `The water filter of ${at} is out of date. Have it changed.`,
  scaleOff: () => 'The scale is off. Level it, dry it, tare it; if it stays off, use another.',
  dosesScatter: (at) => `The doses of ${at} do not hold. Look at hopper and chute, and weigh again.`,
  groupOff: (at) => `${at} is off. Clean its screen, look at gasket and programme, then check again.`,
  grinderOff: (at) => `The grinder, and not ${at}, is off. Set it again on its bench.`,
  detergentLeft: (at) => `Detergent is left in ${at}. Flush until it runs clear, and throw the first shot away.`,
  gasketWorn: (at) => `The gasket of ${at} is worn. Change it, or have it changed.`,
  unsure: (at) => `${at} is not settled. Pull the pair that tells most.`,
};

/** One line for the page that is signed. */
export function faultWord(fault: Fault, job: Job, names: Names): string {
  const what = jobTitle(job, names);
  if (fault.kind === 'notRight') return notRightWord[fault.what](names.nameOf(job.stationId));
  return fault.kind === 'open' ? `Not done: ${what}.` : `Left out: ${what}. ${fault.why}`;
}

const causeWord = {
  poured: 'poured',
  purged: 'purged',
  thrownAway: 'thrown away',
  kitchen: 'kept for the kitchen',
  burrs: 'for the burrs',
} as const;

/** "184.2 g (126.0 g poured, 40.2 g purged, 18.0 g thrown away)": what was ground, and where it went. */
export function usedWord({ totalG, byCause }: GramsUsed): string {
  const parts = (Object.keys(causeWord) as (keyof typeof causeWord)[])
    .filter((cause) => byCause[cause] > 0)
    .map((cause) => `${grams(byCause[cause])} ${causeWord[cause]}`);
  return parts.length > 1 ? `${grams(totalG)} (${parts.join(', ')})` : grams(totalG);
}

/** What changed the plan, in a few words. */
export function changeWord(cause: ChangeCause, titleOf: (key: string) => string): string {
  switch (cause.kind) {
    case 'opens':
      return 'the opening was moved';
    case 'people':
      return 'other people are in';
    case 'notRight':
      return `not right: ${titleOf(cause.key)}`;
    case 'again':
      return `to be done again: ${titleOf(cause.key)}`;
    case 'skipped':
      return `left out: ${titleOf(cause.key)}`;
    case 'longer':
      return 'things take longer than usual';
    case 'sooner':
      return 'things go faster than usual';
  }
}
