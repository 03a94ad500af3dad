import { jobsOf, type Job } from '@tempera/core/opening';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { Cautions } from './CautionLine.tsx';
import { JobList } from './JobList.tsx';
import { PlanRun } from './PlanRun.tsx';
import { planFor, type PlanJob } from './planJob.ts';
import { MilkStep } from './steps/MilkStep.tsx';
import { ScaleStep } from './steps/ScaleStep.tsx';
import { WaterStep } from './steps/WaterStep.tsx';
import {
  coffeeOf,
  eachOnItsOwn,
  isDisabled,
  nameOf,
  now,
  openingBar,
  people,
  press,
  propsOf,
  session,
  stepOf,
  type,
  viewOf,
} from './testView.ts';
import { changeWord, faultWord, jobTitle } from './words.ts';

eachOnItsOwn();
const jobs = jobsOf(openingBar);

describe('steps of the run', () => {
  it('water: no water is a word of its own, an old filter is gone on with knowingly', () => {
    const write = vi.fn();
    renderPart(<WaterStep {...propsOf('water', write)} />);
    expect(isDisabled('Water is right')).toBe(true);
    press('No water');
    expect(write).toHaveBeenLastCalledWith({ step: 'water', machineId: 'fern', waterRuns: false, filterInDate: false });
    fireEvent.click(screen.getByRole('checkbox', { name: /Water reaches Fern/ }));
    press('Go on with an old filter');
    expect(write).toHaveBeenLastCalledWith({ step: 'water', machineId: 'fern', waterRuns: true, filterInDate: false });
  });

  it('water: what to do stands there while there is none', () => {
    const none = stepOf({ step: 'water', machineId: 'fern', waterRuns: false, filterInDate: true }, 1);
    renderPart(<WaterStep {...propsOf('water', vi.fn(), { steps: [none] })} />);
    expect(screen.getByRole('alert').textContent).toMatch(/licensed technician/);
  });

  it('scale: two tenths are trusted, three are not, and it says what to do', () => {
    const write = vi.fn();
    renderPart(<ScaleStep {...propsOf('scale', write)} />);
    type(/^The scale shows/, '200.2');
    expect(screen.queryByRole('alert', { name: '' })?.textContent ?? '').not.toMatch(/Off by/);
    press('The scale is right');
    expect(write).toHaveBeenLastCalledWith({ step: 'scale', knownG: 200, shownG: 200.2 });
    type(/^The scale shows/, '200.3');
    expect(screen.getByText(/Off by 0.3 g/)).toBeTruthy();
    press('Note that it is off');
    expect(write).toHaveBeenLastCalledWith({ step: 'scale', knownG: 200, shownG: 200.3 });
  });

  it('milk: a thermometer that lies is told, and the stop moves with it; too much steam stops all', () => {
    const write = vi.fn();
    renderPart(<MilkStep {...propsOf('milk', write)} />);
    fireEvent.click(screen.getByRole('checkbox', { name: /wand/ }));
    type(/^The thermometer shows/, '0');
    const right = /Stop the steam at (\d+)/.exec(document.body.textContent)?.[1];
    type(/^The thermometer shows/, '3');
    expect(screen.getByText(new RegExp(`3.0 °C off. Stop at ${Number(right) + 3}`))).toBeTruthy();
    type(/^Steam/, '1.9');
    expect(screen.getByText(/Steam is above its limit: stop/)).toBeTruthy();
    expect(isDisabled('The milk station is ready')).toBe(true);
    type(/^Steam/, '1.2');
    press('The milk station is ready');
    expect(write).toHaveBeenLastCalledWith({
      step: 'milk',
      purged: true,
      steamBar: 1.2,
      thermometer: { in: 'ice', showedC: 3 },
      stopC: Number(right) + 3,
    });
  });

  it('milk: a station without a thermometer is ended by the hand’s heat', () => {
    const write = vi.fn();
    renderPart(<MilkStep {...propsOf('milk', write)} />);
    fireEvent.click(screen.getByRole('checkbox', { name: /wand/ }));
    fireEvent.click(screen.getByRole('radio', { name: 'There is none' }));
    expect(screen.getByText(/too hot to keep the palm there/)).toBeTruthy();
    press('The milk station is ready');
    expect(write).toHaveBeenLastCalledWith({
      step: 'milk',
      purged: true,
      steamBar: null,
      thermometer: null,
      stopC: null,
    });
  });
});

describe('the list of all jobs', () => {
  it('opens what can be done, and takes back what was', () => {
    const [onOpen, onUndo] = [vi.fn(), vi.fn()];
    const done = stepOf({ step: 'hopper', grinderId: 'house' }, 1);
    renderPart(<JobList view={viewOf({ steps: [done] })} timeZone="UTC" onOpen={onOpen} onUndo={onUndo} head />);
    expect(screen.queryByRole('button', { name: 'Do: Rinse Group 1' })).toBeNull();
    press('Do: Check the scale');
    expect(onOpen).toHaveBeenCalledWith('scale:bar');
    fireEvent.click(screen.getByText('1 done or left out'));
    press('Take back: Fill House with Trowel blend');
    expect(onUndo).toHaveBeenCalledWith(expect.objectContaining({ factId: done.id }));
  });
});

