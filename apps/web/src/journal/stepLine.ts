import type { Happening, JobKind, RunKind, StepBody, StepOf } from '@tempera/core/facts';
import { upkeepWord } from '../bar/index.ts';
import { bars, degrees, grams, seconds } from '../kernel/format.ts';

/** What a job of the opening is called, before the name of its station, and why it is done, for whoever does it the first time. */
export const jobWords: Record<JobKind, { name: string; why: string }> = {
  water: {
    name: 'Water and filter',
    why: 'A machine that draws no water burns its heater; an old filter scales the boiler.',
  },
  switchOn: {
    name: 'Switch on',
    why: 'From the switch it takes its time; everything else hangs on it.',
  },
  hot: {
    name: 'Read the gauges',
    why: 'It is hot when the gauges say so, not when the minutes are over.',
  },
  scale: {
    name: 'Check the scale',
    why: 'Every number of the morning comes from the scale: put a known weight on it.',
  },
  hopper: {
    name: 'Fill the hopper',
    why: 'Another bag is another bed, and its age tells what to expect.',
  },
  rinse: {
    name: 'Rinse',
    why: 'Clears what stood overnight, brings the group to brew heat, and shows a clogged screen.',
  },
  firstDose: {
    name: 'Throw the first dose away',
    why: 'It sat in the chute all night, stale and damp.',
  },
  dial: {
    name: 'Dial in',
    why: 'Until its mean lies in the window as surely as the house asks. Every dose you weigh finds the grind time too.',
  },
  doseTime: {
    name: 'Prove the dose time',
    why: 'The mean of three doses, ground by the time that was set at the lock.',
  },
  groupCheck: {
    name: 'Check',
    why: 'Same coffee, same grinder, another group: what differs is the group.',
  },
  button: {
    name: 'Measure the volume button',
    why: 'The mean of what it gives tells the next count.',
  },
  taste: {
    name: 'Taste',
    why: 'The numbers fit; the tongue decides.',
  },
  milk: {
    name: 'Milk station',
    why: 'A wand that is not purged steams yesterday’s milk; a thermometer that lies scalds it.',
  },
  emptyHopper: {
    name: 'Empty the hopper',
    why: 'Beans keep in a closed tub, not in a hopper overnight; what the tub weighs is the stock.',
  },
  brushChute: {
    name: 'Brush the chute',
    why: 'Grounds that lie there overnight are in tomorrow’s first doses.',
  },
  soak: {
    name: 'Soak baskets and spouts',
    why: 'Oils that dry on are tasted tomorrow; they need their time in the bath, so this comes first.',
  },
  backFlush: {
    name: 'Back-flush',
    why: 'Oils and grounds behind the screen; a gasket that hardens leaks before it is seen.',
  },
  wand: {
    name: 'Clean the wand',
    why: 'Milk that dries in the tip blocks it and sours.',
  },
  trays: {
    name: 'Empty the trays',
    why: 'After the groups are flushed, or they are full again.',
  },
  switchOff: {
    name: 'Switch off',
    why: 'Last of all: the groups are flushed hot.',
  },
  upkeep: {
    name: 'See to what falls due',
    why: 'Filters, gaskets, screens and burrs wear by the calendar or by what goes through.',
  },
  tomorrow: {
    name: 'Set the next day',
    why: 'A frozen bag needs the night; whoever opens finds what to begin with.',
  },
  signOff: {
    name: 'Sign off',
    why: 'One page for all stations, and your name under it.',
  },
};

const signed = (offS: number): string => `${offS >= 0 ? '+' : '−'}${Math.abs(offS).toFixed(1)} s`;

