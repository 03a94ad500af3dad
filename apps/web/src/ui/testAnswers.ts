import { vi, type Mock } from 'vitest';

/** A server that answers by address, and with nothing elsewhere; what it was asked can be looked at. */
export function serve(answers: Record<string, object>): Mock<typeof fetch> {
  const served = vi.fn<typeof fetch>((input) => Promise.resolve(Response.json(answers[input as string] ?? {})));
  vi.stubGlobal('fetch', served);
  return served;
}
