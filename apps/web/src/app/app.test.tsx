import { liveEvents } from '@tempera/contract/live';
import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import { waitingOutbox } from '../kernel/testOutbox.ts';
import { unitsNow } from '../kernel/units.ts';
import { renderPart } from '../ui/testRender.tsx';
import { App } from './App.tsx';
import { rooms } from './rooms.ts';

const ines: Session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};
const welcome = { sites: [{ id: 's', name: 'Shed', enrolled: true, people: [{ ...ines.person }] }], demo: null };
const bar = {
  room: { widthCm: 400, depthCm: 200 },
  counters: [],
  machines: [{ id: 'fern', name: 'Fern', place: { xCm: 0, yCm: 0, widthCm: 90, depthCm: 50 }, groups: [] }],
  grinders: [],
  waiting: [{ id: 'g', name: 'House', place: { xCm: 99, yCm: 0, widthCm: 20, depthCm: 40 }, lacks: 'coffee' }],
  fixtures: [],
  facts: [],
  steps: [],
};

/** A stream that the test speaks through. */
class FakeStream extends EventTarget {
  static readonly CLOSED = 2;
  static opened: FakeStream[] = [];
  readyState = 1;
  constructor(readonly address: string) {
    super();
    FakeStream.opened.push(this);
  }
  close = (): void => undefined;
}

/** By then a read that failed has been answered for. */
const SETTLED_MS = 500;

let answers: Record<string, unknown>;
const asked: string[] = [];
beforeEach(() => {
  localStorage.clear();
  asked.length = 0;
  FakeStream.opened = [];
  answers = {
    '/api/session': ines,
    '/api/welcome': welcome,
    '/api/bar': bar,
    '/api/search': { hits: [{ kind: 'drink', id: 'd', name: 'Little white' }] },
    '/api/journal': { facts: [], related: [], nextBeforeSeq: null },
  };
  vi.stubGlobal('EventSource', FakeStream);
  vi.stubGlobal('fetch', (address: string) => {
    asked.push(address);
    const known = answers[address.split('?')[0] ?? ''];
    return Promise.resolve(Response.json(known === undefined ? {} : known));
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const open = (at = '/journal') =>
  renderPart(
    <OutboxContext value={waitingOutbox()}>
      <App />
    </OutboxContext>,
    at,
  );
const journal = () => screen.findByRole('heading', { name: 'Journal' });

describe('the app', () => {
  it('keeps the page when the server is gone by the time it asks again who stands there', async () => {
    vi.useFakeTimers({ toFake: ['Date'] });
    open();
    await journal();
    vi.setSystemTime(Date.now() + 120_000);
    localStorage.clear();
    const failed = vi.fn((_: string) => Promise.reject(new TypeError('Failed to fetch')));
    vi.stubGlobal('fetch', failed);
    act(() => void window.dispatchEvent(new Event('visibilitychange')));
    await waitFor(() => expect(failed.mock.calls.map(([address]) => address)).toContain('/api/session'));
    await act(async () => new Promise((resolve) => setTimeout(resolve, SETTLED_MS)));
    expect(screen.getByRole('heading', { name: 'Journal' })).toBeTruthy();
    vi.useRealTimers();
  });

  it('asks who stands there, and shows nothing of the bar before', async () => {
    answers['/api/session'] = null;
    open();
    expect(await screen.findByRole('button', { name: /Ines/ })).toBeTruthy();
    expect(screen.queryByRole('navigation')).toBeNull();
    expect(asked).not.toContain('/api/bar');
    expect(FakeStream.opened).toHaveLength(0);
  });

  it('leads to every room that has a place in the navigation, by tap and by key', async () => {
    open();
    await journal();
    const links = within(screen.getByRole('navigation', { name: 'Pages' })).getAllByRole('link');
    expect(links.map(({ textContent }) => textContent)).toEqual(rooms.flatMap(({ nav }) => nav?.label ?? []));
    fireEvent.keyDown(document.body, { key: 'b' });
    expect(await screen.findByRole('link', { name: 'The bar, piece by piece' })).toBeTruthy();
    fireEvent.click(links.at(-1)!);
    await journal();
  });

  it('lists each room’s keys', async () => {
    open();
    await journal();
    fireEvent.keyDown(document.body, { key: '?' });
    const sheet = await screen.findByRole('dialog', { name: 'Keys' });
    for (const { keys = [], nav } of rooms) {
      for (const { does } of keys) expect(within(sheet).getByText(does)).toBeTruthy();
      if (nav) expect(within(sheet).getByText(nav.does)).toBeTruthy();
    }
  });

  it('finds stations, doings and things of the house', async () => {
    open();
    await journal();
    fireEvent.click(screen.getByRole('button', { name: 'Find' }));
    const field = await screen.findByRole('textbox', { name: 'Find' });
    expect(screen.getByText('Print the wall card')).toBeTruthy();
    expect(screen.getByText('Waits for a coffee')).toBeTruthy();
    fireEvent.change(field, { target: { value: 'little' } });
    fireEvent.click(await screen.findByText('Little white'));
    await waitFor(() => expect(asked.some((address) => address.startsWith('/api/house/drinks'))).toBe(true));
    expect(asked).toContain('/api/search?q=little');
  });

  it('says that an address is no page', async () => {
    open('/no/such/page');
    expect(await screen.findByRole('heading', { name: /not|nothing/i })).toBeTruthy();
  });

  it('writes numbers as this person reads them', async () => {
    answers['/api/session'] = { ...ines, units: { ...usualUnits, mass: 'oz' } };
    open();
    await journal();
    expect(unitsNow().mass).toBe('oz');
  });

  it('reads again what it may have missed, and says when the server is out of reach', async () => {
    open();
    await journal();
    const [stream] = FakeStream.opened;
    expect(stream?.address).toBe('/api/live');
    const reads = (): number => asked.filter((address) => address.startsWith('/api/journal')).length;
    const before = reads();
    act(() => void stream?.dispatchEvent(new MessageEvent(liveEvents.resync)));
    await waitFor(() => expect(reads()).toBeGreaterThan(before));
    act(() => void stream?.dispatchEvent(new Event('error')));
    expect(await screen.findByRole('button', { name: /Alone since/ })).toBeTruthy();
    act(() => void stream?.dispatchEvent(new Event('open')));
    await waitFor(() => expect(screen.queryByRole('button', { name: /Alone since/ })).toBeNull());
  });
});
