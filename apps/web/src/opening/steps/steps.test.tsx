import { act, fireEvent, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../../kernel/facts.tsx';
import { standInOutbox, waitingOutbox } from '../../kernel/testOutbox.ts';
import { renderPart } from '../../ui/testRender.tsx';
import { jobKinds, type AnyFact } from '@tempera/core/facts';
import {
  answers,
  eachOnItsOwn,
  isDisabled,
  now,
  openingBar,
  press,
  propsOf,
  recipe,
  stepOf,
  tick,
  type,
} from '../testView.ts';
import { ButtonStep } from './ButtonStep.tsx';
import { DoseTimeStep } from './DoseTimeStep.tsx';
import { FirstDoseStep } from './FirstDoseStep.tsx';
import { GroupCheckStep } from './GroupCheckStep.tsx';
import { panels } from '../StepPanel.tsx';
import { HotStep } from './HotStep.tsx';
import { SwitchOnStep } from './SwitchOnStep.tsx';
import { RinseStep } from './RinseStep.tsx';

eachOnItsOwn();

const kept = (id: string, sheet: object) => ({
  id,
  revision: 4,
  retired: false,
  changedBy: null,
  changedAt: null,
  sheet,
});
const written = (write: ReturnType<typeof vi.fn>): unknown => write.mock.lastCall?.[0];

describe('every kind of job', () => {
  it.each(jobKinds)('%s has its panel', (kind) => {
    expect(panels[kind]).toBeDefined();
  });
});

describe('rinsing a group', () => {
  /** Lets the water run for so many seconds of the clock. */
  const rinse = (seconds: number): void => {
    press(/^(Water on|Rinse again)$/);
    act(() => void vi.advanceTimersByTime(1_000 * seconds));
    press('Water off');
  };
  const opened = (detergent: boolean) => {
    const write = vi.fn();
    vi.useFakeTimers({ now });
    renderPart(<RinseStep {...propsOf('rinse', write, { detergent })} />);
    return write;
  };

  it('wants five seconds and a clean screen; a splash does not count', () => {
    const write = opened(false);
    rinse(2);
    expect(screen.getByRole('button', { name: 'Water on' })).toBeTruthy();
    press('Water on');
    act(() => void vi.advanceTimersByTime(5_100));
    expect(screen.getByText('Enough: stop the water.')).toBeTruthy();
    press('Water off');
    expect(isDisabled('Group 1 is clean')).toBe(true);
    tick(/screen is wiped/);
    press('Group 1 is clean');
    expect(written(write)).toEqual({
      step: 'rinsed',
      groupId: '1',
      rinseS: 5.1,
      screenCleaned: true,
      detergent: false,
    });
    vi.useRealTimers();
  });

  it('stops its clock by itself when it was forgotten, and takes that it was rinsed without it', () => {
    const write = opened(false);
    press('Water on');
    act(() => void vi.advanceTimersByTime(159_000));
    expect(screen.getByText('The clock stopped itself at 60 s. Is the water off?')).toBeTruthy();
    expect(isDisabled('Group 1 is clean')).toBe(true);
    tick(/screen is wiped/);
    press('It was rinsed already');
    expect(written(write)).toMatchObject({ step: 'rinsed', rinseS: null, screenCleaned: true });
    vi.useRealTimers();
  });

  it('takes the tap that comes as the clock ends for the end of the water, not for its start', () => {
    const write = opened(false);
    press('Water on');
    act(() => void vi.advanceTimersByTime(61_000));
    press('Water off');
    expect(screen.getByText('Rinsed.')).toBeTruthy();
    tick(/screen is wiped/);
    press('Group 1 is clean');
    expect(written(write)).toMatchObject({ step: 'rinsed', rinseS: null, screenCleaned: true });
    vi.useRealTimers();
  });

  it('wants two rinses and a shot thrown away after detergent', () => {
    const write = opened(true);
    rinse(5);
    tick(/screen is wiped/);
    tick(/first shot after detergent/);
    expect(isDisabled('Group 1 is clean')).toBe(true);
    rinse(6);
    press('Group 1 is clean');
    expect(written(write)).toMatchObject({ rinseS: 11, detergent: true });
    vi.useRealTimers();
  });
});

describe('a machine that warms up', () => {
  const on = stepOf({ step: 'switchedOn', machineId: 'fern', readings: [], takesBack: null }, 0);
  const machine = kept('fern', { name: 'Fern', gauges: [{ name: 'Steam', unit: 'bar', min: 1, max: 1.5 }] });

  it('is switched on by a fact', () => {
    const write = vi.fn();
    renderPart(<SwitchOnStep {...propsOf('switchOn', write)} />);
    press('Fern is on');
    expect(written(write)).toMatchObject({ step: 'switchedOn', machineId: 'fern' });
  });

  it('is hot when the gauges say so: below waits, above stops and names who may mend it', async () => {
    answers['/bar/machines'] = { sheets: [machine] };
    answers['/bar/learned'] = { machines: [{ id: 'fern', warmUpMin: 25, sdMin: 2 }], drips: [], groups: [] };
    const write = vi.fn();
    renderPart(<HotStep {...propsOf('hot', write, { steps: [on], nowMs: now + 12 * 60_000 })} />);
    expect(await screen.findByText(/Usually hot about 06:25/)).toBeTruthy();
    await screen.findByRole('textbox', { name: /^Steam/ });
    expect(isDisabled('The gauges say it is hot')).toBe(true);
    type(/^Steam/, '0.4');
    expect(screen.getByText(/Steam is below its limit: wait/)).toBeTruthy();
    type(/^Steam/, '1.9');
    expect(screen.getByRole('alert').textContent).toMatch(/Switch the machine off and call a licensed technician/);
    expect(isDisabled('The gauges say it is hot')).toBe(true);
    type(/^Steam/, '1.2');
    press('The gauges say it is hot');
    expect(written(write)).toMatchObject({ step: 'hot', readings: [{ gauge: 'Steam', value: 1.2 }] });
  });

  it('that can tell shows its groups too, and one that is cold holds it up', async () => {
    answers['/bar/machines'] = { sheets: [machine] };
    answers['/bar/learned'] = { machines: [{ id: 'fern', warmUpMin: 25, sdMin: 2 }], drips: [], groups: [] };
    answers['/welcome'] = { sites: [], demo: { pins: {}, speed: 1, clogged: [] } };
    const after = (minutes: number) => propsOf('hot', vi.fn(), { steps: [on], nowMs: now + minutes * 60_000 });
    const { rerender } = renderPart(<HotStep {...after(5)} />);
    fireEvent.click(await screen.findByRole('button', { name: 'Read the simulated machine' }));
    const groupC = (): number => Number(screen.getByRole<HTMLInputElement>('textbox', { name: /^Group 1/ }).value);
    expect(groupC()).toBeLessThan(85);
    expect(isDisabled('The gauges say it is hot')).toBe(true);
    rerender(<HotStep {...after(30)} />);
    press('Read the simulated machine');
    expect(groupC()).toBeGreaterThan(90);
    expect(isDisabled('The gauges say it is hot')).toBe(false);
  });
});

describe('the first dose', () => {
  it('goes away as a purge of its own, and a dose that its basket cannot hold is said', async () => {
    answers['/bar/baskets'] = { sheets: [kept('b18', { name: 'Double 18', minG: 16.5, maxG: 17.5 })] };
    const write = vi.fn();
    const { outbox, written: facts } = standInOutbox();
    renderPart(
      <OutboxContext value={outbox}>
        <FirstDoseStep {...propsOf('firstDose', write)} />
      </OutboxContext>,
    );
    expect(await screen.findByText(/does not fit Double 18/)).toBeTruthy();
    press('It is thrown away');
    expect(written(write)).toEqual({ step: 'firstDose', grinderId: 'house' });
    expect(facts()).toMatchObject([{ kind: 'purge', grinderId: 'house', body: { purgeG: 18, why: 'stale' } }]);
  });
});

describe('proving a dose time', () => {
  const open = (facts: AnyFact[] = []) => {
    answers['/bar/grinders'] = { sheets: [kept('house', { name: 'House', doseDoubleS: 8.8 })] };
    const write = vi.fn();
    renderPart(
      <OutboxContext value={waitingOutbox()}>
        <DoseTimeStep {...propsOf('doseTime', write, { facts })} />
      </OutboxContext>,
    );
    return write;
  };
  const weigh = (...dosesG: string[]): void => {
    for (const doseG of dosesG) {
      type(/^Dose \d/, doseG);
      press('Write it down');
    }
  };

  it('a mean that is off gives a new time, which is proven before it is kept', async () => {
    const write = open();
    await screen.findByRole('textbox', { name: /^Grind time/ });
    weigh('18.6', '18.7', '18.5');
    // 18.6 g in 8.8 s less 0.3 s of lag; 18 g take 8.2 s and the lag.
    press('It is set to 8.5 s');
    expect(isDisabled('The dose time holds')).toBe(true);
    weigh('18.0', '18.1', '17.9');
    press('The dose time holds');
    expect(written(write)).toEqual({
      step: 'doseTime',
      grinderId: 'house',
      way: 'timed',
      discardedG: 0,
      grindTimeS: 8.5,
      dosesG: [18, 18.1, 17.9],
      holds: true,
    });
  });

  it('counts what was weighed at this time while dialling in, and scatter is told as what it is', async () => {
    const weighed = (id: string, doseG: number): AnyFact =>
      ({ ...shot(id, '1', {}, 1), kind: 'dose', body: { setting: 30, doseG, grindTimeS: 8.8 } }) as AnyFact;
    const write = open([weighed('a', 17.2), weighed('b', 18.6)]);
    expect(await screen.findByText(/dialled in: 17.2 g, 18.6 g. They count/)).toBeTruthy();
    weigh('18.1');
    expect(screen.getByText(/scatter by 0.7 g: look at the hopper/)).toBeTruthy();
    press('Note that it does not hold');
    expect(written(write)).toMatchObject({ grindTimeS: 8.8, dosesG: [18.1], holds: false });
  });
});

type Fact = AnyFact;
const shot = (id: string, groupId: string, body: object, minutes: number): Fact =>
  ({
    id,
    siteId: 's',
    kind: 'shot',
    at: new Date(now + minutes * 60_000).toISOString(),
    grinderId: 'house',
    groupId,
    personId: 'ines',
    body: {
      recipeVersionId: recipe.id,
      setting: 30,
      doseG: 18,
      yieldG: 36,
      timeS: 27.4,
      firstDropS: 6,
      flaw: null,
      measuredBy: 'scale',
      trace: null,
      ...body,
    },
  }) as unknown as Fact;

describe('checking a group', () => {
  const bar = { ...openingBar, machines: [{ id: 'fern', groups: ['1', '2'].map((id) => ({ id, buttons: 1 })) }] };
  const dialled: Fact[] = [
    shot('a', '1', {}, 1),
    shot('b', '1', { timeS: 27.8 }, 2),
    {
      ...shot('lock', '1', {}, 3),
      kind: 'lock',
      body: { setting: 30, shotIds: ['a', 'b'], expected: { timeS: 27.5, lowS: 26, highS: 29 } },
    } as unknown as Fact,
  ];
  const open = (checks: Fact[]) => {
    const write = vi.fn();
    renderPart(<GroupCheckStep {...propsOf('groupCheck', write, { bar, facts: [...dialled, ...checks] })} />);
    return write;
  };
  const check = (id: string, timeS: number, minutes: number): Fact => shot(id, '2', { timeS, check: true }, minutes);

  it('asks for the pair that tells most, on the bench that leaves the collar alone', () => {
    open([]);
    expect(screen.getByText('Pull House through Group 2, where its setting holds.')).toBeTruthy();
    const link = screen.getByRole('link', { name: 'Pull House through Group 2' });
    expect(link.getAttribute('href')).toBe('/bench/house/2?check=1');
  });

  it('notes a group that runs with the others', () => {
    const write = open([check('c', 27.5, 4), check('d', 27.2, 5)]);
    expect(screen.getByText(/Group 2 runs with the others, over 99 % sure/)).toBeTruthy();
    press('Group 2 is noted');
    expect(written(write)).toMatchObject({ step: 'groupChecked', groupId: '2', finding: 'none', foundId: null });
  });

  it('goes on asking while one shot might be luck', () => {
    open([check('c', 31, 4)]);
    expect(screen.getByText(/Not settled yet after 1 shot/)).toBeTruthy();
    expect(screen.getByRole('link', { name: /^Pull House through Group 2/ })).toBeTruthy();
  });

  it('names a group that is off, says what to do, and begins anew once it was mended', () => {
    const slow = [check('c', 36, 4), check('d', 35.5, 5), check('e', 36.3, 6), check('f', 36, 7), check('g', 36, 8)];
    const write = open(slow);
    expect(screen.getByText(/^Group 2 is off.*screen is the first to suspect/)).toBeTruthy();
    expect(screen.getByText(/call a licensed technician/)).toBeTruthy();
    press('Screen taken off and cleaned');
    expect(write.mock.calls.map(([body]) => (body as { step: string }).step)).toEqual(['groupChecked', 'mended']);
    expect(written(write)).toEqual({ step: 'mended', groupId: '2', what: 'screen' });
  });
});

describe('a volume button', () => {
  const bar = { ...openingBar, byVolume: true };
  const group = kept('1', { name: 'Group 1', buttons: [{ name: 'Double', counts: 160 }] });
  const stopped = (id: string, yieldG: number, volumeCount: number, flaw: string | null = null): Fact =>
    shot(id, '1', { yieldG, volumeCount, flaw }, 5);
  const open = (facts: Fact[]) => {
    answers['/bar/groups'] = { sheets: [group] };
    const write = vi.fn();
    renderPart(<ButtonStep {...propsOf('button', write, { bar, facts })} />);
    return write;
  };

  it('takes the shots of this morning that its counter stopped, and no other', async () => {
    open([stopped('a', 32, 160), stopped('b', 31.6, 161), stopped('c', 39, 196), stopped('d', 24, 160, 'channel')]);
    expect(await screen.findByText(/Stopped by it this morning/)).toHaveProperty(
      'textContent',
      'Stopped by it this morning: 32.0 g, 31.6 g.',
    );
    expect(screen.getByText('1 more, then the mean can be trusted.')).toBeTruthy();
    expect(isDisabled(/^It /)).toBe(true);
  });

  it('is programmed to the count that gives the yield: the sheet is kept, and the fact tells of it', async () => {
    const write = open([stopped('a', 32, 160), stopped('b', 31.6, 161)]);
    await screen.findByText(/Stopped by it/);
    type(/^Yield \d/, '32.4');
    press('Write it down');
    // 32 g of 160 counts are 0.2 g a count: 4 g more want 20.
    expect(screen.getByText('Programme 180 counts, 20 more, for 36.0 g.')).toBeTruthy();
    press('It is programmed to 180');
    await vi.waitFor(() =>
      expect(written(write)).toEqual({
        step: 'button',
        groupId: '1',
        button: 'Double',
        count: 160,
        yieldsG: [32, 31.6, 32.4],
        nextCount: 180,
      }),
    );
  });
});
