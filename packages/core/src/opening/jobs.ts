import type { JobKind, RunKind, StepFact, StepOf } from '../facts/index.ts';
import type { NotRight } from './notRight.ts';
import { checkScale } from './scaleCheck.ts';

/** How long a job takes, minutes: the mean and one sd of a single morning. */
export interface Minutes {
  meanMin: number;
  sdMin: number;
}

/** Where a job can hurt someone. Each has one line at its step, that a person may put away. */
export const dangers = ['scald', 'steam', 'burrs', 'detergent', 'mains', 'caffeine', 'milk'] as const;
export type Danger = (typeof dangers)[number];

/** What is known of a kind of job. */
interface JobKindFacts {
  /** Before the house has a history of its own: one pair of practised hands, nothing going wrong. Null: told by its shots. */
  usual: Minutes | null;
  /** The sharpest first. */
  dangers: readonly Danger[];
}

export const jobFacts: Record<JobKind, JobKindFacts> = {
  water: { usual: { meanMin: 1, sdMin: 0.4 }, dangers: ['mains'] },
  switchOn: { usual: { meanMin: 1, sdMin: 0.3 }, dangers: ['mains'] },
  hot: { usual: { meanMin: 1, sdMin: 0.5 }, dangers: ['mains'] },
  scale: { usual: { meanMin: 1, sdMin: 0.4 }, dangers: [] },
  hopper: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['burrs'] },
  rinse: { usual: { meanMin: 1, sdMin: 0.4 }, dangers: ['scald'] },
  firstDose: { usual: { meanMin: 1, sdMin: 0.3 }, dangers: ['burrs'] },
  dial: { usual: null, dangers: ['scald'] },
  doseTime: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['burrs'] },
  groupCheck: { usual: null, dangers: ['scald'] },
  button: { usual: { meanMin: 3, sdMin: 1 }, dangers: ['scald'] },
  taste: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['caffeine'] },
  milk: { usual: { meanMin: 3, sdMin: 1 }, dangers: ['steam', 'milk'] },
  emptyHopper: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['burrs'] },
  brushChute: { usual: { meanMin: 1.5, sdMin: 0.5 }, dangers: ['burrs'] },
  soak: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['detergent', 'scald'] },
  backFlush: { usual: { meanMin: 4, sdMin: 1 }, dangers: ['detergent', 'scald'] },
  wand: { usual: { meanMin: 2, sdMin: 0.5 }, dangers: ['steam'] },
  trays: { usual: { meanMin: 2, sdMin: 0.5 }, dangers: ['scald'] },
  switchOff: { usual: { meanMin: 0.5, sdMin: 0.2 }, dangers: ['mains'] },
  upkeep: { usual: { meanMin: 5, sdMin: 4 }, dangers: ['mains', 'burrs'] },
  tomorrow: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: [] },
  signOff: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: [] },
};

