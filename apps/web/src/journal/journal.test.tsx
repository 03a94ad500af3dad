import type { RecordedEntry } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import { waitingOutbox } from '../kernel/testOutbox.ts';
import { renderPart } from '../ui/testRender.tsx';
import { Route, Routes } from 'react-router';
import { EntryPage } from './EntryPage.tsx';
import { JournalPage } from './JournalPage.tsx';

const session: Session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};
const bar = {
  machines: [{ id: 'fern', name: 'Fern', groups: [{ id: 'g1', name: 'Group 1' }] }],
  steps: [],
  grinders: [{ id: 'house', name: 'House' }],
  waiting: [],
};
/** Noor has left since: what she wrote keeps her name. */
const people = {
  sheets: [
    { id: 'ines', retired: false, sheet: { name: 'Ines', role: 'head' } },
    { id: 'noor', retired: true, sheet: { name: 'Noor', role: 'barista' } },
  ],
};

const entry = (id: string, kind: string, body: object, change: object = {}): RecordedEntry =>
  ({
    id,
    kind,
    body,
    at: '2031-05-04T06:31:00Z',
    deviceAt: '2031-05-04T06:31:00Z',
    clock: null,
    approvedBy: null,
    personId: 'ines',
    grinderId: 'house',
    groupId: null,
    seq: 1,
    ...change,
  }) as unknown as RecordedEntry;

const shot = entry(
  'shot',
  'shot',
  { setting: 30, doseG: 18, yieldG: 36.2, timeS: 27.1, firstDropS: 6, flaw: null, trace: null, measuredBy: 'hand' },
  { groupId: 'g1' },
);
const move = entry('move', 'collarMove', { from: 30, to: 28, advisedTo: 28 }, { personId: 'noor' });
const withdrawn = entry('taken back', 'correction', { factId: 'shot', withdrawn: true, shot: null });

interface Answer {
  facts: RecordedEntry[];
  related: RecordedEntry[];
  nextBeforeSeq: number | null;
}
let pages: (search: URLSearchParams) => Answer;
let entries: Record<string, object> = {};
const notFound = { type: 'urn:x', title: 'Not found', status: 404, detail: 'It is not there.', code: 'notFound' };
const asked = vi.fn<(search: string) => void>();

