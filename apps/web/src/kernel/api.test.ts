import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, call, sentenceOf, Unreachable } from './api.ts';
import { answerProof, useProofAsked } from './proof.ts';
import { standingOf } from './standing.ts';

const answer = (body: unknown, status = 200): void => {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(status === 204 ? null : text, { status })));
};
afterEach(() => vi.unstubAllGlobals());

describe('a request', () => {
  it('gives what the server gives', async () => {
    answer({ ok: 1 });
    await expect(call('GET /bar')).resolves.toEqual({ ok: 1 });
    answer('', 204);
    await expect(call('DELETE /session')).resolves.toBeUndefined();
  });

  it('asks at the address of its route, with what it names', async () => {
    const asked: string[] = [];
    vi.stubGlobal('fetch', (address: string, { method, body }: RequestInit) => {
      asked.push(`${method ?? ''} ${address}${typeof body === 'string' ? ` ${body}` : ''}`);
      return Promise.resolve(new Response('{}'));
    });
    await call('GET /benches/{grinderId}', { params: { grinderId: 'a/b' } });
    await call('GET /coffee/bags', { query: { search: 'moss & fern', page: 2, descending: true } });
    await call('PUT /session/units', { body: { mass: 'oz', volume: 'ml', temperature: '°C', pressure: 'bar' } });
    expect(asked).toEqual([
      'GET /api/benches/a%2Fb',
      'GET /api/coffee/bags?search=moss+%26+fern&page=2&descending=true',
      'PUT /api/session/units {"mass":"oz","volume":"ml","temperature":"°C","pressure":"bar"}',
    ]);
  });

  it('goes on by itself once the PIN that it wants was given, and not before', async () => {
    let proven = false;
    const pinAgain = { type: 'urn:x', title: 'PIN', status: 403, detail: 'Your PIN.', code: 'pinAgain' };
    vi.stubGlobal('fetch', () =>
      Promise.resolve(proven ? new Response('{"ok":1}') : new Response(JSON.stringify(pinAgain), { status: 403 })),
    );
    // Where nothing shows the question nobody can answer it.
    await expect(call('GET /bar')).rejects.toThrow('Your PIN.');
    const { result } = renderHook(() => useProofAsked());
    const refused = call('GET /bar');
    await waitFor(() => expect(result.current).toBe(true));
    act(() => answerProof(false));
    await expect(refused).rejects.toThrow('Your PIN.');
    const both = Promise.all([call('GET /bar'), call('GET /welcome')]);
    await waitFor(() => expect(result.current).toBe(true));
    proven = true;
    act(() => answerProof(true));
    await expect(both).resolves.toEqual([{ ok: 1 }, { ok: 1 }]);
  });

  it('throws the problem with its sentence', async () => {
    answer({ type: 'urn:x', title: 'No', status: 422, detail: 'Check the number.', code: 'invalid' }, 422);
    const failed = await call('POST /facts', { body: {} as never }).catch((error: unknown) => error);
    expect(failed).toBeInstanceOf(ApiProblem);
    expect(sentenceOf(failed)).toBe('Check the number.');
  });

  it('takes no answer, and a page from somebody in between, as out of reach', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed')));
    await expect(call('GET /bar')).rejects.toBeInstanceOf(Unreachable);
    answer('<html>502 Bad Gateway</html>', 502);
    await expect(call('GET /bar')).rejects.toBeInstanceOf(Unreachable);
  });

  it('has a sentence for what nobody foresaw', () => {
    expect(sentenceOf(new RangeError('index 7'))).toMatch(/^Something went wrong/);
  });
});

describe('facts from here and from the server', () => {
  it('count once each, and not at all when they were refused', () => {
    const fact = (id: string, at = `2031-05-04T06:00:0${id.charCodeAt(0) - 96}Z`, skewMs: number | null = null) =>
      ({ id, at, skewMs, kind: 'purge', grinderId: 'g', body: {} }) as never;
    const entry = (of: never, refusal: string | null = null) => ({ fact: of, refusal });
    const merged = standingOf([fact('a'), fact('b')], [entry(fact('b')), entry(fact('c')), entry(fact('d'), 'No.')]);
    expect(merged.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    // Written by a clock that is a quarter of an hour fast, between the two.
    const fast = fact('e', '2031-05-04T06:15:01.500Z', 900_000);
    expect(standingOf([fact('a'), fact('b')], [entry(fast)]).map(({ id }) => id)).toEqual(['a', 'e', 'b']);
  });
});