/** What a step of the bar's own says, in one line. */
export function stepLine(body: StepBody): string {
  switch (body.step) {
    case 'switchedOn':
      return 'Switched on';
    case 'hot': {
      const read = body.readings.map(({ gauge, value }) => `${gauge} ${value}`).join(', ');
      return read === '' ? 'Hot' : `Hot: ${read}`;
    }
    case 'takenBack':
      return 'Took the last step back';
    case 'planned':
      return `Planned ${runName[body.run ?? 'opening']} for ${body.people.length} ${body.people.length === 1 ? 'person' : 'people'}${body.detergent ? ', after detergent' : ''}`;
    case 'begun':
      return `Began: ${jobWords[body.job].name.toLowerCase()}`;
    case 'skipped':
      return `Left out: ${jobWords[body.job].name.toLowerCase()}. ${body.why}`;
    case 'water':
      return `${body.waterRuns ? 'Water runs' : 'No water'}, filter ${body.filterInDate ? 'in date' : 'out of date'}`;
    case 'scale':
      return `Scale showed ${grams(body.shownG)} for ${grams(body.knownG)}`;
    case 'hopper':
      return 'The same bag goes on';
    case 'rinsed':
      return `${body.rinseS === null ? 'Rinsed, nobody counted' : `Rinsed ${seconds(body.rinseS)}`}${body.screenCleaned ? ', screen cleaned' : ''}${body.detergent ? ', twice after detergent' : ''}`;
    case 'firstDose':
      return 'The first dose is thrown away';
    case 'doseTime':
      return `Doses ${body.dosesG.map((doseG) => grams(doseG)).join(', ')}${body.grindTimeS === null ? '' : ` in ${seconds(body.grindTimeS)}`}: ${body.holds ? 'hold' : 'do not hold'}`;
    case 'groupChecked':
      return `Checked: ${signed(body.offS)}, ${groupWord[body.finding]}`;
    case 'mended':
      return `Mended: ${body.what}`;
    case 'button':
      return `${body.button}: ${body.yieldsG.map((yieldG) => grams(yieldG)).join(', ')} at ${body.count}, now counts ${body.nextCount}`;
    case 'tasted':
      return `Tasted: ${tastedWord(body)}`;
    case 'tasteSettled':
      return body.change === null ? 'Tastes as it should' : `Changed for taste: ${changeDone(body.change)}`;
    case 'aimKept':
      return `Kept for another day: ${body.changes.map(changeDone).join(', ')}`;
    case 'trialBegan':
      return `Began to look for a recipe by tasting, from ${trialCup(body.start)}`;
    case 'trialTasted':
      return `Tasted side by side: ${trialCup(body.left)} and ${trialCup(body.right)}, ${trialBetter[body.better]}`;
    case 'happened':
      return happeningWord[body.what];
    case 'air':
      return `The air: ${degrees(body.tempC)}, ${Math.round(body.humidityPct)} % damp`;
    case 'doseSet':
      return `Set to ${grams(body.doseG)}${body.grindTimeS === null ? '' : ` in ${seconds(body.grindTimeS)}`} from now on`;
    case 'note':
      return `Note: ${body.text}`;
    case 'noteDone':
      return 'Called a note done';
    case 'handedOver':
      return 'Left the bar to the next one';
    case 'takenOver':
      return 'Took the bar over';
    case 'putOff':
      return `Put the look off by ${body.minutes} min`;
    case 'milk':
      return `Wand ${body.purged ? 'purged' : 'not purged'}${body.steamBar === null ? '' : `, steam ${bars(body.steamBar)}`}, ${body.stopC === null ? 'by the hand’s heat' : `stop at ${degrees(body.stopC, 0)}`}`;
    case 'hopperEmptied':
      return body.tubG === null ? 'Emptied into a tub, not weighed' : `Emptied into a tub: ${grams(body.tubG)}`;
    case 'chuteBrushed':
      return 'Chute brushed';
    case 'backFlushed':
      return `Back-flushed ${body.detergent ? `with detergent, ${body.rinsedClear ? 'rinsed clear' : 'not rinsed clear'}` : 'with water'}${body.screenDown ? ', screen taken down' : ''}${body.gasketGood === null ? '' : body.gasketGood ? ', gasket good' : ', gasket worn'}`;
    case 'soaked':
      return 'Baskets and spouts lie in their bath';
    case 'wandCleaned':
      return 'Wand soaked, wiped and blown';
    case 'traysCleaned':
      return 'Trays emptied and cleaned';
    case 'switchedOff':
      return body.to === 'off' ? 'Switched off' : 'On standby';
    case 'upkept':
      return `${upkeepWord[body.what].done}${body.by === '' ? '' : `, by ${body.by}`}`;
    case 'upkeepSeen':
      return body.left.length === 0 ? 'Went through what falls due' : `Left for another day: ${body.left.join('; ')}`;
    case 'tomorrow':
      return `Set the next day${body.thawed.length === 0 ? '' : `, ${body.thawed.length} out of the freezer`}`;
    case 'thawed':
      return 'A bag left the freezer';
    case 'signedOff':
      return body.notRight.length === 0
        ? 'Signed the bar off'
        : `Signed the bar off with ${body.notRight.length} not right`;
  }
}

