import { gaussian, seededRandom, seedFrom, type Random } from '@tempera/core/numbers';
import type { Entry, StepBody } from '@tempera/core/facts';
import { demoId, grinders, groups, machines } from './demoBar.ts';
import { stepAt, type Calendar } from './demoMornings.ts';
import { crew } from './demoStation.ts';

/** The hand-overs, closings and notes of the six weeks. */

type NewId = (atMs: number) => string;

const OPENS_MIN = 450;
const MINUTES_A_DAY = 1_440;
/** When the closing begins after the last drink, and when the early shift leaves the bar to the late one. */
const CLOSING_MIN = 1_084;
const HANDED_OVER_MIN = 776;

/** Grams that are left in each hopper at closing: a bag lasts so many days, and what a day leaves varies. */
const tubs = [
  { grinder: 'House', bagG: 2_500, lastsDays: 1, leftG: 480 },
  { grinder: 'Guest', bagG: 1_000, lastsDays: 1, leftG: 210 },
  { grinder: 'Decaf', bagG: 1_000, lastsDays: 3, leftG: 70 },
  { grinder: 'Brew', bagG: 1_000, lastsDays: 2, leftG: 90 },
];
const TUB_SHARE_SD = 0.2;

function tubG({ bagG, lastsDays, leftG }: (typeof tubs)[number], daysAgo: number, random: Random): number {
  // A bag goes in on every so manieth day before today.
  const daysIn = (lastsDays - (daysAgo % lastsDays)) % lastsDays;
  const share = 1 - (daysIn + 1) / lastsDays;
  return Math.max(0, Math.round(bagG * share + leftG * (1 + TUB_SHARE_SD * gaussian(random))));
}

/** Twice a week the groups see detergent, on other evenings water. */
const isDetergentDay = (daysAgo: number): boolean => daysAgo % 7 === 3 || daysAgo % 7 === 6;
/** Some evenings somebody runs out of time. */
const isLate = (daysAgo: number): boolean => daysAgo % 9 === 4;

/** The steps of one closing, so many minutes after midnight. */
function closing(daysAgo: number, opensById: string, random: Random): { atMin: number; body: StepBody }[] {
  const detergent = isDetergentDay(daysAgo);
  const jobs: StepBody[] = [
    { step: 'soaked' },
    ...tubs.map((tub): StepBody => {
      const grinderId = demoId(`grinder ${tub.grinder}`);
      return { step: 'hopperEmptied', grinderId, tubG: tubG(tub, daysAgo, random) };
    }),
    ...grinders.map(({ id }): StepBody => ({ step: 'chuteBrushed', grinderId: id })),
    ...groups.map(({ id }): StepBody => ({
      step: 'backFlushed',
      groupId: id,
      detergent,
      rinsedClear: true,
      screenDown: detergent,
      gasketGood: detergent ? true : null,
    })),
    ...machines.flatMap(({ row }, i): StepBody[] => [
      { step: 'wandCleaned', machineId: row.id },
      isLate(daysAgo) && i === 1
        ? { step: 'skipped', job: 'trays', stationId: row.id, why: 'No time' }
        : { step: 'traysCleaned', machineId: row.id },
      { step: 'switchedOff', machineId: row.id, to: 'off' },
    ]),
  ];
  const last = CLOSING_MIN + 2 * jobs.length;
  return [
    ...jobs.map((body, i) => ({ atMin: CLOSING_MIN + 2 + 1.6 * i, body })),
    { atMin: last, body: { step: 'tomorrow', opensAt: null, opensById, bags: [], thawed: [] } },
    {
      atMin: last + 3,
      body: { step: 'signedOff', notRight: isLate(daysAgo) ? ['Left out: the trays of Moss. No time'] : [] },
    },
  ];
}

/** Notes of the six weeks: days ago that one was pinned, and called done; null: it is open still. */
const notes: readonly { text: string; grinder: string | null; pinned: number; done: number | null }[] = [
  { text: 'Grounds clump', grinder: 'Guest', pinned: 31, done: 30 },
  { text: 'A gasket leaks, group 4', grinder: null, pinned: 22, done: 19 },
  { text: 'The collar sticks', grinder: 'Decaf', pinned: 9, done: 8 },
  { text: 'The scale by the window drifts when the door is open', grinder: null, pinned: 2, done: null },
];

/** Hand-overs, closings and notes of every day so many days back. */
export function demoEvenings(calendar: Calendar, newId: NewId, days: number): Entry[] {
  const random = seededRandom(seedFrom('demo evenings'));
  const moment = (daysAgo: number, minutes: number): number => calendar.realMs(calendar.playedMs(daysAgo, minutes));
  const personOf = (daysAgo: number): string =>
    demoId(`person ${crew[((daysAgo % crew.length) + crew.length) % crew.length] ?? 'Ines'}`);
  const steps = Array.from({ length: days }, (_, i) => days - i).flatMap((daysAgo): Entry[] => {
    const [early, late] = [personOf(daysAgo), personOf(daysAgo + 1)];
    const at = (minutes: number): number => moment(daysAgo, minutes);
    const left = stepAt(newId, at(HANDED_OVER_MIN), early, { step: 'handedOver', says: [] });
    const from = new Date(at(CLOSING_MIN)).toISOString();
    const evening = closing(daysAgo, personOf(daysAgo - 1), random).map(({ atMin, body }) =>
      stepAt(
        newId,
        at(atMin),
        late,
        body.step === 'tomorrow' ? { ...body, opensAt: new Date(at(OPENS_MIN + MINUTES_A_DAY)).toISOString() } : body,
      ),
    );
    return [
      left,
      stepAt(newId, at(HANDED_OVER_MIN + 4), late, { step: 'takenOver', handedOverId: left.id }),
      stepAt(newId, at(CLOSING_MIN), late, {
        step: 'planned',
        run: 'closing',
        opensAt: new Date(at(CLOSING_MIN + 60)).toISOString(),
        from,
        people: [{ personId: late, from }],
        detergent: false,
      }),
      ...evening,
    ];
  });
  const pinned = notes.flatMap(({ text, grinder, pinned: on, done }): Entry[] => {
    const grinderId = grinder === null ? null : demoId(`grinder ${grinder}`);
    const note = stepAt(newId, moment(on, 640), personOf(on), { step: 'note', text, grinderId, coffeeId: null });
    if (done === null) return [note];
    return [note, stepAt(newId, moment(done, 700), personOf(done), { step: 'noteDone', noteId: note.id })];
  });
  const filter = stepAt(newId, moment(FILTER_DAYS_AGO, 1_120), personOf(FILTER_DAYS_AGO), {
    step: 'upkept',
    what: 'filter',
    stationId: demoId('machine Fern'),
    by: '',
  });
  return [...steps, ...pinned, filter];
}

const FILTER_DAYS_AGO = 33;
