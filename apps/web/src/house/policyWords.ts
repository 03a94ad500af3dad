import type { HousePolicy } from '@tempera/contract/policy';
import { percent } from '../kernel/format.ts';

interface Choice {
  value: string;
  name: string;
  says: string;
}

export type ChoiceKey = Exclude<keyof HousePolicy, 'sureness' | 'risk' | 'longestCheckMin'>;

/** One question on which good houses differ. Our default comes first, with its reason. */
export interface Question {
  of: ChoiceKey;
  asks: string;
  choices: readonly Choice[];
}

/** The schools of the house book: what each choice means, and why it is ours where it is. */
export const questions: readonly Question[] = [
  {
    of: 'lockRule',
    asks: 'When is a setting good enough?',
    choices: [
      {
        value: 'sureness',
        name: 'A stated sureness',
        says: 'Our default: it asks for more shots only when they are needed.',
      },
      { value: 'firstGood', name: 'The first good shot', says: 'Quickest; it says least about the next shot.' },
      { value: 'oneRepeat', name: 'One repeat', says: 'Two good shots in a row.' },
      {
        value: 'meanOfThree',
        name: 'The mean of three',
        says: 'Slow; the mean decides, even when one of the three was outside.',
      },
    ],
  },
  {
    of: 'trim',
    asks: 'Between two marks of a stepped grinder',
    choices: [
      { value: 'dose', name: 'Trim the dose', says: 'Our default: 0.2 to 0.4 g more or less, and no purge.' },
      { value: 'yield', name: 'Trim the yield', says: 'A little longer or shorter, told at the lock.' },
      { value: 'tamp', name: 'Trim by the tamp', says: "Worth 2 to 3 s; a person's doing, not the grinder's." },
      { value: 'none', name: 'Not at all', says: 'The collar alone; the likelier of the two marks is taken.' },
    ],
  },
  {
    of: 'recheck',
    asks: 'When is a grinder looked at again?',
    choices: [
      {
        value: 'drift',
        name: 'When it may have drifted',
        says: 'Our default: as late as the risk allows, no later than the longest wait.',
      },
      { value: 'hours', name: 'By the clock', says: 'Every so many minutes, needed or not.' },
      { value: 'changes', name: 'When something changed', says: 'A new bag, a refill, a moved collar; else not.' },
    ],
  },
  {
    of: 'endsShot',
    asks: 'What ends the shot?',
    choices: [
      { value: 'yield', name: 'The yield on the scale', says: 'Our default: it drives the flavour most.' },
      {
        value: 'time',
        name: 'The time, weighed after',
        says: 'One scale is enough; judged by the same normalised time.',
      },
      { value: 'volume', name: "The machine's volume", says: 'Hands are free; the programme wants checking.' },
      { value: 'eye', name: 'The colour of the stream', says: 'Where it turns pale; the time is judged as ever.' },
    ],
  },
  {
    of: 'yieldBy',
    asks: 'How is a yield read?',
    choices: [
      { value: 'scale', name: 'On a scale', says: 'Our default: under the cup, or weighed after.' },
      { value: 'glass', name: 'In a marked glass', says: 'Crema included: what a millilitre weighs is learned.' },
      { value: 'volume', name: "By the machine's counter", says: 'As programmed; nobody reads it.' },
      { value: 'eye', name: 'By eye', says: 'It costs the most shots, and says so.' },
    ],
  },
  {
    of: 'doseProof',
    asks: 'What proves a grind time?',
    choices: [
      {
        value: 'dialling',
        name: 'The doses weighed while dialling in',
        says: 'Our default: nothing is ground only for it.',
      },
      { value: 'meanOfThree', name: 'The mean of three after the lock', says: 'Those weighed on the way count.' },
    ],
  },
  {
    of: 'doseCheck',
    asks: 'When is a dose weighed in service?',
    choices: [
      {
        value: 'computed',
        name: 'When it may be off',
        says: 'Our default: by how a timer drifts, sooner after a refill or a bag.',
      },
      {
        value: 'quarterHour',
        name: 'Every 15 minutes',
        says: 'Easy to keep in mind; it costs attention in a quiet hour.',
      },
      { value: 'twentyDrinks', name: 'Every 20 drinks', says: 'Follows the rush.' },
      { value: 'never', name: 'Not at all', says: 'For grinders that weigh what they grind.' },
    ],
  },
  {
    of: 'smallMiss',
    asks: 'A miss of two or three seconds',
    choices: [
      { value: 'collar', name: 'Turn the collar', says: 'Our default, wherever a mark fits.' },
      { value: 'tamp', name: 'Tamp firmer or lighter', says: "A person's doing, not the grinder's; then the collar." },
      {
        value: 'dose',
        name: 'Dose a little more or less',
        says: 'No purge; the collar waits. A coffee that ages is followed so too.',
      },
    ],
  },
  {
    of: 'moveCap',
    asks: 'How far at once?',
    choices: [
      { value: 'computed', name: 'As far as computed', says: 'Our default: part of the way where it is not sure.' },
      { value: 'three', name: 'Three steps at most', says: 'More shots when far out.' },
      { value: 'one', name: 'One step at a time', says: 'Slowest, and never far over.' },
    ],
  },
  {
    of: 'burrsRun',
    asks: 'When the collar turns, the burrs run',
    choices: [
      { value: 'finer', name: 'When it turns finer', says: 'Our default: that is the way that jams.' },
      { value: 'always', name: 'For every move', says: 'One habit for both ways.' },
    ],
  },
  {
    of: 'firstGuess',
    asks: 'A grinder that nobody has dialled in',
    choices: [
      {
        value: 'texture',
        name: 'By its grounds between the fingers',
        says: 'Our default: a wide hint is better than none.',
      },
      { value: 'middle', name: 'From the middle of the dial', says: 'The first shot tells the way.' },
      { value: 'finest', name: 'From the finest upward', says: 'It chokes first, then never again.' },
      { value: 'maker', name: "From the maker's mark", says: 'As the grinder came.' },
    ],
  },
  {
    of: 'purgeCount',
    asks: 'A purge is counted in',
    choices: [
      { value: 'grams', name: 'Grams', says: 'Our default.' },
      { value: 'seconds', name: 'Seconds', says: 'By the rate that the grinder is known for.' },
      { value: 'portafilters', name: 'Portafilters', says: 'A full basket each.' },
      { value: 'doses', name: 'Doses', says: 'As an automat or a chamber gives them.' },
    ],
  },
  {
    of: 'whenTorn',
    asks: 'Time and yield cannot both be met',
    choices: [
      { value: 'yieldFirst', name: 'Yield first', says: 'Our default: time may float, inside limits.' },
      { value: 'both', name: 'Both, or it is not served', says: 'Strict; more goes down the drain.' },
    ],
  },
  {
    of: 'lessDose',
    asks: 'Less coffee makes a cup',
    choices: [
      {
        value: 'lessSour',
        name: 'Less sour',
        says: 'Our default: what is left is drawn out further. Your own cups teach it.',
      },
      { value: 'lessBitter', name: 'Less bitter', says: 'As others find. Your own cups teach it.' },
    ],
  },
  {
    of: 'tasteLever',
    asks: 'The numbers fit, the taste does not',
    choices: [
      { value: 'yield', name: 'The yield first', says: 'Our default: it needs no purge.' },
      { value: 'grind', name: 'The grind first', says: 'Finer or coarser, with a purge and a new dose time.' },
      { value: 'dose', name: 'The dose first', says: '0.2 to 0.5 g more or less.' },
      { value: 'temperature', name: 'The brew temperature first', says: 'Where the machine can set it.' },
    ],
  },
  {
    of: 'dosing',
    asks: 'How is a dose measured while serving?',
    choices: [
      {
        value: 'timed',
        name: 'By time, checked now and then',
        says: 'Our default: quick; every dose is weighed while calibrating.',
      },
      { value: 'weighed', name: 'Every dose weighed', says: 'Surest, and slowest in a rush.' },
      {
        value: 'levelled',
        name: 'Levelled with a straight edge',
        says: "Settled and refilled is more, hollow is less, by the basket's own grams.",
      },
      { value: 'line', name: "To the basket's line", says: 'Under, on or over it: as an automat fills.' },
      { value: 'eye', name: 'By eye', says: 'Heard with the doubt that an eye deserves.' },
    ],
  },
  {
    of: 'tastes',
    asks: 'Which shot is tasted?',
    choices: [
      {
        value: 'whenNumbersFit',
        name: 'When the numbers fit',
        says: 'Our default: the tongue is kept for what could be served.',
      },
      { value: 'second', name: 'From the second on', says: 'The first one warms everything up.' },
      { value: 'every', name: 'Every one', says: 'Spit, and drink water: caffeine adds up.' },
    ],
  },
  {
    of: 'puck',
    asks: 'The puck after the shot',
    choices: [
      { value: 'ignored', name: 'Is ignored', says: "Our default: the valve's release cracks it anyway." },
      { value: 'noted', name: 'Is looked at and noted', says: 'As a hint about prep; the engine does not count it.' },
    ],
  },
  {
    of: 'alone',
    asks: 'Whoever is not signed off for it',
    choices: [
      {
        value: 'said',
        name: 'Works, and the bench says so',
        says: 'Our default: nobody waits for a signature in a rush.',
      },
      {
        value: 'asked',
        name: 'Needs the yes of somebody who is',
        says: 'A lock and a milk station then want their PIN on the spot. The head signs people off on the team’s page.',
      },
    ],
  },
];