/** The steps that settle a kind of job, and what they say is not right. */
export const settlements: {
  [K in StepFact['body']['step']]?: {
    job: JobKind;
    station: (body: StepOf<K>) => string | null;
    says: (body: StepOf<K>) => NotRight | null;
  };
} = {
  water: {
    job: 'water',
    station: ({ machineId }) => machineId,
    says: ({ waterRuns, filterInDate }) => (!waterRuns ? 'noWater' : filterInDate ? null : 'filterOld'),
  },
  switchedOn: { job: 'switchOn', station: ({ machineId }) => machineId, says: () => null },
  hot: { job: 'hot', station: ({ machineId }) => machineId, says: () => null },
  scale: {
    job: 'scale',
    station: () => null,
    says: ({ knownG, shownG }) => (checkScale(knownG, shownG).trusted ? null : 'scaleOff'),
  },
  hopper: { job: 'hopper', station: ({ grinderId }) => grinderId, says: () => null },
  rinsed: { job: 'rinse', station: ({ groupId }) => groupId, says: () => null },
  firstDose: { job: 'firstDose', station: ({ grinderId }) => grinderId, says: () => null },
  doseTime: {
    job: 'doseTime',
    station: ({ grinderId }) => grinderId,
    says: ({ holds }) => (holds ? null : 'dosesScatter'),
  },
  groupChecked: {
    job: 'groupCheck',
    station: ({ groupId }) => groupId,
    says: ({ finding, foundId, groupId }) => {
      if (finding === 'unsure') return 'unsure';
      if (finding === 'grinder') return 'grinderOff';
      return finding === 'group' && foundId === groupId ? 'groupOff' : null;
    },
  },
  button: { job: 'button', station: ({ groupId }) => groupId, says: () => null },
  tasteSettled: { job: 'taste', station: ({ grinderId }) => grinderId, says: () => null },
  milk: { job: 'milk', station: () => null, says: () => null },
  hopperEmptied: { job: 'emptyHopper', station: ({ grinderId }) => grinderId, says: () => null },
  chuteBrushed: { job: 'brushChute', station: ({ grinderId }) => grinderId, says: () => null },
  soaked: { job: 'soak', station: () => null, says: () => null },
  backFlushed: {
    job: 'backFlush',
    station: ({ groupId }) => groupId,
    says: ({ detergent, rinsedClear, gasketGood }) => {
      if (detergent && !rinsedClear) return 'detergentLeft';
      return gasketGood === false ? 'gasketWorn' : null;
    },
  },
  wandCleaned: { job: 'wand', station: ({ machineId }) => machineId, says: () => null },
  traysCleaned: { job: 'trays', station: ({ machineId }) => machineId, says: () => null },
  switchedOff: { job: 'switchOff', station: ({ machineId }) => machineId, says: () => null },
  upkeepSeen: { job: 'upkeep', station: () => null, says: () => null },
  tomorrow: { job: 'tomorrow', station: () => null, says: () => null },
  signedOff: { job: 'signOff', station: () => null, says: () => null },
};

/** Who may do a job: a trainee what needs no machine, and only a head barista signs. Nobody: the bar does it by itself. */
export type Who = 'anyone' | 'trained' | 'head';

/** One thing to be done before the bar opens. */
export interface Job {
  /** Kind and station: the same on every device. */
  key: string;
  kind: JobKind;
  /** The machine, grinder or group it is done at; null for the bar as a whole. */
  stationId: string | null;
  /** The group that a grinder is dialled in on; the grinder that a group is checked with; null for the rest. */
  withId: string | null;
  who: Who;
  /** Jobs that must be over before: a gate that nobody may pass. */
  needs: string[];
  /** What it keeps busy. The scale is shared by all. */
  uses: string[];
}

/** The bar as its opening needs it. */
export interface OpeningBar {
  machines: readonly { id: string; groups: readonly { id: string; buttons: number }[] }[];
  /** Grinders with the group that each is dialled in on. */
  grinders: readonly { id: string; referenceGroupId: string }[];
  /** Whether there is a milk station. */
  milk: boolean;
  /** Whether the house weighs at all. */
  scale: boolean;
  /** Whether a dose time is proven by doses of its own once its grinder is locked. */
  provesDoses: boolean;
  /** Whether the machines stop the house's shots by volume. */
  byVolume: boolean;
  /** Whether something that is kept up falls due. */
  upkeepDue: boolean;
  /** What the last closing left out: an opening begins with it. */
  left: readonly { job: JobKind; stationId: string | null }[];
}

export const SCALE = 'scale';

export const jobKey = (kind: JobKind, stationId: string | null): string => `${kind}:${stationId ?? 'bar'}`;

const job = (kind: JobKind, stationId: string | null, who: Who, more: Partial<Job> = {}): Job => ({
  key: jobKey(kind, stationId),
  kind,
  stationId,
  withId: null,
  who,
  needs: [],
  uses: stationId === null ? [] : [stationId],
  ...more,
});