/** A run inside a sentence. */
export const runName: Record<RunKind, string> = {
  opening: 'the opening',
  afternoon: 'the afternoon',
  station: 'this station',
  closing: 'the closing',
};

/** What happened in service, as the journal and its own button say it. */
export const happeningWord: Record<Happening, string> = {
  refill: 'Hopper topped up',
  cleaned: 'Cleaned',
  otherHands: 'Somebody else doses here',
  chamberFilled: 'Chamber filled',
  chamberEmptied: 'Chamber used up',
  doors: 'Doors open',
  ovens: 'Ovens on',
  rushBegan: 'The rush begins',
  rushEnded: 'The rush is over',
};

const groupWord = { none: 'fine', unsure: 'not settled', group: 'the group is off', grinder: 'the grinder is off' };

const trialCup = ({ doseG, ratio, timeS }: StepOf<'trialTasted'>['left']): string =>
  `${grams(doseG * ratio)} in ${seconds(timeS)}`;
const trialBetter: Record<StepOf<'trialTasted'>['better'], string> = {
  leftMuch: 'the first clearly better',
  left: 'the first a little better',
  same: 'the same',
  right: 'the second a little better',
  rightMuch: 'the second clearly better',
};

/** Scores of 0 to 10 where somebody gave them, then the notes. */
function tastedWord({ sourBitter, weakStrong, body, sweetness, notes, tdsPct, ...sheet }: StepOf<'tasted'>): string {
  const scores = [
    ['acidity', sheet.acidity ?? null],
    ['bitterness', sheet.bitterness ?? null],
    ['strength', sheet.strength ?? null],
    ['finish', sheet.finish ?? null],
    ['sour to bitter', sourBitter],
    ['weak to strong', weakStrong],
    ['body', body],
    ['sweetness', sweetness],
  ] as const;
  const said = [
    ...scores.flatMap(([axis, score]) => (score === null ? [] : [`${axis} ${score}`])),
    ...(sheet.than ? [sheet.than === 'same' ? 'the same as the last' : `${sheet.than} than the last`] : []),
    ...(sheet.inMilk ? ['in milk'] : []),
    ...notes,
    ...(tdsPct === null ? [] : [`${tdsPct} % TDS`]),
  ];
  return said.length === 0 ? 'nothing noted' : said.join(', ');
}

const PERCENT = 100;
const more = (by: number): string => (by > 0 ? 'more' : 'less');
type TasteChange = NonNullable<StepOf<'tasteSettled'>['change']>;
const changeWord: Record<TasteChange['lever'], (by: number) => string> = {
  yield: (by) => `${Math.abs(Math.round(by * PERCENT))} % ${more(by)} in the cup`,
  grind: (by) => `${Math.abs(by)} ${Math.abs(by) === 1 ? 'mark' : 'marks'} ${by > 0 ? 'finer' : 'coarser'}`,
  dose: (by) => `${grams(Math.abs(by))} ${more(by)} coffee`,
  temperature: (by) => `the water ${by > 0 ? 'hotter' : 'cooler'}`,
  window: (by) => `the window ${Math.abs(by)} s ${by > 0 ? 'later' : 'earlier'}`,
};

/** What was changed for taste, by how much: it holds whatever the aim has become since. */
export const changeDone = ({ lever, by }: TasteChange): string => changeWord[lever](by);
