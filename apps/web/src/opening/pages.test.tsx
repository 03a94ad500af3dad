import type { StepFact } from '@tempera/core/facts';
import { act, screen, waitFor, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import type { Outbox } from '../kernel/outbox.ts';
import { waitingOutbox } from '../kernel/testOutbox.ts';
import { renderPart } from '../ui/testRender.tsx';
import { OpeningPage } from './OpeningPage.tsx';
import type { PlanFound } from './planJob.ts';
import { ReadyLine } from './ReadyLine.tsx';
import { SignOffPage } from './SignOffPage.tsx';
import type { MorningView } from './useMorning.ts';
import { answers, eachOnItsOwn, isDisabled, now, people, press, session, stepOf, viewOf } from './testView.ts';
import { TimelinePage } from './TimelinePage.tsx';

eachOnItsOwn();
afterEach(() => void vi.useRealTimers());

const planned = stepOf(
  {
    step: 'planned',
    opensAt: new Date(now + 5_400_000).toISOString(),
    from: new Date(now).toISOString(),
    detergent: false,
    people: ['ines', 'noor'].map((personId) => ({ personId, from: new Date(now).toISOString() })),
  },
  0,
);

/** The café as the server would answer it. */
function theCafe(steps: StepFact[]): void {
  const { bar, people } = viewOf();
  const place = { xCm: 200, yCm: 0, widthCm: 30, depthCm: 30 };
  const fixtures = ['milk', 'scale'].map((kind) => ({ id: kind, kind, name: kind, place }));
  answers['/bar'] = { ...bar, fixtures, facts: [], steps, waiting: [] };
  answers['/coffee/stock'] = { coffees: [], bags: [] };
  answers['/welcome'] = { sites: [{ id: 's', name: 'Shed', enrolled: true, people }], demo: null };
  answers['/bar/learned'] = {
    machines: [{ id: 'fern', warmUpMin: 25, sdMin: 2 }],
    drips: [],
    groups: [],
    grinders: [],
  };
  answers['/opening/history'] = { minutes: {} };
  answers['/session'] = session;
}

/** Renders a page, and waits until the café is there. */
async function open(page: ReactNode, heading: string | RegExp, at?: string): Promise<Outbox> {
  vi.useFakeTimers({ now, toFake: ['Date'] });
  const outbox = waitingOutbox();
  renderPart(<OutboxContext value={outbox}>{page}</OutboxContext>, at);
  await screen.findByRole('heading', { level: 1, name: heading });
  return outbox;
}
const barista = { ...session, person: { id: 'noor', name: 'Noor', role: 'barista' as const } };
const bodies = (outbox: Outbox): unknown[] => outbox.entries().map(({ fact }) => fact.body);

describe('the run', () => {
  it('asks to begin where no opening is planned', async () => {
    theCafe([]);
    await open(<OpeningPage session={session} />, 'Opening');
    expect(screen.getByRole('button', { name: 'Begin the opening' })).toBeTruthy();
  });

  it('begins the run that the way here names, beside an opening that nobody signed for', async () => {
    theCafe([planned]);
    const outbox = await open(<OpeningPage session={session} />, 'Opening', '/opening?run=closing');
    press('Begin the closing');
    expect(bodies(outbox)).toContainEqual(expect.objectContaining({ step: 'planned', run: 'closing' }));
    // Once it is in hand the page is its page.
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Begin the closing' })).toBeNull());
    // Whoever works by keyboard goes on at its first step.
    expect(document.activeElement).toBe(screen.getByRole('region', { name: 'Your next thing' }));
  });

  it('begins another of a kind that was signed for, where the way here names it', async () => {
    theCafe([planned, stepOf({ step: 'signedOff', notRight: [] }, 1)]);
    await open(<OpeningPage session={session} />, 'Opening', '/opening?run=opening');
    expect(screen.getByRole('button', { name: 'Begin the opening' })).toBeTruthy();
  });

  it('once signed for says by whom, and no longer when it would be ready or what comes then', async () => {
    theCafe([planned, stepOf({ step: 'signedOff', notRight: [] }, 1)]);
    await open(<OpeningPage session={session} />, 'Signed off: the bar is open');
    expect(screen.getByText(/^Signed by Ines, today/)).toBeTruthy();
    expect(screen.queryByText(/sure by/)).toBeNull();
    expect(screen.queryByRole('region', { name: 'Then' })).toBeNull();
    expect(screen.queryByRole('region', { name: 'The others' })).toBeNull();
  });

  it('says what cannot be read, and tries again', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('offline')));
    renderPart(
      <OutboxContext value={waitingOutbox()}>
        <OpeningPage session={session} />
      </OutboxContext>,
    );
    expect(await screen.findByRole('button', { name: /again/ })).toBeTruthy();
  });

  it('gives each the next thing in large type with why, where, and the two after it', async () => {
    theCafe([planned]);
    await open(<OpeningPage session={session} />, 'Fill House with Trowel blend');
    const mine = screen.getByRole('region', { name: 'Your next thing' });
    expect(within(mine).getByText(/Nobody wrote down which bag/)).toBeTruthy();
    expect(screen.getByRole('img', { name: 'Where it is: House' })).toBeTruthy();
    expect(within(screen.getByRole('region', { name: 'Then' })).getAllByRole('listitem')).toHaveLength(2);
    expect(screen.getByText(/Noor: /)).toBeTruthy();
  });

  it('goes on to the next with what was written and not yet sent', async () => {
    theCafe([planned]);
    const outbox = await open(<OpeningPage session={session} />, 'Fill House with Trowel blend');
    press('Do: Water and filter of Fern');
    await screen.findByRole('heading', { level: 1, name: 'Water and filter of Fern' });
    for (const box of screen.getAllByRole('checkbox')) act(() => box.click());
    press('Water is right');
    expect(await screen.findByText(/^Water and filter of Fern/, { selector: 'li span' })).toBeTruthy();
    expect(await screen.findByRole('heading', { level: 1, name: 'Fill House with Trowel blend' })).toBeTruthy();
    expect(bodies(outbox)).toContainEqual({ step: 'water', machineId: 'fern', waterRuns: true, filterInDate: true });
  });

  it('leaves a job out with a reason, and takes that back', async () => {
    theCafe([planned]);
    const outbox = await open(<OpeningPage session={session} />, 'Fill House with Trowel blend');
    press('Do: Check the scale');
    press('Leave it out');
    press('Not in use today');
    const left = await screen.findByRole('button', { name: 'Take back: Check the scale' });
    expect(bodies(outbox)).toContainEqual({ step: 'skipped', job: 'scale', stationId: null, why: 'Not in use today' });
    act(() => left.click());
    await screen.findByRole('button', { name: 'Do: Check the scale' });
  });
});

