import { act, fireEvent, render, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { useSettled } from './useSettled.ts';

function List({ order, onTap }: { order: string[]; onTap: (name: string) => void }) {
  const settled = useSettled(order.join());
  return (
    <ul {...settled}>
      {order.map((name) => (
        <li key={name}>
          <button onClick={() => onTap(name)}>{name}</button>
        </li>
      ))}
    </ul>
  );
}

it('passes over the second half of a double tap, which would do what moved under the finger', () => {
  vi.useFakeTimers();
  const taps: string[] = [];
  const onTap = (name: string): number => taps.push(name);
  const { rerender } = render(<List order={['first', 'second']} onTap={onTap} />);
  fireEvent.click(screen.getByText('first'));
  rerender(<List order={['second', 'first']} onTap={onTap} />);
  fireEvent.click(screen.getByText('second'));
  expect(taps).toEqual(['first']);
  act(() => void vi.advanceTimersByTime(400));
  fireEvent.click(screen.getByText('second'));
  expect(taps).toEqual(['first', 'second']);
  vi.useRealTimers();
});
