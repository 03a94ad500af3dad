import { act, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { useSettled } from './useSettled.ts';

function List({ order }: { order: string[] }) {
  const settled = useSettled<HTMLUListElement>(order.join());
  return (
    <ul ref={settled}>
      {order.map((name) => (
        <li key={name}>{name}</li>
      ))}
    </ul>
  );
}

const isDeaf = (): boolean => getComputedStyle(screen.getByRole('list')).pointerEvents === 'none';

afterEach(() => {
  vi.useRealTimers();
});

it('touches nothing with the second half of a double tap, which would do what moved under the finger', () => {
  vi.useFakeTimers();
  const { rerender } = render(<List order={['first', 'second']} />);
  expect(isDeaf()).toBe(false);
  rerender(<List order={['second', 'first']} />);
  expect(isDeaf()).toBe(true);
  act(() => void vi.advanceTimersByTime(200));
  rerender(<List order={['second', 'first', 'third']} />);
  act(() => void vi.advanceTimersByTime(200));
  expect(isDeaf()).toBe(true);
  act(() => void vi.advanceTimersByTime(200));
  expect(isDeaf()).toBe(false);
});
