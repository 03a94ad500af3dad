import type { ChangeCause, Danger, Fault, Job, NotRight } from '@tempera/core/opening';
import { jobWord } from '../journal/index.ts';

type Names = (id: string | null) => string;

/** What a job asks for, in one line that begins with the deed. */
export function jobTitle(
  { kind, stationId, withId }: Pick<Job, 'kind' | 'stationId' | 'withId'>,
  nameOf: Names,
): string {
  const at = nameOf(stationId);
  switch (kind) {
    case 'water':
      return `Water and filter of ${at}`;
    case 'switchOn':
      return `Switch ${at} on`;
    case 'hot':
      return `Read the gauges of ${at}`;
    case 'hopper':
      return `Fill ${at}`;
    case 'rinse':
      return `Rinse ${at}`;
    case 'doseTime':
      return `Dose with ${at}`;
    case 'dial':
      return `Dial in ${at} on ${nameOf(withId)}`;
    case 'groupCheck':
      return `Check ${at} with ${nameOf(withId)}`;
    case 'button':
      return `Measure the button of ${at}`;
    case 'taste':
      return `Taste ${at}`;
    case 'scale':
    case 'milk':
    case 'signOff':
      return jobWord[kind];
  }
}

/** Why it is done, for whoever does it the first time. */
export const jobWhy: Record<Job['kind'], string> = {
  water: 'A machine that draws no water burns its heater; an old filter scales the boiler.',
  switchOn: 'From the switch it takes its time; everything else hangs on it.',
  hot: 'It is hot when the gauges say so, not when the minutes are over.',
  scale: 'Every number of the morning comes from the scale: put a known weight on it.',
  hopper: 'Another bag is another bed, and its age tells what to expect.',
  rinse: 'Clears what stood overnight, brings the group to brew heat, and shows a clogged screen.',
  doseTime: 'The first grounds sat in the chute all night. Then weigh what comes out.',
  dial: 'Until its mean lies in the window as surely as the house asks.',
  groupCheck: 'Same coffee, same grinder, another group: what differs is the group.',
  button: 'The mean of what it gives tells the next count.',
  taste: 'The numbers fit; the tongue decides.',
  milk: 'A wand that is not purged steams yesterday’s milk; a thermometer that lies scalds it.',
  signOff: 'One page for all stations, and your name under it.',
};

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
  unsure: (at) => `${at} is not settled. Pull the pair that tells most.`,
};

/** One line for the page that is signed. */
export function faultWord(fault: Fault, job: Job, nameOf: Names): string {
  const what = jobTitle(job, nameOf);
  if (fault.kind === 'notRight') return notRightWord[fault.what](nameOf(job.stationId));
  return fault.kind === 'open' ? `Not done: ${what}.` : `Left out: ${what}. ${fault.why}`;
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
