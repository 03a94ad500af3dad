import { render, waitFor } from '@testing-library/react';
import { Suspense } from 'react';
import { expect, it, vi } from 'vitest';
import { withPage } from './later.tsx';
import { fetchSlots, fetchSlotsAt, Slot, SlotsContext, useSlotsAhead, type SlotParts } from './slots.tsx';

const session = {} as never;

/** Rooms that hang in two parts, and how often the code of each was asked for. */
function twoRooms() {
  const asks = vi.fn(() => Promise.resolve(() => <p>asks</p>));
  const next = vi.fn(() => Promise.resolve(() => <p>next</p>));
  const day = vi.fn(() => Promise.resolve(() => <p>day</p>));
  const rooms: SlotParts[] = [{ homeAsks: withPage(asks) }, { homeNext: withPage(next), homeDay: withPage(day) }];
  return { rooms, asks, next, day };
}

function Home() {
  useSlotsAhead('/', 'homeAsks', 'homeNext');
  return (
    <>
      <Slot of="homeAsks" told={{ session }} />
      <Slot of="homeNext" told={{ session }} />
    </>
  );
}

it('asks at once for all that a page hangs in, and for each of them once', async () => {
  localStorage.clear();
  const { rooms, asks, next, day } = twoRooms();
  const { container } = render(
    <SlotsContext value={rooms}>
      <Suspense fallback="waits">
        <Home />
      </Suspense>
    </SlotsContext>,
  );
  expect(next).toHaveBeenCalledTimes(1);
  await waitFor(() => expect(container.textContent).toBe('asksnext'));
  expect(asks).toHaveBeenCalledTimes(1);
  expect(next).toHaveBeenCalledTimes(1);
  expect(day).not.toHaveBeenCalled();

  const later = twoRooms();
  await fetchSlotsAt('/', later.rooms);
  expect([later.asks, later.next, later.day].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 0]);
});

it('draws a page whose part could not be fetched ahead, and asks for it again', async () => {
  localStorage.setItem('slots on /', JSON.stringify(['homeNext', 'nothing of today']));
  const load = vi
    .fn<() => Promise<() => string>>(() => Promise.resolve(() => 'next'))
    .mockRejectedValueOnce(new Error('no network'));
  const rooms: SlotParts[] = [{ homeNext: withPage(load) }];
  await fetchSlotsAt('/', rooms);
  const { container } = render(
    <SlotsContext value={rooms}>
      <Suspense fallback="waits">
        <Slot of="homeNext" told={{ session }} />
      </Suspense>
    </SlotsContext>,
  );
  await waitFor(() => expect(container.textContent).toBe('next'));
});

it('draws what was fetched before into a page that stands, and never takes that page away', async () => {
  localStorage.clear();
  const { rooms } = twoRooms();
  const page = (opening: boolean) => (
    <SlotsContext value={rooms}>
      <Suspense fallback="waits">
        <a href="/bench">House</a>
        {!opening && <Slot of="homeDay" told={{ session, leads: true }} />}
      </Suspense>
    </SlotsContext>
  );
  const { container, rerender } = render(page(true));
  await fetchSlots(rooms, ['homeDay']);
  const link = container.querySelector('a');
  link?.focus();
  rerender(page(false));
  expect(container.textContent).toBe('Houseday');
  expect(document.activeElement).toBe(link);
});

it('takes what it cannot read for nothing', async () => {
  localStorage.setItem('slots on /', '{"homeNext":');
  const { rooms, next } = twoRooms();
  await fetchSlotsAt('/', rooms);
  expect(next).not.toHaveBeenCalled();
});
