import { cleanup, configure } from '@testing-library/react';
import { afterAll, afterEach, vi } from 'vitest';

/** On a busy machine a page takes seconds to draw what it takes moments for elsewhere. */
const PATIENCE_MS = 20_000;

configure({ asyncUtilTimeout: PATIENCE_MS });

// Nothing scrolls where nothing is laid out; newer browsers answer with a promise, whatever the types say.
if (typeof Element !== 'undefined') {
  const scrolled: unknown = () => Promise.resolve();
  Element.prototype.scrollIntoView = scrolled as typeof Element.prototype.scrollIntoView;
}

// Files share their modules, and what the library hangs up by itself it hangs up for the first file only.
afterEach(cleanup);
// A clock that one file stopped would hang the next one in its worker.
afterAll(() => {
  vi.useRealTimers();
});