describe('the plan', () => {
  it('is empty where nothing is planned', async () => {
    theCafe([]);
    await open(<TimelinePage session={session} />, 'The plan of the morning');
    expect(screen.getByText(/No opening is planned/)).toBeTruthy();
  });

  it('is drawn by person and by station, with when to switch on at the latest and how far it is proven', async () => {
    theCafe([planned]);
    await open(<TimelinePage session={session} />, 'The plan of the morning');
    const people = screen.getByRole('region', { name: 'People' });
    expect(within(people).getByText('Ines')).toBeTruthy();
    expect(within(people).getByText('Noor')).toBeTruthy();
    const stations = screen.getByRole('region', { name: 'Stations' });
    expect(within(stations).getAllByTitle(/^Dial in House on Group 1, \d\d:\d\d to \d\d:\d\d$/)).toHaveLength(2);
    expect(screen.getByText(/Switch on by \d\d:\d\d at the latest/)).toBeTruthy();
    expect(screen.getByText(/Nobody could plan it shorter|The best plan so far/)).toBeTruthy();
    expect(screen.getByText(/^Ready about \d\d:\d\d; .* sure by 07:30$/)).toBeTruthy();
  });
});

describe('what changed the plan', () => {
  const found = (key: string, endMin: number, jobs: PlanFound['seen']['jobs'] = viewOf().states): PlanFound => ({
    key,
    fromMs: now,
    seen: { endAtMs: now + endMin * 60_000, opensAtMs: now + 5_400_000, people: ['ines'], jobs },
    nowMs: now,
    plan: { tasks: [{ key: 'milk', startMin: 0, endMin, personId: 'ines' }], endMin, atLeastMin: endMin, gap: 0 },
    ready: { chance: 0.93, midMin: endMin, lowMin: endMin - 2, highMin: endMin + 4 },
    latestSwitchOnMin: null,
    switchesLeft: false,
    withoutHands: [],
    tookMs: 1,
  });

  it('is said once it did, with how many minutes later or sooner, and who is missing', () => {
    const before = viewOf({ plan: found('a', 30) });
    const { rerender } = renderPart(<ReadyLine view={before} session={session} />);
    expect(screen.getByText('Ready about 06:30; 93 % sure by 07:30')).toBeTruthy();
    expect(screen.queryByText(/Planned anew/)).toBeNull();
    const noWater = stepOf({ step: 'water', machineId: 'fern', waterRuns: false, filterInDate: true }, 2);
    const { states } = viewOf({ steps: [noWater] });
    const slower = viewOf({ plan: found('b', 33, states), steps: [noWater] });
    rerender(<ReadyLine view={slower} session={session} />);
    // Three minutes are nobody's news; told of together with what comes on top.
    expect(screen.queryByText(/Planned anew/)).toBeNull();
    const after = viewOf({ plan: { ...found('c', 38, states), withoutHands: ['signOff:bar'] }, steps: [noWater] });
    rerender(<ReadyLine view={after} session={session} />);
    expect(screen.getByText(/^Planned anew, 8 min later: not right: Water and filter of Fern\.$/)).toBeTruthy();
    expect(screen.getByText(/^Nobody is in for: Sign off/)).toBeTruthy();

    // In are a barista who is not signed off for it, and nobody else: that is said, and the jobs are counted.
    const alone: MorningView = {
      ...after,
      plan: { ...found('d', 38, states), withoutHands: states.map(({ job }) => job.key) },
      people: people.map((one) => ({ ...one, signedOff: one.role === 'head' })),
      morning: { ...after.morning, people: [{ personId: 'noor', fromMs: now }] },
    };
    rerender(<ReadyLine view={alone} session={session} />);
    const told = screen.getByText(/^Nobody is in for: /).textContent;
    expect(told).toMatch(new RegExp(`and ${states.length - 2} more\\. Noor is not signed off for the opening\\.`));
  });
});

