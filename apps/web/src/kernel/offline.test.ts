import { QueryClient } from '@tanstack/react-query';
import { afterEach, expect, it, vi } from 'vitest';
import { restoreReads } from './offline.ts';

afterEach(() => vi.unstubAllGlobals());

it('keeps nobody from the bar where nothing can be kept', async () => {
  const open = vi.fn(() => {
    throw new Error('A private window keeps nothing.');
  });
  vi.stubGlobal('indexedDB', { open });
  await expect(restoreReads(new QueryClient())).resolves.toBeUndefined();
  expect(open).toHaveBeenCalled();
});
