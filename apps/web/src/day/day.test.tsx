import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import { standInOutbox } from '../kernel/testOutbox.ts';
import { renderPart } from '../ui/testRender.tsx';
import { serve } from '../ui/testAnswers.ts';
import { dayTimesWord, dosesWord, timesOf } from './daysWords.ts';
import { earlyWord, groupWord, morningsWord } from './morningWords.ts';
import { TimeAShot } from './TimeAShot.tsx';
import type { DayStation } from './useDay.ts';

afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.unstubAllGlobals();
});

const session: Session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};
const station = {
  grinder: { id: 'house', recipe: { id: 'recipe', doseG: 18, yieldG: 36, timeMinS: 25, timeMaxS: 30 } },
  house: { dosing: 'timed', yieldBy: 'glass' },
  state: { setting: 30 },
  doseG: 18,
} as unknown as DayStation;

async function timing() {
  serve({ '/api/session': session });
  const { outbox, written } = standInOutbox();
  const onDone = vi.fn();
  renderPart(
    <OutboxContext value={outbox}>
      <TimeAShot station={station} groupId="g1" onDone={onDone} />
    </OutboxContext>,
  );
  await act(async () => new Promise((resolve) => setTimeout(resolve)));
  return { written, onDone };
}
const press = (name: string): boolean => fireEvent.click(screen.getByRole('button', { name }));

describe('a customer’s own shot', () => {
  it('is timed by typed seconds, as it should for the rest, and says nothing against the lock', async () => {
    const { written, onDone } = await timing();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('Time, s'), { target: { value: 'quick' } });
    expect(screen.getByText(/Type the shot time as a number/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Time, s'), { target: { value: '28,4' } });
    press('Keep it');
    expect(written()).toMatchObject([
      {
        kind: 'shot',
        grinderId: 'house',
        groupId: 'g1',
        body: {
          timeS: 28.4,
          yieldG: 36,
          doseG: 18,
          setting: 30,
          check: true,
          measured: { dose: 'timed', yield: 'eye' },
        },
      },
    ]);
    expect(onDone).toHaveBeenCalledOnce();
  });

  it('a yield that was typed was weighed', async () => {
    const { written } = await timing();
    fireEvent.change(screen.getByLabelText('Time, s'), { target: { value: '27' } });
    fireEvent.change(screen.getByLabelText('Yield, g'), { target: { value: '37.2' } });
    press('Keep it');
    expect(written()[0]?.body).toMatchObject({ yieldG: 37.2, measured: { dose: 'timed' } });
  });

  it('is read off a marked glass where the house does so, and kept with its millilitres', async () => {
    const { written } = await timing();
    fireEvent.change(screen.getByLabelText('Time, s'), { target: { value: '24' } });
    fireEvent.click(screen.getByRole('radio', { name: 'In a glass' }));
    // 36 g at 0.767 g a millilitre, as glasses usually weigh.
    expect(screen.getByLabelText<HTMLInputElement>('Yield, ml').value).toBe('47');
    fireEvent.change(screen.getByLabelText('Yield, ml'), { target: { value: '30' } });
    expect(screen.getByText('About 23.0 g, crema included.')).toBeTruthy();
    press('Keep it');
    expect(written()[0]?.body).toMatchObject({
      yieldG: 23,
      glassMl: 30,
      measured: { dose: 'timed', yield: 'glass' },
    });
  });

  it('runs from start to stop; three taps are enough', async () => {
    const now = vi.spyOn(Date, 'now').mockReturnValue(1_000);
    const { written } = await timing();
    press('Start');
    now.mockReturnValue(28_600);
    press('Stop');
    press('Keep it');
    // Dated when it began, as at the bench.
    expect(written()[0]).toMatchObject({ at: '1970-01-01T00:00:01.000Z', body: { timeS: 27.6, setting: 30 } });
    now.mockRestore();
  });

  it('runs on while somebody looks elsewhere, and one that was left for long says nothing', async () => {
    const now = vi.spyOn(Date, 'now').mockReturnValue(1_000);
    await timing();
    press('Start');
    cleanup();
    now.mockReturnValue(21_000);
    const { written } = await timing();
    expect(screen.getByLabelText<HTMLInputElement>('Time, s').value).toBe('20.0');
    now.mockReturnValue(27_300);
    press('Stop');
    cleanup();
    // Stopped, and not yet kept: its seconds stand.
    now.mockReturnValue(900_000);
    await timing();
    expect(screen.getByLabelText<HTMLInputElement>('Time, s').value).toBe('26.3');
    press('Start');
    cleanup();
    now.mockReturnValue(1_100_000);
    await timing();
    expect(screen.getByText(/^It was left running/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Time, s').value).toBe('');
    expect(written()).toEqual([]);
    now.mockRestore();
  });
});

describe('days in numbers', () => {
  const day = {
    day: '2031-05-04',
    shots: 2,
    timed: 2,
    inside: 2,
    meanLn: 0,
    sdLn: 0.1,
    windowS: { min: 16, max: 25 },
    moves: 0,
    bags: 0,
    doses: 0,
    dosesInside: 0,
    doseOffG: null,
  };

  it('are all told in the window of now, as far from its middle as they were from their own', () => {
    const before = { ...day, windowS: { min: 25, max: 36 }, meanLn: Math.log(1.1), sdLn: null };
    // By hand: the middle of 16..25 is 20; a tenth over it is 22, though it was 33 s then.
    expect(timesOf(before, [before, day])?.meanS).toBeCloseTo(22);
    expect(dayTimesWord(before, [before, day])).toBe('22.0 s');
    expect(dayTimesWord(day, [before, day])).toBe('20.0 ± 2.0 s');
    expect(dayTimesWord({ ...day, meanLn: null }, [day])).toBe('–');
  });

  it('say by how much doses were off, and nothing of less than the scale shows', () => {
    expect(dosesWord(38, 40, 0.12)).toBe('38 of 40 doses on the scale were inside; on average 0.1 g over.');
    expect(dosesWord(1, 1, -0.04)).toBe('1 of 1 dose on the scale was inside; on average as asked.');
  });
});

describe('how the mornings went', () => {
  const at = (time: string): number => Date.parse(`2031-05-04T${time}:00Z`);
  const morning = (from: string, ready: string, doors = '07:30') => ({
    day: '2031-05-04',
    fromMs: at(from),
    readyMs: at(ready),
    opensMs: at(doors),
  });

  it('is told by the usual one, with those that were late', () => {
    const three = [morning('05:30', '07:00'), morning('05:30', '07:10'), morning('05:40', '07:40')];
    // 90, 100 and 120 min: the middle one is 100.
    expect(morningsWord(three)).toBe('Ready after 100 min on the usual morning, before the doors on 2 of 3 mornings.');
    expect(three.map(earlyWord)).toEqual(['30 min before', '20 min before', '10 min late']);
  });

  it('says of a group what it adds in seconds, and nothing where that is within its doubt', () => {
    // By hand: exp(-0.04) is 0.9608, so 27 s are 1.06 s shorter; the doubt is 0.02 of 27 s.
    expect(groupWord({ mean: -0.04, sd: 0.02 }, 27)).toBe(
      '1.1 s faster than the others on a shot of 27 s, give or take 0.5 s',
    );
    expect(groupWord({ mean: 0.01, sd: 0.02 }, 27)).toBe('as the others, give or take 0.5 s');
  });
});
