import { renderHook } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { cue, notify, useAwake, useCue } from './senses.ts';

afterEach(() => {
  vi.unstubAllGlobals();
  localStorage.clear();
});

/** The device as it is, and with this too. */
const deviceWith = (more: object): void =>
  void vi.stubGlobal('navigator', Object.assign(Object.create(navigator), more));

const shaken = () => {
  const vibrate = vi.fn(() => true);
  deviceWith({ vibrate });
  return vibrate;
};

describe('a cue', () => {
  it('is felt once each time that something becomes so, and not before', () => {
    const vibrate = shaken();
    const { rerender } = renderHook(({ so }) => useCue('stop', so), { initialProps: { so: true } });
    expect(vibrate).not.toHaveBeenCalled();
    rerender({ so: false });
    rerender({ so: true });
    rerender({ so: true });
    expect(vibrate).toHaveBeenCalledTimes(1);
  });

  it('is silent where somebody switched it off', () => {
    const vibrate = shaken();
    localStorage.setItem('tempera.sounds', 'false');
    cue('due');
    expect(vibrate).not.toHaveBeenCalled();
  });
});

describe('the screen', () => {
  it('is held on while something goes on, and let go after it', async () => {
    const release = vi.fn(() => Promise.resolve());
    const request = vi.fn(() => Promise.resolve({ release }));
    deviceWith({ wakeLock: { request } });
    const { rerender } = renderHook(({ on }) => useAwake(on), { initialProps: { on: false } });
    expect(request).not.toHaveBeenCalled();
    rerender({ on: true });
    expect(request).toHaveBeenCalledTimes(1);
    await Promise.resolve();
    rerender({ on: false });
    await vi.waitFor(() => expect(release).toHaveBeenCalled());
  });

  it('is as before where the device says no', async () => {
    const request = vi.fn(() => Promise.reject(new Error('low on power')));
    deviceWith({ wakeLock: { request } });
    expect(() => renderHook(() => useAwake(true))).not.toThrow();
    await vi.waitFor(() => expect(request).toHaveBeenCalled());
  });
});

describe('a word from the system', () => {
  it('comes only where it is allowed and the page is not in front', () => {
    const Told = vi.fn();
    vi.stubGlobal('Notification', Object.assign(Told, { permission: 'granted' }));
    notify('Time a shot of House', 'It is due.');
    expect(Told).not.toHaveBeenCalled();
    vi.spyOn(document, 'hidden', 'get').mockReturnValue(true);
    notify('Time a shot of House', 'It is due.');
    expect(Told).toHaveBeenCalledTimes(1);
    vi.restoreAllMocks();
  });
});
