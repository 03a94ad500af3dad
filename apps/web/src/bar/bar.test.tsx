import type { Bar, Grinder, GrinderSheet, GroupSheet, MachineSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../shell/facts.tsx';
import { Outbox, type Entry } from '../shell/outbox.ts';
import { renderPart } from '../ui/testRender.tsx';
import { ButtonCheck } from './ButtonCheck.tsx';
import { DoseCheck } from './DoseCheck.tsx';
import { FirstThings } from './FirstThings.tsx';
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
  servicedOn: null,
  gasketsOn: null,
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
  '/api/house/recipes-in-force': {
    recipes: [{ recipeId: 'r', name: 'House double', yieldG: 36, yieldToleranceG: 1.5 }],
  },
};
const serve = (): ReturnType<typeof vi.fn<typeof fetch>> => {
  const served = vi.fn<typeof fetch>((input) => Promise.resolve(Response.json(answers[input as string] ?? {})));
  vi.stubGlobal('fetch', served);
  return served;
};

describe('what a new bar needs first', () => {
  it('is listed in order, with what is there already', () => {
    renderPart(<FirstThings bar={bar} session={session('head')} />);
    const steps = screen.getAllByRole('listitem').map((item) => item.textContent);
    expect(steps[0]).toContain('Add the counter there is one');
    expect(steps.find((step) => step.includes('recipe'))).toBe('Write its recipe');
  });

  it('is no question for somebody who may not set it up', () => {
    renderPart(<FirstThings bar={bar} session={session('barista')} />);
    expect(screen.queryByRole('link')).toBeNull();
  });
});

describe('the plan', () => {
  const piece = (name: string): HTMLElement => screen.getByRole('button', { name: new RegExp(`^${name}, `) });
  const button = (name: string): HTMLButtonElement => screen.getByRole('button', { name });

  it('nudges by the arrow keys, undoes, does again, and keeps it based on what was seen', async () => {
    const served = serve();
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
    serve();
    renderPart(<PlanPage session={session('head')} />);
    await screen.findByRole('heading', { name: 'The plan' });
    for (let i = 0; i < 12; i += 1) fireEvent.keyDown(piece('Scale'), { key: 'ArrowDown', code: 'ArrowDown' });
    expect(screen.getByText('Scale stands off the counter.')).toBeTruthy();
  });

  it('is for looking only where somebody may not move things', async () => {
    serve();
    renderPart(<PlanPage session={session('barista')} />);
    await screen.findByRole('heading', { name: 'The plan' });
    fireEvent.keyDown(piece('Scale'), { key: 'ArrowRight', code: 'ArrowRight' });
    expect(piece('Scale').getAttribute('aria-label')).toContain('300 cm');
    expect(screen.queryByRole('button', { name: 'Keep the plan' })).toBeNull();
  });
});

describe('a machine on its way to hot', () => {
  const open = async (minutesAgo: number | null) => {
    serve();
    const on = {
      id: 'on',
      kind: 'step',
      at: new Date(Date.now() - (minutesAgo ?? 0) * 60_000).toISOString(),
      grinderId: null,
      groupId: null,
      body: { step: 'switchedOn', machineId: 'fern', readings: [], takesBack: null },
    };
    const entries = minutesAgo === null ? [] : [{ fact: on, personId: 'p', refusal: null }];
    const outbox = new Outbox(
      { read: () => Promise.resolve(entries as unknown as Entry[]), change: () => Promise.resolve() },
      () => Promise.reject(new Error('not sent here')),
    );
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

const weigh = (label: string, grams: readonly string[]): void => {
  for (const text of grams) {
    fireEvent.change(screen.getByRole('textbox', { name: new RegExp(`^${label} \\d, g`) }), {
      target: { value: text },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Write it down' }));
  }
};
const putOf = async (served: ReturnType<typeof serve>): Promise<object> => {
  await waitFor(() => expect(served.mock.calls.some(([, init]) => init?.method === 'PUT')).toBe(true));
  const put = served.mock.calls.find(([, init]) => init?.method === 'PUT');
  return JSON.parse(put?.[1]?.body as string) as object;
};

describe('a volume button', () => {
  const group: Kept<GroupSheet> = {
    id: '00000000-0000-4000-8000-000000000007',
    revision: 4,
    retired: false,
    changedBy: null,
    changedAt: null,
    sheet: {
      name: 'Group 1',
      machineId: 'fern',
      position: 1,
      buttons: [
        { name: 'Single', counts: 92 },
        { name: 'Double', counts: 176 },
      ],
      basketId: null,
      cleanedOn: null,
    },
  };
  const open = async () => {
    const served = serve();
    renderPart(
      <ButtonCheck group={{ ...group, sheet: { ...group.sheet, buttons: [group.sheet.buttons[1]!] } }} mayChange />,
    );
    await screen.findByRole('heading', { name: 'Check a volume button' });
    return served;
  };

  it('is judged by the mean of three yields, and the next count is worked out', async () => {
    const served = await open();
    weigh('Yield', ['38.2', '38.6']);
    expect(screen.getByText(/1 more, then the mean/)).toBeTruthy();
    weigh('Yield', ['38,4']);
    // Mean 38.4 g of 176 counts: 0.2182 g a count; 2.4 g too much are 11 counts.
    expect(screen.getByText('Programme 165 counts, 11 fewer, for 36.0 g.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'It is programmed to 165' }));
    expect(await putOf(served)).toMatchObject({ basedOn: 4, sheet: { buttons: [{ name: 'Double', counts: 165 }] } });
  });

  it('is left alone when the mean lies inside, and a wrong weighing is taken off', async () => {
    await open();
    weigh('Yield', ['63', '36.4', '35.2', '36.6']);
    fireEvent.click(screen.getByRole('button', { name: 'Take yield 1 off' }));
    expect(screen.getByText('It holds: leave it at 176.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /programmed/ })).toBeNull();
  });
});

describe('a dose time', () => {
  const sheet = {
    id: '00000000-0000-4000-8000-000000000008',
    revision: 2,
    retired: false,
    changedBy: null,
    changedAt: null,
    sheet: { name: 'House', doseDoubleS: 8.8 },
  } as unknown as Kept<GrinderSheet>;
  const grinder = { recipe: { doseG: 18, doseToleranceG: 0.3 } } as Grinder;
  const open = () => {
    const served = serve();
    renderPart(<DoseCheck sheet={sheet} grinder={grinder} mayChange />);
    return served;
  };

  it('is set anew when the mean of three is off', async () => {
    const served = open();
    weigh('Dose', ['18.6', '18.7', '18.5']);
    // 18.6 g in 8.8 s less 0.3 s of lag are 2.188 g/s; 18 g take 8.2 s and the lag.
    expect(screen.getByText('Set 8.5 s for 18.0 g, and weigh again.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'It is set to 8.5 s' }));
    expect(await putOf(served)).toMatchObject({ basedOn: 2, sheet: { doseDoubleS: 8.5 } });
  });

  it('holds with its spread, and is not blamed for doses that scatter', () => {
    open();
    weigh('Dose', ['18.1', '17.9', '18.1']);
    expect(screen.getByText('It holds: 18.0 g, mean of 3, give or take 0.1 g.')).toBeTruthy();
    weigh('Dose', ['19.6']);
    expect(screen.getByText(/scatter by 0.8 g: look at the hopper/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /It is set/ })).toBeNull();
  });
});
