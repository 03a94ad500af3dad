import type { Bar, MachineSheet } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import type { Entry } from '../kernel/outbox.ts';
import { waitingOutbox } from '../kernel/testOutbox.ts';
import { serve } from '../ui/testAnswers.ts';
import { renderPart } from '../ui/testRender.tsx';
import { MachineWarmth } from './MachineWarmth.tsx';
import { PlanPage } from './PlanPage.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const session = (role: Session['person']['role']): Session => ({
  person: { id: 'p', name: 'Ines', role },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
});
const place = { xCm: 10, yCm: 10, widthCm: 24, depthCm: 40 };
const bar = {
  room: { widthCm: 400, depthCm: 200 },
  planRevision: 3,
  counters: [{ id: 'c', name: 'Counter', faces: 'down', place: { xCm: 0, yCm: 0, widthCm: 400, depthCm: 60 } }],
  machines: [{ id: 'fern', name: 'Fern', place: { ...place, xCm: 100, widthCm: 90 }, groups: [] }],
  grinders: [],
  waiting: [{ id: 'g', name: 'House', place, lacks: 'coffee' }],
  fixtures: [{ id: 'f', kind: 'scale', name: 'Scale', place: { xCm: 300, yCm: 20, widthCm: 18, depthCm: 18 } }],
  facts: [],
  steps: [],
} as unknown as Bar;
const fern: MachineSheet = {
  name: 'Fern',
  boiler: 'brewAndSteam',
  gauges: [{ name: 'Steam', unit: 'bar', min: 1, max: 1.5 }],
  warmUpMin: 25,
  setsTemp: true,
  setsPressure: false,
  lever: false,
  upkeep: [],
};
const answers: Record<string, object> = {
  '/api/bar': bar,
  '/api/bar/plan': { ...bar, planRevision: 4 },
  '/api/bar/learned': {
    grinders: [],
    groups: [],
    machines: [{ id: 'fern', warmUpMin: 22.8, sdMin: 4.2, mornings: 30 }],
  },
  '/api/bar/machines': {
    sheets: [{ id: 'fern', revision: 1, retired: false, changedBy: null, changedAt: null, sheet: fern }],
  },
  '/api/session': session('head'),
};
describe('the plan', () => {
  const piece = (name: string): HTMLElement => screen.getByRole('button', { name: new RegExp(`^${name}, `) });
  const button = (name: string): HTMLButtonElement => screen.getByRole('button', { name });

  it('nudges by the arrow keys, undoes, does again, and keeps it based on what was seen', async () => {
    const served = serve(answers);
    renderPart(<PlanPage session={session('head')} />);
    await screen.findByRole('heading', { name: 'The plan' });
    expect(button('Keep the plan').disabled).toBe(true);
    fireEvent.keyDown(piece('Scale'), { key: 'ArrowRight', code: 'ArrowRight' });
    expect(piece('Scale').getAttribute('aria-label')).toContain('302 cm from the left');
    fireEvent.click(button('Undo'));
    expect(piece('Scale').getAttribute('aria-label')).toContain('300 cm from the left');
    fireEvent.click(button('Redo'));
    fireEvent.click(button('Keep the plan'));
    await waitFor(() => expect(served.mock.calls.some(([, init]) => init?.method === 'PUT')).toBe(true));
    const put = served.mock.calls.find(([, init]) => init?.method === 'PUT');
    const body = JSON.parse(put?.[1]?.body as string) as { basedOn: number; pieces: { id: string; place: object }[] };
    expect(body.basedOn).toBe(3);
    expect(body.pieces.find(({ id }) => id === 'f')?.place).toMatchObject({ xCm: 302, yCm: 20 });
    expect(body.pieces).toHaveLength(4);
  });

  it('says what stands in something else or off the counter', async () => {
    serve(answers);
    renderPart(<PlanPage session={session('head')} />);
    await screen.findByRole('heading', { name: 'The plan' });
    for (let i = 0; i < 12; i += 1) fireEvent.keyDown(piece('Scale'), { key: 'ArrowDown', code: 'ArrowDown' });
    expect(screen.getByText('Scale stands off the counter.')).toBeTruthy();
  });

  it('is for looking only where somebody may not move things', async () => {
    serve(answers);
    renderPart(<PlanPage session={session('barista')} />);
    await screen.findByRole('heading', { name: 'The plan' });
    fireEvent.keyDown(piece('Scale'), { key: 'ArrowRight', code: 'ArrowRight' });
    expect(piece('Scale').getAttribute('aria-label')).toContain('300 cm');
    expect(screen.queryByRole('button', { name: 'Keep the plan' })).toBeNull();
  });
});

describe('a machine on its way to hot', () => {
  const open = async (minutesAgo: number | null) => {
    serve(answers);
    const on = {
      id: 'on',
      kind: 'step',
      at: new Date(Date.now() - (minutesAgo ?? 0) * 60_000).toISOString(),
      grinderId: null,
      groupId: null,
      body: { step: 'switchedOn', machineId: 'fern', readings: [], takesBack: null },
    };
    const entries = minutesAgo === null ? [] : [{ fact: on, personId: 'p', refusal: null }];
    const outbox = waitingOutbox(entries as unknown as Entry[]);
    await outbox.load();
    renderPart(
      <OutboxContext value={outbox}>
        <MachineWarmth machineId="fern" />
      </OutboxContext>,
    );
    return within(await screen.findByRole('region', { name: 'Warm-up' }));
  };

  it('is not switched on yet, with what the mornings taught', async () => {
    const part = await open(null);
    expect(part.getByRole('heading').textContent).toBe('Not switched on yet today');
    await waitFor(() => expect(part.getByText(/Learned from 30 mornings: 23 min, give or take 8/)).toBeTruthy());
  });

  it('is hot when the gauge says so, and not before', async () => {
    const part = await open(12);
    expect(part.getByRole('heading').textContent).toBe('On for 12 min');
    await waitFor(() => expect(part.getByText('Usually hot in about 11 min more.')).toBeTruthy());
    const hot = part.getByRole<HTMLButtonElement>('button', { name: 'The gauges say it is hot' });
    const read = (text: string): void => {
      fireEvent.change(part.getByRole('textbox', { name: 'Steam, bar' }), { target: { value: text } });
    };
    expect(hot.disabled).toBe(true);
    read('0.6');
    expect(part.getByText(/below its limit: wait/)).toBeTruthy();
    expect(hot.disabled).toBe(true);
    read('1,9');
    expect(part.getByRole('alert').textContent).toContain('licensed technician');
    expect(hot.disabled).toBe(true);
    read('1.2');
    expect(hot.disabled).toBe(false);
  });
});