/** The jobs of a run: all of an opening's or of a closing's, or of its own grinders the dialling in and the taste. */
export function jobsOf(bar: OpeningBar, run: RunKind = 'opening', grinderIds: readonly string[] | null = null): Job[] {
  if (run === 'closing') return closingJobs(bar);
  const jobs = openingJobs(bar);
  if (run === 'opening') return jobs;
  const own = jobs.filter(
    ({ kind, stationId }) => AGAIN.has(kind) && stationId !== null && (grinderIds?.includes(stationId) ?? true),
  );
  const keys = new Set(own.map(({ key }) => key));
  const needs = (job: Job): Job => ({ ...job, needs: job.needs.filter((need) => keys.has(need)) });
  // Whoever goes over a grinder in the afternoon ends that by themselves; a bar is opened by its head.
  const last = jobs
    .filter(({ kind }) => kind === 'signOff')
    .map((job): Job => ({ ...job, who: 'trained', needs: [...keys] }));
  return [...own.map(needs), ...last];
}

/** What a grinder is asked again when its bar is hot and its chute fresh. */
const AGAIN: ReadonlySet<JobKind> = new Set<JobKind>(['dial', 'doseTime', 'taste']);

/** The jobs of an opening, in the order of the trade: water and power, hoppers, rinse, dose, dial, groups, taste, milk, sign. */
function openingJobs(bar: OpeningBar): Job[] {
  const machineOf = new Map(bar.machines.flatMap(({ id, groups }) => groups.map((group) => [group.id, id] as const)));
  const groups = bar.machines.flatMap((machine) => machine.groups);
  const referenced = new Set(bar.grinders.map(({ referenceGroupId }) => referenceGroupId));
  const others = groups.filter(({ id }) => !referenced.has(id));
  const left = leftJobs(bar, machineOf);
  const isLeft = (kind: JobKind, id: string): string[] =>
    left.map(({ key }) => key).filter((key) => key === jobKey(kind, id));
  const before: Job[] = [
    ...left,
    ...bar.machines.flatMap(({ id }) => [
      job('water', id, 'anyone'),
      job('switchOn', id, 'trained', { needs: [jobKey('water', id)] }),
      job('hot', id, 'trained', { needs: [jobKey('switchOn', id)] }),
    ]),
    ...(bar.scale ? [job('scale', null, 'anyone', { uses: [SCALE] })] : []),
    ...bar.grinders.map(({ id }) => job('hopper', id, 'anyone')),
    ...groups.map(({ id }) =>
      job('rinse', id, 'trained', {
        needs: [jobKey('hot', machineOf.get(id) ?? null), ...isLeft('backFlush', id)],
      }),
    ),
    ...bar.grinders.flatMap(({ id, referenceGroupId: withId }) => [
      job('firstDose', id, 'trained', { needs: [jobKey('hopper', id), ...isLeft('brushChute', id)] }),
      // Every dose is weighed while a grinder is dialled in: no coffee is ground only to find its dose time.
      job('dial', id, 'trained', {
        withId,
        needs: [jobKey('firstDose', id), jobKey('rinse', withId), ...(bar.scale ? [jobKey('scale', null)] : [])],
        uses: [id, withId, ...onScale(bar)],
      }),
      ...(bar.provesDoses
        ? [job('doseTime', id, 'trained', { needs: [jobKey('dial', id)], uses: [id, ...onScale(bar)] })]
        : []),
    ]),
    ...others.flatMap(({ id }) => groupCheck(bar, id, machineOf)),
    ...(bar.byVolume ? groups : [])
      .filter(({ buttons }) => buttons > 0)
      .flatMap(({ id }) => buttonJob(bar, id, referenced.has(id), machineOf)),
    ...bar.grinders.map(({ id }) => job('taste', id, 'trained', { needs: [jobKey('dial', id)], uses: [] })),
    ...(bar.milk
      ? [job('milk', null, 'trained', { needs: bar.machines.map(({ id }) => jobKey('hot', id)).slice(0, 1) })]
      : []),
    ...(bar.upkeepDue ? [job('upkeep', null, 'trained')] : []),
  ];
  return [...before, job('signOff', null, 'head', { needs: before.map(({ key }) => key) })];
}