const nameOf = (policy: HousePolicy, key: ChoiceKey): string =>
  questions.find(({ of }) => of === key)?.choices.find(({ value }) => value === policy[key])?.name ?? '';

/** One line of a version: what was chosen where it is not our default. */
export function policyLine(policy: HousePolicy): string {
  const sure = policy.lockRule === 'sureness' ? ` of ${percent(policy.sureness)}` : '';
  const own = questions.filter(({ of, choices }) => of !== 'lockRule' && choices[0]?.value !== policy[of]);
  return [
    `${nameOf(policy, 'lockRule')}${sure}`,
    ...own.map(({ of }) => nameOf(policy, of).toLowerCase()),
    `a check at ${percent(policy.risk)} risk and after ${policy.longestCheckMin} min at the latest`,
    'all else as usual',
  ].join(', ');
}

/** What differs between two versions, question by question. */
export function policyChanges(before: HousePolicy, after: HousePolicy): string[] {
  const numbers: [keyof HousePolicy, string][] = [
    ['sureness', `sure enough at ${percent(after.sureness)}`],
    ['risk', `a check at ${percent(after.risk)} risk`],
    ['longestCheckMin', `looked at after ${after.longestCheckMin} min at the latest`],
  ];
  return [
    ...questions
      .filter(({ of }) => before[of] !== after[of])
      .map(({ of, asks }) => `${asks.replace(/\?$/, '')}: ${nameOf(after, of).toLowerCase()}`),
    ...numbers.filter(([key]) => before[key] !== after[key]).map(([, says]) => says),
  ];
}