describe('a caution', () => {
  it('is put away by one person for themselves', () => {
    renderPart(<Cautions dangers={['scald']} personId="ines" />);
    expect(screen.getByText(/never unlock under pressure/)).toBeTruthy();
    press('Put this caution away');
    expect(screen.queryByText(/never unlock/)).toBeNull();
    cleanup();
    renderPart(<Cautions dangers={['scald']} personId="noor" />);
    expect(screen.getByText(/never unlock/)).toBeTruthy();
  });
});

describe('planning a run', () => {
  const { bar, facts } = viewOf();
  const planning = { session, people, grinders: bar.grinders, facts, nowMs: now, planned: null, wanted: null };

  it('offers the afternoon over the grinders that are in use once the day was signed for', () => {
    const onPlan = vi.fn();
    const signed = viewOf({ steps: [stepOf({ step: 'signedOff', notRight: [] }, 1)] });
    renderPart(<PlanRun nameOf={() => 'Somewhere'} {...planning} facts={signed.facts} onPlan={onPlan} />);
    expect(screen.getByText(/what taste decided this morning stands/)).toBeTruthy();
    press('Begin the afternoon');
    expect(onPlan).toHaveBeenCalledWith(
      expect.objectContaining({ run: 'afternoon', grinderIds: ['house'], opensAt: '2031-05-04T06:30:00.000Z' }),
    );
  });

  it('offers the opening after a closing that was signed, be it the same evening', () => {
    const step = { opensAt: '2031-05-04T05:00:00Z', detergent: false, people: [] };
    const closing = [
      stepOf({ step: 'planned', run: 'closing', from: new Date(now - 3_600_000).toISOString(), ...step }, -60),
      stepOf({ step: 'signedOff', notRight: [] }, -5),
    ];
    renderPart(
      <PlanRun nameOf={() => 'Somewhere'} {...planning} facts={viewOf({ steps: closing }).facts} onPlan={vi.fn()} />,
    );
    expect(screen.getByRole('button', { name: 'Begin the opening' })).toBeTruthy();
  });

  it('asks for the hour and who is in, by the café’s clock', () => {
    const onPlan = vi.fn();
    renderPart(<PlanRun nameOf={() => 'Somewhere'} {...planning} onPlan={onPlan} />);
    fireEvent.change(screen.getByLabelText('The bar opens at'), { target: { value: '07:15' } });
    fireEvent.click(screen.getByRole('checkbox', { name: 'Noor' }));
    fireEvent.change(screen.getByLabelText('Noor is in from'), { target: { value: '06:20' } });
    press('Begin the opening');
    expect(onPlan).toHaveBeenCalledWith({
      step: 'planned',
      opensAt: '2031-05-04T07:15:00.000Z',
      from: '2031-05-04T06:00:00.000Z',
      detergent: false,
      people: [
        { personId: 'ines', from: '2031-05-04T06:00:00.000Z' },
        { personId: 'noor', from: '2031-05-04T06:20:00.000Z' },
      ],
    });
  });

  it('gives a plan, a chance and a latest switch-on where no worker can run', () => {
    const morning = viewOf();
    const job: PlanJob = {
      key: 'k',
      input: {
        morning: morning.morning,
        jobs: morning.states,
        people,
        history: {},
        warmUps: new Map([['fern', { meanMin: 25, sdMin: 3 }]]),
        onSinceMs: new Map(),
        scales: 1,
        nowMs: now,
      },
      bar: { ...morning.bar, house: { ...morning.bar.house, sureness: 0.9 } },
      facts: [],
      effort: { tries: 20, solverS: 0 },
    };
    const found = planFor(job, null);
    expect(found.plan.tasks).toHaveLength(jobs.length);
    expect(found.plan.gap).toBe(0);
    expect(found.ready.chance).toBeGreaterThan(0.9);
    expect(found.latestSwitchOnMin).toBeGreaterThan(10);
  });
});

describe('words', () => {
  const job = (kind: Job['kind']): Job => {
    const found = jobs.find((one) => one.kind === kind);
    if (!found) throw new Error(kind);
    return found;
  };
  it('name the deed and the station', () => {
    expect(jobTitle(job('dial'), { nameOf, coffeeOf })).toBe('Dial in House on Group 1');
    expect(jobTitle(job('switchOn'), { nameOf, coffeeOf })).toBe('Switch Fern on');
    expect(jobTitle(job('signOff'), { nameOf, coffeeOf })).toBe('Sign off');
  });
  it('say plainly what is not right', () => {
    const says = (fault: Parameters<typeof faultWord>[0], kind: Job['kind']) =>
      faultWord(fault, job(kind), { nameOf, coffeeOf });
    expect(says({ kind: 'notRight', key: '', what: 'noWater' }, 'water')).toMatch(/^Fern gets no water. .*technician/);
    expect(says({ kind: 'skipped', key: '', why: 'No time' }, 'rinse')).toBe('Left out: Rinse Group 1. No time');
    expect(changeWord({ kind: 'again', key: 'k' }, () => 'Rinse Group 1')).toBe('to be done again: Rinse Group 1');
  });
});