describe('the page to sign', () => {
  it('says that there is nothing to sign', async () => {
    theCafe([]);
    await open(<SignOffPage session={session} />, 'Sign-off');
    expect(await screen.findByText(/nothing to sign/)).toBeTruthy();
  });

  it('says plainly what is not right, and keeps it with the signature', async () => {
    const noWater = stepOf({ step: 'water', machineId: 'fern', waterRuns: false, filterInDate: true }, 2);
    const left = stepOf({ step: 'skipped', job: 'milk', stationId: null, why: 'No time' }, 3);
    theCafe([planned, noWater, left]);
    const outbox = await open(<SignOffPage session={session} />, 'Sign-off');
    const wrong = await screen.findByRole('region', { name: 'What is not right' });
    expect(within(wrong).getByText(/^Fern gets no water/)).toBeTruthy();
    expect(within(wrong).getByText('Left out: Milk station. No time')).toBeTruthy();
    expect(within(wrong).getByText(/^Not done: Switch Fern on; /)).toBeTruthy();
    expect(within(screen.getByRole('region', { name: 'House' })).getByText(/Not dialled in yet/)).toBeTruthy();
    press('Sign it off as it stands');
    await screen.findByText(/^Signed by Ines/);
    const signed = bodies(outbox).at(-1) as { step: string; notRight: string[] };
    expect(signed.step).toBe('signedOff');
    expect(signed.notRight).toHaveLength(3);
  });

  it('is signed by a head barista only', async () => {
    theCafe([planned]);
    await open(<SignOffPage session={barista} />, 'Sign-off');
    await screen.findByRole('button', { name: 'Sign it off as it stands' });
    expect(isDisabled('Sign it off as it stands')).toBe(true);
    expect(screen.getByText(/Only a head barista signs/)).toBeTruthy();
  });
});
