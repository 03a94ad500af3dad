import { afterEach, describe, expect, it, vi } from 'vitest';
import { api, ApiProblem, sentenceOf, Unreachable } from './api.ts';
import { mergeFacts } from './mergeFacts.ts';

const answer = (body: unknown, status = 200): void => {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(status === 204 ? null : text, { status })));
};
afterEach(() => vi.unstubAllGlobals());

describe('a request', () => {
  it('gives what the server gives', async () => {
    answer({ ok: 1 });
    await expect(api('GET', '/x')).resolves.toEqual({ ok: 1 });
    answer('', 204);
    await expect(api('DELETE', '/x')).resolves.toBeUndefined();
  });

  it('throws the problem with its sentence', async () => {
    answer({ type: 'urn:x', title: 'No', status: 422, detail: 'Check the number.', code: 'invalid' }, 422);
    const failed = await api('POST', '/x', {}).catch((error: unknown) => error);
    expect(failed).toBeInstanceOf(ApiProblem);
    expect(sentenceOf(failed)).toBe('Check the number.');
  });

  it('takes no answer, and a page from somebody in between, as out of reach', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed')));
    await expect(api('GET', '/x')).rejects.toBeInstanceOf(Unreachable);
    answer('<html>502 Bad Gateway</html>', 502);
    await expect(api('GET', '/x')).rejects.toBeInstanceOf(Unreachable);
  });

  it('has a sentence for what nobody foresaw', () => {
    expect(sentenceOf(new RangeError('index 7'))).toMatch(/^Something went wrong/);
  });
});

describe('facts from here and from the server', () => {
  it('count once each, and not at all when they were refused', () => {
    const fact = (id: string) => ({ id }) as never;
    const entry = (id: string, refusal: string | null) => ({ fact: fact(id), personId: 'ines', refusal });
    const merged = mergeFacts([fact('a'), fact('b')], [entry('b', null), entry('c', null), entry('d', 'No.')]);
    expect(merged.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  });
});
