import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { BenchDevices } from '../capture/index.ts';
import type { Grinder } from '@tempera/contract/bar';
import { renderPart } from '../ui/testRender.tsx';
import { WeighDose } from './WeighDose.tsx';

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const grinder = { recipe: { doseG: 18, doseToleranceG: 0.3, doseWindow: null }, basketG: null } as unknown as Grinder;

/** A bench with a scale, and a grinder that takes no orders. */
function bench() {
  let say: (g: number) => void = () => undefined;
  const devices = {
    name: 'Counter',
    grinder: null,
    scale: {
      listen: (onReading) => {
        say = (g) => onReading({ atMs: Date.now(), g, stable: true });
        return () => undefined;
      },
    },
  } as BenchDevices;
  const onKeep = vi.fn();
  renderPart(
    <WeighDose
      grinder={grinder}
      askedG={18}
      dosing="timed"
      beans={false}
      grindTimeS={8.2}
      devices={devices}
      current
      onKeep={onKeep}
    />,
  );
  return {
    onKeep,
    stands: (g: number) =>
      act(() => {
        say(g);
        vi.advanceTimersByTime(300);
      }),
  };
}

describe('a dose on a real scale', () => {
  it('is taken off the scale with one tap and kept with another, with the time that was ground', () => {
    const { onKeep, stands } = bench();
    expect(screen.queryByRole('button', { name: /^Grind \d/ })).toBeNull();
    stands(17.96);
    fireEvent.click(screen.getByRole('button', { name: 'On the scale: 18.0 g' }));
    fireEvent.click(screen.getByRole('button', { name: 'Keep 18.0 g' }));
    expect(onKeep).toHaveBeenCalledWith({ doseG: 18, grindTimeS: 8.2, measuredBy: 'scale' });
  });

  it('lights the way for a dose, not for the cup that still stands there', () => {
    const { stands } = bench();
    const lit = (g: string): string | null =>
      screen.getByRole('button', { name: `On the scale: ${g} g` }).getAttribute('data-variant');
    stands(124.9);
    expect(lit('124.9')).toBe('default');
    stands(18.1);
    expect(lit('18.1')).toBe('filled');
  });

  it('that is typed otherwise was measured by hand; and a silent scale is not shown', () => {
    const { onKeep, stands } = bench();
    stands(17.96);
    fireEvent.click(screen.getByRole('button', { name: 'On the scale: 18.0 g' }));
    fireEvent.change(screen.getByRole('textbox', { name: /On the scale/ }), { target: { value: '18.2' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep 18.2 g' }));
    expect(onKeep).toHaveBeenCalledWith({ doseG: 18.2, grindTimeS: 8.2, measuredBy: 'hand' });
    act(() => void vi.advanceTimersByTime(6_000));
    expect(screen.queryByRole('button', { name: /^On the scale: \d/ })).toBeNull();
  });
});
