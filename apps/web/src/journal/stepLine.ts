import type { JobKind, StepBody } from '@tempera/core/facts';
import { bars, degrees, grams, seconds } from '../kernel/format.ts';

/** What a job of the opening is called, before the name of its station. */
export const jobWord: Record<JobKind, string> = {
  water: 'Water and filter',
  switchOn: 'Switch on',
  hot: 'Read the gauges',
  scale: 'Check the scale',
  hopper: 'Fill the hopper',
  rinse: 'Rinse',
  doseTime: 'First dose and dose time',
  dial: 'Dial in',
  groupCheck: 'Check',
  button: 'Measure the volume button',
  taste: 'Taste',
  milk: 'Milk station',
  signOff: 'Sign off',
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
      return `Planned the opening for ${body.people.length} ${body.people.length === 1 ? 'person' : 'people'}${body.detergent ? ', after detergent' : ''}`;
    case 'begun':
      return `Began: ${jobWord[body.job].toLowerCase()}`;
    case 'skipped':
      return `Left out: ${jobWord[body.job].toLowerCase()}. ${body.why}`;
    case 'water':
      return `${body.waterRuns ? 'Water runs' : 'No water'}, filter ${body.filterInDate ? 'in date' : 'out of date'}`;
    case 'scale':
      return `Scale showed ${grams(body.shownG)} for ${grams(body.knownG)}`;
    case 'hopper':
      return 'The same bag goes on';
    case 'rinsed':
      return `Rinsed ${seconds(body.rinseS)}${body.screenCleaned ? ', screen cleaned' : ''}${body.detergent ? ', twice after detergent' : ''}`;
    case 'doseTime':
      return `Doses ${body.dosesG.map((doseG) => grams(doseG)).join(', ')}${body.grindTimeS === null ? '' : ` in ${seconds(body.grindTimeS)}`}: ${body.holds ? 'hold' : 'do not hold'}`;
    case 'groupChecked':
      return `Checked: ${signed(body.offS)}, ${groupWord[body.finding]}`;
    case 'mended':
      return `Mended: ${body.what}`;
    case 'button':
      return `${body.button}: ${body.yieldsG.map((yieldG) => grams(yieldG)).join(', ')} at ${body.count}, now counts ${body.nextCount}`;
    case 'tasted':
      return `Tasted: ${body.notes.length > 0 ? body.notes.join(', ') : 'no notes'}${body.tdsPct === null ? '' : `, ${body.tdsPct} % TDS`}`;
    case 'tasteSettled':
      return body.change === null ? 'Tastes as it should' : `Changed for taste: ${body.change.lever}`;
    case 'milk':
      return `Wand ${body.purged ? 'purged' : 'not purged'}${body.steamBar === null ? '' : `, steam ${bars(body.steamBar)}`}, stop at ${degrees(body.stopC, 0)}`;
    case 'signedOff':
      return body.notRight.length === 0
        ? 'Signed the bar off'
        : `Signed the bar off with ${body.notRight.length} not right`;
  }
}

const groupWord = { none: 'fine', unsure: 'not settled', group: 'the group is off', grinder: 'the grinder is off' };