/** What the evening left out, of what still stands: a back-flush needs its machine hot, a steam wand too. */
function leftJobs(bar: OpeningBar, machineOf: ReadonlyMap<string, string>): Job[] {
  const standing = new Set([
    ...bar.machines.flatMap(({ id, groups }) => [id, ...groups.map((group) => group.id)]),
    ...bar.grinders.map(({ id }) => id),
  ]);
  return bar.left
    .filter(({ stationId }) => stationId === null || standing.has(stationId))
    .map(({ job: kind, stationId }) => {
      const machineId = kind === 'wand' ? stationId : (machineOf.get(stationId ?? '') ?? null);
      const heats = kind === 'wand' || kind === 'backFlush';
      return job(kind, stationId, 'trained', { needs: heats ? [jobKey('hot', machineId)] : [] });
    });
}

/**
 * The jobs of a closing: beans out of their hoppers and onto the scale, chutes brushed, small parts into their bath, groups
 * back-flushed before their machine's trays, wands, power last; then what tomorrow begins with, which goes by the beans that are left.
 */
function closingJobs(bar: OpeningBar): Job[] {
  const tubs = bar.grinders.map(({ id }) => jobKey('emptyHopper', id));
  const before: Job[] = [
    ...(bar.machines.some(({ groups }) => groups.length > 0) ? [job('soak', null, 'anyone')] : []),
    ...bar.grinders.flatMap(({ id }) => [
      job('emptyHopper', id, 'anyone', { uses: [id, ...onScale(bar)] }),
      job('brushChute', id, 'trained', { needs: [jobKey('emptyHopper', id)] }),
    ]),
    ...bar.machines.flatMap(({ id, groups }) => {
      const flushed = groups.map((group) => jobKey('backFlush', group.id));
      return [
        // What soaks takes its time: it goes in before anybody bends over the groups.
        ...groups.map((group) => job('backFlush', group.id, 'trained', { needs: [jobKey('soak', null)] })),
        job('wand', id, 'anyone'),
        job('trays', id, 'anyone', { needs: flushed }),
        job('switchOff', id, 'trained', { needs: [...flushed, jobKey('wand', id)] }),
      ];
    }),
    ...(bar.upkeepDue ? [job('upkeep', null, 'trained')] : []),
    job('tomorrow', null, 'trained', { needs: tubs }),
  ];
  return [...before, job('signOff', null, 'trained', { needs: before.map(({ key }) => key) })];
}

/** The scale is shared by all, where there is one. */
const onScale = (bar: OpeningBar): string[] => (bar.scale ? [SCALE] : []);

/** The grinder to check a group with: one that was dialled in on the same machine, or else the first. */
function grinderFor(bar: OpeningBar, groupId: string, machineOf: ReadonlyMap<string, string>) {
  const near = bar.grinders.find(({ referenceGroupId }) => machineOf.get(referenceGroupId) === machineOf.get(groupId));
  return near ?? bar.grinders[0] ?? null;
}

function groupCheck(bar: OpeningBar, id: string, machineOf: ReadonlyMap<string, string>): Job[] {
  const grinder = grinderFor(bar, id, machineOf);
  if (!grinder) return [];
  const needs = [jobKey('rinse', id), jobKey('dial', grinder.id)];
  return [job('groupCheck', id, 'trained', { withId: grinder.id, needs, uses: [id, grinder.id, ...onScale(bar)] })];
}

function buttonJob(bar: OpeningBar, id: string, isReference: boolean, machineOf: ReadonlyMap<string, string>): Job[] {
  const grinder =
    bar.grinders.find(({ referenceGroupId }) => referenceGroupId === id) ?? grinderFor(bar, id, machineOf);
  if (!grinder) return [];
  const needs = [isReference ? jobKey('dial', grinder.id) : jobKey('groupCheck', id)];
  return [job('button', id, 'head', { withId: grinder.id, needs, uses: [id, grinder.id, ...onScale(bar)] })];
}
