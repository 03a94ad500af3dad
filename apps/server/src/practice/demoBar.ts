import { MINUTES_PER_HOUR } from '@tempera/core/numbers';
import type { Skill } from '@tempera/contract/signOffs';
import { v5 as uuidFromName } from 'uuid';
import type { GrinderRow } from '../bar/index.ts';
import type { PersonRow } from '../team/index.ts';

/** The made-up café that ships with Tempera: a bar in the glasshouse of a botanical garden. */

const NAMESPACE = '7c0e6f5a-53d1-4c1f-9d52-1f6a3f0b8e21';
export const demoId = (name: string): string => uuidFromName(name, NAMESPACE);

const demoSiteId = demoId('site');

/** The one grinder that is not of its kind: whoever works it alone was shown it. */
const brewGrinder: Skill = `grinder:${demoId('grinder Brew')}`;

/** Days ago that somebody was signed off, and in how many days it lapses; a negative one has lapsed. */
type SignedOff = { skill: Skill; daysAgo: number; lapsesInDays: number | null };

export const people: { name: string; role: PersonRow['role']; pin: string; signedOff?: SignedOff[] }[] = [
  { name: 'Ines', role: 'head', pin: '2468' },
  {
    name: 'Tobin',
    role: 'barista',
    pin: '1357',
    signedOff: (['dose', 'dial', 'milk', 'opening', 'closing', brewGrinder] as const).map((skill) => ({
      skill,
      daysAgo: 400,
      lapsesInDays: null,
    })),
  },
  {
    name: 'Noor',
    role: 'barista',
    pin: '8642',
    signedOff: [
      ...(['dose', 'dial', 'milk', 'opening', brewGrinder] as const).map((skill) => ({
        skill,
        daysAgo: 160,
        lapsesInDays: 205,
      })),
      { skill: 'closing', daysAgo: 370, lapsesInDays: -5 },
    ],
  },
  { name: 'Pell', role: 'trainee', pin: '7531', signedOff: [{ skill: 'milk', daysAgo: 12, lapsesInDays: 78 }] },
];

/** Names and PINs, as the demo prints them. */
export const demoSignIns = people.map(({ name, pin }) => ({ name, pin }));

/** PINs by person id; shown by the demo only. */
export const demoPins: Record<string, string> = Object.fromEntries(
  people.map(({ name, pin }) => [demoId(`person ${name}`), pin]),
);

/** Since closing the screen of this group is clogged; nobody knows it yet. */
export const demoClogged: string[] = [demoId('group 3')];

export const site = {
  id: demoSiteId,
  name: 'Quillwort Glasshouse',
  timeZone: 'Europe/Lisbon',
  dayStartsMin: 4 * MINUTES_PER_HOUR,
  opensMin: 7.5 * MINUTES_PER_HOUR,
  closesMin: 18 * MINUTES_PER_HOUR,
  altitudeM: 60,
  currency: 'EUR',
  roomWidthCm: 420,
  roomDepthCm: 200,
  planRevision: 1,
};

/** What a sheet carries that nobody has changed yet. */
export const kept = { siteId: demoSiteId, revision: 1, retired: false, changedBy: null, changedAt: null };

export const baskets = [
  {
    ...kept,
    id: demoId('basket 18'),
    name: 'Double 18',
    minG: 16.5,
    maxG: 19,
    wall: 'single' as const,
    levelG: 17.6,
    fillStepG: 0.7,
  },
  {
    ...kept,
    id: demoId('basket 20'),
    name: 'Deep 20',
    minG: 18.5,
    maxG: 21.5,
    wall: 'single' as const,
    levelG: null,
    fillStepG: null,
  },
  {
    ...kept,
    id: demoId('basket 9'),
    name: 'Single 9',
    minG: 7.5,
    maxG: 10,
    wall: 'single' as const,
    levelG: null,
    fillStepG: null,
  },
];

const grinder = (
  name: string,
  coffeeName: string,
  more: Pick<GrinderRow, 'xCm' | 'yCm' | 'stepMarks' | 'finer' | 'dialMin' | 'dialMax' | 'seedSetting' | 'rateGps'> &
    Partial<GrinderRow>,
): GrinderRow => ({
  ...kept,
  id: demoId(`grinder ${name}`),
  name,
  firstCoffeeId: demoId(`coffee ${coffeeName}`),
  widthCm: 24,
  depthCm: 40,
  stepped: true,
  secondsPerMark: null,
  retentionG: null,
  readsDial: true,
  unlocksFirst: false,
  doser: 'direct',
  doseSingleS: null,
  doseDoubleS: null,
  burrKg: null,
  burrsOn: null,
  burrLifeKg: null,
  ...more,
});

