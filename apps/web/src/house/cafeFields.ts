import type { Field } from '../forms/index.ts';

const zones = (): { value: string; label: string }[] =>
  ['UTC', ...Intl.supportedValuesOf('timeZone')].map((zone) => ({ value: zone, label: zone.replaceAll('_', ' ') }));

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
];
