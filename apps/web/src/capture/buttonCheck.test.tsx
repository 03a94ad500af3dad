import type { GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../ui/testAnswers.ts';
import { putOf, weigh } from '../ui/testReadings.ts';
import { renderPart } from '../ui/testRender.tsx';
import { ButtonCheck } from './ButtonCheck.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const answers = {
  '/api/bar': { steps: [], grinders: [] },
  '/api/house/recipes-in-force': {
    recipes: [{ recipeId: 'r', name: 'House double', yieldG: 36, yieldToleranceG: 1.5 }],
  },
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
    const served = serve(answers);
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
