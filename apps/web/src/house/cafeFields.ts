import { weekdays } from '@tempera/core/house';
import type { Field } from '../forms/index.ts';

const zones = (): { value: string; label: string }[] =>
  ['UTC', ...Intl.supportedValuesOf('timeZone')].map((zone) => ({ value: zone, label: zone.replaceAll('_', ' ') }));

const named = (weekday: string): string => `${weekday.charAt(0).toUpperCase()}${weekday.slice(1)}`;
const weekdayOptions = weekdays.map((value) => ({ value, label: named(value) }));
const hours = (opens: string, closes: string): readonly Field[] => [
  { type: 'yes', name: 'closed', label: 'Closed' },
  { type: 'time', name: 'opensMin', label: opens },
  { type: 'time', name: 'closesMin', label: closes },
];

/** When the house is open beside its usual hours, and who is in. */
export const calendarFields = (people: readonly { value: string; label: string }[]): readonly Field[] => [
  {
    type: 'list',
    name: 'week',
    part: 'The week',
    label: 'Weekdays that differ from the usual hours',
    one: 'weekday',
    wide: true,
    blank: { weekday: 'sunday', closed: false, opensMin: '09:00', closesMin: '16:00' },
    of: [{ type: 'choice', name: 'weekday', label: 'On', options: weekdayOptions }, ...hours('Opens at', 'Closes at')],
  },
  {
    type: 'list',
    name: 'exceptions',
    label: 'Holidays, and days of other hours',
    one: 'holiday',
    wide: true,
    blank: { from: '', until: '', closed: true, opensMin: '00:00', closesMin: '00:00', why: '' },
    of: [
      { type: 'day', name: 'from', label: 'From' },
      { type: 'day', name: 'until', label: 'To the end of', optional: true },
      ...hours('Opens at', 'Closes at'),
      { type: 'text', name: 'why', label: 'Why' },
    ],
  },
  {
    type: 'list',
    name: 'shifts',
    label: 'Shifts, every week',
    one: 'shift',
    wide: true,
    blank: { name: '', weekday: '', fromMin: '07:00', toMin: '13:00', personId: '' },
    of: [
      { type: 'text', name: 'name', label: 'Called' },
      { type: 'choice', name: 'weekday', label: 'On', none: 'every open day', options: weekdayOptions },
      { type: 'time', name: 'fromMin', label: 'From' },
      { type: 'time', name: 'toMin', label: 'To' },
      { type: 'choice', name: 'personId', label: 'Who', none: 'whoever is in', options: people },
    ],
  },
];

/** What a café says of itself, when it begins and ever after. */
export const cafeFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name of the café' },
  { type: 'choice', name: 'timeZone', label: 'Time zone', options: zones() },
  { type: 'time', name: 'opensMin', label: 'Opens at' },
  { type: 'time', name: 'closesMin', label: 'Closes at' },
  {
    type: 'time',
    name: 'dayStartsMin',
    label: 'Business day begins at',
    says: 'What happens before it still counts to the evening before.',
  },
  {
    type: 'number',
    name: 'altitudeM',
    label: 'Height above the sea',
    unit: 'm',
    step: 10,
    says: 'Water boils sooner high up.',
  },
  { type: 'text', name: 'currency', label: 'Currency', says: 'Three letters, like EUR.' },
  {
    type: 'choice',
    name: 'unitSchool',
    label: 'Units on the wall card',
    says: 'Each person reads the rest as they like; newcomers begin with these.',
    options: [
      { value: 'metric', label: 'g, ml, °C' },
      { value: 'customary', label: 'oz, fl oz, °F' },
    ],
  },
];
