import type { StepFact } from '@tempera/core/facts';
import { act, cleanup, fireEvent, screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { OutboxContext } from '../../kernel/facts.tsx';
import { standInOutbox } from '../../kernel/testOutbox.ts';
import { renderPart } from '../../ui/testRender.tsx';
import { answers, eachOnItsOwn, isDisabled, press, propsOf, session, stepOf, type viewOf } from '../testView.ts';
import { TasteStep } from './TasteStep.tsx';

eachOnItsOwn();

let minutes = 0;
const sheet = (tasterId: string, said: object, tdsPct: number | null = null): StepFact =>
  stepOf(
    {
      ...{ step: 'tasted', grinderId: 'house', tasterId, notes: [], tdsPct },
      ...{ sourBitter: null, weakStrong: null, body: null, sweetness: null },
      ...said,
    },
    (minutes += 1),
  );

async function taste(given: Parameters<typeof viewOf>[0] = {}) {
  answers['/session'] = session;
  const { outbox, written } = standInOutbox();
  renderPart(
    <OutboxContext value={outbox}>
      <TasteStep {...propsOf('taste', () => undefined, given)} />
    </OutboxContext>,
  );
  // Who stands here is known a moment later, and signs what is written.
  await act(async () => new Promise((resolve) => setTimeout(resolve)));
  return { bodies: () => written().map(({ body }) => body), kinds: () => written().map(({ kind }) => kind) };
}
const score = (axis: RegExp, points: string): boolean =>
  fireEvent.click(within(screen.getByRole('radiogroup', { name: axis })).getByRole('radio', { name: points }));

describe('a sheet', () => {
  it('keeps what was touched, and nothing of what was not; a cup can be sour and bitter', async () => {
    const { bodies } = await taste();
    expect(isDisabled('Keep Ines’s sheet')).toBe(true);
    score(/^Acidity/, '9');
    score(/^Bitterness/, '7');
    fireEvent.click(screen.getByRole('checkbox', { name: 'citrus' }));
    press('Keep Ines’s sheet');
    expect(bodies()).toEqual([
      {
        ...{ step: 'tasted', grinderId: 'house', tasterId: 'ines', shotId: null, notes: ['citrus'], tdsPct: null },
        ...{ acidity: 9, bitterness: 7, strength: null, finish: null, body: null, sweetness: null },
        ...{ sourBitter: null, weakStrong: null },
      },
    ]);
  });

  it('is enough with better or worse than the last', async () => {
    const { bodies } = await taste({ steps: [sheet('ines', { acidity: 5 })] });
    fireEvent.click(screen.getByRole('radio', { name: 'better' }));
    press('Keep Ines’s sheet');
    expect(bodies()).toMatchObject([{ step: 'tasted', than: 'better', acidity: null }]);
  });
});

describe('what is made of the sheets', () => {
  it('one change by the house’s school, of what two say in the mean; strength makes an extraction', async () => {
    const { bodies } = await taste({ steps: [sheet('ines', { acidity: 9 }, 9.5), sheet('noor', { acidity: 7 })] });
    expect(screen.getByText(/2 tasters, in the mean/)).toBeTruthy();
    // 9.5 % of 36 g from 18 g: 19 %.
    expect(screen.getByText('19.0 %')).toBeTruthy();
    expect(screen.getByText(/^It is too sour. One change: Stop at 38.2 g instead of 36.0 g/)).toBeTruthy();
    press('Stop at 38.2 g instead of 36.0 g');
    expect(bodies()).toEqual([{ step: 'tasteSettled', grinderId: 'house', change: { lever: 'yield', by: 0.06 } }]);
  });

  it('another lever may be chosen; a turn of the collar is written as one, with its purge', async () => {
    const { bodies, kinds } = await taste({ steps: [sheet('ines', { acidity: 9 })] });
    press('One mark finer');
    expect(kinds()).toEqual(['step', 'collarMove', 'purge']);
    expect(bodies().slice(0, 2)).toMatchObject([
      { step: 'tasteSettled', change: { lever: 'grind', by: 1 } },
      { from: 30, to: 29, advisedTo: 29 },
    ]);
  });

  it('sour and bitter at once: the bed is looked at first, and both changes can be made in one go', async () => {
    const { bodies } = await taste({ steps: [sheet('ines', { acidity: 9, bitterness: 9 })] });
    expect(screen.getByText(/Distribute with care and pull it again/)).toBeTruthy();
    press(/^Weigh 17.6 g instead of 18.0 g.*, and one mark coarser$/);
    expect(bodies()).toMatchObject([
      { change: { lever: 'dose', by: -0.4 } },
      { change: { lever: 'grind', by: -1 } },
      { from: 30, to: 31 },
      { purgeG: expect.any(Number) as number },
    ]);
  });

  it('nobody’s word on the axes changes nothing, and tasters far apart are sent back to the cup', async () => {
    await taste({ steps: [sheet('ines', { sweetness: 8 })] });
    expect(screen.getByText(/Nobody said whether it is sour/)).toBeTruthy();
    await taste({ steps: [sheet('ines', { acidity: 2 }), sheet('noor', { acidity: 8 })] });
    expect(screen.getByText(/6 apart: taste the same cup again/)).toBeTruthy();
  });

  it('once it is decided says what holds from now on, and leads to the shot that shows it', async () => {
    const settled = (change: object | null): StepFact =>
      stepOf({ step: 'tasteSettled', grinderId: 'house', change } as StepFact['body'], (minutes += 1));
    await taste({ steps: [sheet('ines', { acidity: 9, bitterness: 9 }), settled({ lever: 'dose', by: -0.4 })] });
    expect(screen.getByRole('status').textContent).toBe('It is changed: 0.4 g less coffee.');
    expect(screen.getByRole('link', { name: 'Pull one so' }).getAttribute('href')).toBe('/bench/house');
    expect(screen.queryByText(/Purge/)).toBeNull();
    cleanup();
    await taste({ steps: [sheet('ines', { acidity: 9 }), settled({ lever: 'grind', by: 1 })] });
    expect(screen.getByText(/^The collar belongs at 30 now. Purge \d+.\d g before the next dose.$/)).toBeTruthy();
    cleanup();
    await taste({ steps: [sheet('ines', { acidity: 9 }), settled(null)] });
    expect(screen.getByRole('status').textContent).toBe('It stays as it is.');
    expect(screen.getByRole('link', { name: 'Back to the bar' })).toBeTruthy();
  });

  it('can be taken back', async () => {
    const settled = stepOf({ step: 'tasteSettled', grinderId: 'house', change: { lever: 'yield', by: 0.06 } }, 1);
    const { bodies } = await taste({ steps: [settled] });
    // What was changed, and not what it would be once more.
    expect(screen.getByText('Changed for taste today: 6 % more in the cup')).toBeTruthy();
    press('Take it back');
    expect(bodies()).toMatchObject([{ step: 'takenBack', takesBack: settled.id }]);
  });

  it('takes back in one go what was decided in one go, and nothing that was decided before', async () => {
    const settled = (change: object, at: number): StepFact =>
      stepOf({ step: 'tasteSettled', grinderId: 'house', change } as StepFact['body'], at);
    const [first, dose, later] = [
      settled({ lever: 'yield', by: 0.06 }, 50),
      settled({ lever: 'dose', by: -0.4 }, 60),
      settled({ lever: 'window', by: -2 }, 60.001),
    ];
    const { bodies } = await taste({ steps: [first, dose, later] });
    expect(screen.getByText('Changed for taste today: 0.4 g less coffee, the window 2 s earlier')).toBeTruthy();
    fireEvent.click(screen.getAllByRole('button', { name: 'Take it back' })[1]!);
    expect(bodies().map((body) => 'takesBack' in body && body.takesBack)).toEqual([dose.id, later.id]);
  });
});
