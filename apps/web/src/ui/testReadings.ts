import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, type Mock } from 'vitest';

/** Types weights one after another where a part asks for readings of a kind. */
export function weigh(label: string, grams: readonly string[]): void {
  for (const text of grams) {
    fireEvent.change(screen.getByRole('textbox', { name: new RegExp(`^${label} \\d, g`) }), {
      target: { value: text },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Write it down' }));
  }
}

/** The body of the first PUT that was sent. */
export async function putOf(served: Mock<typeof fetch>): Promise<object> {
  await waitFor(() => expect(served.mock.calls.some(([, init]) => init?.method === 'PUT')).toBe(true));
  const put = served.mock.calls.find(([, init]) => init?.method === 'PUT');
  return JSON.parse(put?.[1]?.body as string) as object;
}