export const grinders: GrinderRow[] = [
  grinder('House', 'Canopy blend', {
    xCm: 26,
    yCm: 14,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 60,
    seedSetting: 30,
    secondsPerMark: 2.5,
    rateGps: 2.1,
    doseSingleS: 4.4,
    doseDoubleS: 8.8,
    burrKg: 180,
  }),
  grinder('Guest', 'Lantern Moss', {
    xCm: 98,
    yCm: 14,
    stepped: false,
    stepMarks: 0.1,
    finer: 'down',
    dialMin: 0,
    dialMax: 12,
    seedSetting: 5,
    secondsPerMark: 14,
    retentionG: 3,
    rateGps: 2.4,
    doseDoubleS: 7.6,
    burrKg: 65,
  }),
  grinder('Decaf', 'Dusk decaf', {
    xCm: 190,
    yCm: 146,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 40,
    seedSetting: 18,
    secondsPerMark: 3,
    rateGps: 1.8,
    doseDoubleS: 10.2,
    burrKg: 410,
  }),
  grinder('Brew', 'Rill, brewed', {
    xCm: 264,
    yCm: 146,
    stepMarks: 1,
    finer: 'up',
    dialMin: 1,
    dialMax: 30,
    seedSetting: 12,
    secondsPerMark: 6,
    retentionG: 5,
    rateGps: 2.6,
    burrKg: 240,
  }),
];

const gauges = [
  { name: 'Steam', unit: 'bar' as const, min: 1, max: 1.5 },
  { name: 'Brew, in a shot', unit: 'bar' as const, min: 8, max: 9.5 },
];
const machine = {
  ...kept,
  gauges,
  setsPressure: false,
  lever: false,
  yCm: 4,
  depthCm: 52,
};

/** Machines, each with the names of its groups. */
export const machines = [
  {
    groups: ['1', '2', '3'],
    row: {
      ...machine,
      id: demoId('machine Fern'),
      name: 'Fern',
      boiler: 'brewAndSteam' as const,
      warmUpMin: 25,
      setsTemp: true,
      xCm: 158,
      widthCm: 126,
    },
  },
  {
    groups: ['4', '5'],
    row: {
      ...machine,
      id: demoId('machine Moss'),
      name: 'Moss',
      boiler: 'exchanger' as const,
      warmUpMin: 20,
      setsTemp: false,
      xCm: 52,
      yCm: 144,
      widthCm: 88,
    },
  },
];

export const groups = machines.flatMap(({ row, groups: names }) =>
  names.map((name, i) => ({
    ...kept,
    id: demoId(`group ${name}`),
    machineId: row.id,
    name: `Group ${name}`,
    position: i + 1,
    buttons: [
      { name: 'Single', counts: 92 },
      { name: 'Double', counts: 176 + 2 * i },
    ],
    basketId: demoId(name === '5' ? 'basket 20' : 'basket 18'),
    cleanedOn: null,
  })),
);

export const counters = [
  {
    ...kept,
    id: demoId('counter long'),
    name: 'Long counter',
    faces: 'down' as const,
    xCm: 0,
    yCm: 0,
    widthCm: 420,
    depthCm: 60,
  },
  {
    ...kept,
    id: demoId('counter short'),
    name: 'Short counter',
    faces: 'up' as const,
    xCm: 30,
    yCm: 140,
    widthCm: 290,
    depthCm: 60,
  },
];

export const fixtures = [
  { kind: 'knockBox' as const, name: 'Knock box', xCm: 298, yCm: 30, widthCm: 18, depthCm: 26 },
  { kind: 'scale' as const, name: 'Scale', xCm: 328, yCm: 36, widthCm: 18, depthCm: 18 },
  { kind: 'scale' as const, name: 'Small scale', xCm: 232, yCm: 152, widthCm: 16, depthCm: 16 },
  { kind: 'milk' as const, name: 'Milk', xCm: 358, yCm: 14, widthCm: 50, depthCm: 40 },
].map((fixture) => ({ ...kept, id: demoId(fixture.name), ...fixture }));