beforeEach(() => {
  asked.mockClear();
  vi.stubGlobal('fetch', (address: string) => {
    const url = new URL(address, 'http://bar');
    if (url.pathname === '/api/bar') return Promise.resolve(Response.json(bar));
    if (url.pathname === '/api/team/people') return Promise.resolve(Response.json(people));
    if (url.pathname.startsWith('/api/facts/')) {
      const known = entries[url.pathname.split('/').at(-1) ?? ''];
      return Promise.resolve(known ? Response.json(known) : Response.json(notFound, { status: 404 }));
    }
    asked(url.search);
    return Promise.resolve(Response.json(pages(url.searchParams)));
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const open = (at = '/journal') =>
  renderPart(
    <OutboxContext value={waitingOutbox()}>
      <JournalPage session={session} />
    </OutboxContext>,
    at,
  );
const lines = async (): Promise<string[]> =>
  (await screen.findAllByRole('row')).slice(1).map((row) =>
    within(row)
      .getAllByRole('cell')
      .map((cell) => cell.textContent)
      .join(' | '),
  );

describe('the journal', () => {
  it('tells who did what where, in words', async () => {
    pages = () => ({ facts: [move, shot], related: [], nextBeforeSeq: null });
    open();
    const [moved = '', pulled = ''] = await lines();
    await waitFor(async () => expect((await lines())[0]).toContain('Noor'));
    expect(moved).toMatch(/House \| Collar move \| .*30 .*28/);
    expect(pulled).toMatch(/House, Group 1 \| Shot \| .*18\.0 g.*36\.2 g.*27\.1 s/);
    expect(screen.queryByRole('button', { name: 'Earlier entries' })).toBeNull();
  });

  it('marks what was corrected later, and what a wrong clock said', async () => {
    const late = entry('late', 'purge', { grams: 12 }, { clock: 'ahead', deviceAt: '2031-05-04T09:31:00Z' });
    pages = () => ({ facts: [withdrawn, late], related: [shot], nextBeforeSeq: null });
    open();
    const [taken = '', purged = ''] = await lines();
    expect(taken).toContain('Correction');
    expect(purged).toContain('its clock said');
    pages = () => ({ facts: [shot], related: [withdrawn], nextBeforeSeq: null });
    cleanup();
    open();
    expect((await lines())[0]).toContain('corrected later');
  });

  it('asks for what the address filters by, and says so when nothing matches', async () => {
    pages = () => ({ facts: [], related: [], nextBeforeSeq: null });
    open('/journal?grinder=house&kind=lock');
    expect(await screen.findByText(/Nothing is written down that matches/)).toBeTruthy();
    expect(asked.mock.calls[0]?.[0]).toBe('?grinderId=house&kind=lock');
  });

  it('filters by a choice, and clears it again', async () => {
    pages = (search) => ({
      facts: search.get('kind') === 'shot' ? [shot] : [move, shot],
      related: [],
      nextBeforeSeq: null,
    });
    open();
    expect(await lines()).toHaveLength(2);
    fireEvent.click(screen.getByRole('combobox', { name: 'Kind' }));
    fireEvent.click(await screen.findByRole('option', { name: 'Shot', hidden: true }));
    await waitFor(async () => expect(await lines()).toHaveLength(1));
  });

  it('goes on with earlier entries where there are any', async () => {
    pages = (search) =>
      search.has('beforeSeq')
        ? { facts: [shot], related: [], nextBeforeSeq: null }
        : { facts: [move], related: [], nextBeforeSeq: 7 };
    open();
    fireEvent.click(await screen.findByRole('button', { name: 'Earlier entries' }));
    await waitFor(async () => expect(await lines()).toHaveLength(2));
    expect(asked.mock.calls.at(-1)?.[0]).toBe('?beforeSeq=7');
  });

  it('says what went wrong, and tries again', async () => {
    let down = true;
    pages = () => {
      if (down) throw new TypeError('down');
      return { facts: [move], related: [], nextBeforeSeq: null };
    };
    open();
    expect((await screen.findByRole('alert')).textContent).toMatch(/server cannot be reached|wrong on our side/);
    down = false;
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await lines()).toHaveLength(1);
  });
});

describe('one entry', () => {
  const openEntry = (id: string) =>
    renderPart(
      <Routes>
        <Route path="/journal/entry/:id" element={<EntryPage session={session} />} />
      </Routes>,
      `/journal/entry/${id}`,
    );
  const gate = { recipe: 'House double', version: 2, doseG: 18, yieldG: 36, timeMinS: 25, timeMaxS: 30 };

  it('says what was aimed at, what was made of it since, and when it came in where it waited on a tablet', async () => {
    const waited = { ...shot, receivedAt: '2031-05-04T08:02:00Z' };
    entries = { shot: { fact: waited, related: [withdrawn], gate } };
    openEntry('shot');
    expect(await screen.findByText('House double, version 2')).toBeTruthy();
    expect(screen.getByText('18.0 g in, 36.0 g out, 25–30 s')).toBeTruthy();
    expect(screen.getByText(/08:02/)).toBeTruthy();
    const since = screen.getByRole('region', { name: 'Corrected since' });
    expect(since.textContent).toMatch(/Withdrew the shot \(18\.0 g in, 36\.2 g out/);
    expect(within(since).getByRole('link').getAttribute('href')).toBe('/journal/entry/taken back');
  });

  it('leads from a lock to the shots that it rests on', async () => {
    const expected = { timeS: 27, lowS: 25.5, highS: 28.6 };
    const lock = entry('lock', 'lock', { setting: 30, shotIds: ['shot'], chance: 0.95, expected });
    entries = { lock: { fact: { ...lock, receivedAt: lock.at }, related: [shot], gate } };
    openEntry('lock');
    const rests = await screen.findByRole('region', { name: 'The shots that it rests on' });
    expect(within(rests).getByRole('link').getAttribute('href')).toBe('/journal/entry/shot');
    expect(screen.queryByText('Reached the house')).toBeNull();
  });

  it('is nothing under an id that nobody wrote', async () => {
    entries = {};
    openEntry('gone');
    expect(await screen.findByRole('heading', { name: /Nothing|not/i })).toBeTruthy();
  });
});
