import type { Grinder, GrinderSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../ui/testAnswers.ts';
import { putOf, weigh } from '../ui/testReadings.ts';
import { renderPart } from '../ui/testRender.tsx';
import { DoseCheck } from './DoseCheck.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
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
    const served = serve({});
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
