import type { RecipeVersion } from '@tempera/contract/house';
import { usualServicePolicy, type ServicePolicy } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LivePull } from '../capture/index.ts';
import { renderPart } from '../ui/testRender.tsx';
import { PullPanel } from './PullPanel.tsx';
import { RecordedShot } from './RecordedShot.tsx';
import type { BenchView } from './useBench.ts';
import { isCue, useStopping } from './useStopping.ts';

vi.mock('../capture/LiveChart.tsx', () => ({ LiveChart: () => null }));

const recipe = {
  id: 'r1',
  doseG: 18,
  doseToleranceG: 0.3,
  yieldG: 36,
  yieldToleranceG: 1.5,
  timeMinS: 25,
  timeMaxS: 30,
} as RecipeVersion;

/** A shot under way: six dry seconds, then 1.6 g/s. */
function liveAt(elapsedS: number, change: Partial<LivePull> = {}, stoppedAtS: number | null = null): LivePull {
  const massG = Array.from({ length: Math.round(elapsedS * 10) + 1 }, (_, i) => Math.max(0, i / 10 - 6) * 1.6);
  return {
    draft: {
      id: 'pull',
      startedAtMs: 0,
      stoppedAtS,
      doseG: 18,
      groupId: 'g1',
      setting: 30,
      byScale: true,
    },
    elapsedS,
    trace: { hz: 10, massG },
    settled: false,
    lost: false,
    volumeCount: null,
    ...change,
  };
}

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('when to stop', () => {
  /** What the bench makes of a shot under way, once drips and buttons were read. */
  async function stopping(endsShot: ServicePolicy['endsShot'], live: LivePull | null, dripG = 1.6) {
    const drips = [{ groupId: 'g1', meanG: dripG, sdG: 0.4, count: 12 }];
    vi.stubGlobal('fetch', (address: string) =>
      Promise.resolve(
        Response.json(
          address.endsWith('/learned')
            ? { drips, machines: [] }
            : {
                sheets: [
                  {
                    id: 'g1',
                    sheet: {
                      buttons: [
                        { name: 'Single', counts: 92 },
                        { name: 'Double', counts: 180 },
                      ],
                    },
                  },
                ],
              },
        ),
      ),
    );
    const view = {
      group: { id: 'g1' },
      grinder: { recipe },
      house: { ...usualServicePolicy, endsShot },
      facts: [],
    } as unknown as BenchView;
    const seen: { current: (ReturnType<typeof useStopping> & { cue: boolean }) | null } = { current: null };
    function Probe() {
      const stopping = useStopping(view);
      const now = { ...stopping, cue: isCue(stopping, live, view.grinder.recipe.yieldG) };
      seen.current = now;
      return <output>{now.drip.count}</output>;
    }
    renderPart(<Probe />);
    await screen.findByText('12');
    if (endsShot === 'volume') await waitFor(() => expect(seen.current?.stopsAtCount).not.toBeNull());
    return seen.current;
  }

  it('by yield: early enough for the hand and for what still falls on this group', async () => {
    // At 27 s there are 33.6 g; with 0.3 s of the hand at 1.6 g/s that is 34.1 g, and 34.4 are wanted.
    expect((await stopping('yield', liveAt(27)))?.cue).toBe(false);
    cleanup();
    expect((await stopping('yield', liveAt(27.3)))?.cue).toBe(true);
    cleanup();
    // A group that drips twice as much is stopped sooner.
    expect((await stopping('yield', liveAt(26.5), 3.2))?.cue).toBe(true);
  });

  it('by yield: nothing is called when the scale is gone, or nobody pulls', async () => {
    expect((await stopping('yield', liveAt(30, { lost: true })))?.cue).toBe(false);
    cleanup();
    expect((await stopping('yield', null))?.cue).toBe(false);
    cleanup();
    expect((await stopping('yield', liveAt(30, {}, 29)))?.cue).toBe(false);
  });

  it('by time: in the middle of the window, whatever is in the cup', async () => {
    expect((await stopping('time', liveAt(27.4)))?.cue).toBe(false);
    cleanup();
    expect((await stopping('time', liveAt(27.5, { lost: true })))?.cue).toBe(true);
  });

  it('by volume: the button that counts most stops it, and no hand is called', async () => {
    const found = await stopping('volume', liveAt(40));
    expect(found).toMatchObject({ cue: false, stopsAtCount: 180 });
  });
});

describe('the pull panel', () => {
  const open = (live: LivePull | null, change: Partial<Parameters<typeof PullPanel>[0]> = {}) => {
    const [onByHand, onMishap] = [vi.fn(), vi.fn()];
    renderPart(
      <PullPanel
        recipe={recipe}
        live={live}
        resting={null}
        ready={live === null}
        doseG={18.1}
        measuring="scale"
        deviceName="Simulated scale"
        onMeasuring={() => undefined}
        onPull={() => undefined}
        onByHand={onByHand}
        onDiscard={() => undefined}
        onRecording={() => true}
        cue={false}
        band={null}
        mishap={null}
        onMishap={onMishap}
        {...change}
      />,
    );
    return { onByHand, onMishap };
  };

  it('says what is pulled, then stop, then stop now', () => {
    open(null);
    expect(screen.getByRole('button', { name: /^Pull with 18.1 g/ })).toBeTruthy();
    cleanup();
    open(liveAt(12));
    expect(screen.getByRole('button', { name: /^Stop(?! now)/ })).toBeTruthy();
    cleanup();
    open(liveAt(27.4), { cue: true });
    expect(screen.getByRole('button', { name: /^Stop now/ }).dataset.cue).toBe('true');
  });

  it('goes on by the clock when the scale is gone, and has the rest typed', () => {
    open(liveAt(20, { lost: true }));
    expect(screen.getByRole('alert').textContent).toMatch(/The scale is gone. What came is kept; stop by the clock/);
    cleanup();
    const { onByHand } = open(liveAt(27, { lost: true }, 27));
    fireEvent.click(screen.getByRole('button', { name: 'Keep this shot' }));
    expect(onByHand).not.toHaveBeenCalled();
    fireEvent.change(screen.getByRole('textbox', { name: /^Yield/ }), { target: { value: '36,4' } });
    fireEvent.change(screen.getByRole('textbox', { name: /^First drop/ }), { target: { value: '28' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep this shot' }));
    expect(screen.getByText(/cannot fall after the shot has ended/)).toBeTruthy();
    fireEvent.change(screen.getByRole('textbox', { name: /^First drop/ }), { target: { value: '6' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep this shot' }));
    expect(onByHand).toHaveBeenCalledWith({ yieldG: 36.4, timeS: 27, firstDropS: 6 });
  });
});

describe('a recorded shot', () => {
  const file = (text: string): File => {
    const made = new File([text], 'shot.csv', { type: 'text/csv' });
    // The browser stand-in cannot read its own files.
    Object.assign(made, { text: () => Promise.resolve(text) });
    return made;
  };
  const choose = (text: string, onRecording = vi.fn(() => true)) => {
    const { container } = renderPart(<RecordedShot ready onRecording={onRecording} />);
    const input = container.querySelector('input[type="file"]');
    if (!input) throw new Error('no file input');
    fireEvent.change(input, { target: { files: [file(text)] } });
    return onRecording;
  };
  const lines = (rows: string[]): string => ['time_s,mass_g', ...rows].join('\n');

  const many = (stepS: number): string[] => Array.from({ length: 40 }, (_, i) => `${i * stepS},${i}`);

  it.each([
    ['nothing in it', '', /holds no samples/],
    ['another table', 'a,b\n1,2\n3,4', /two columns: time_s and mass_g/],
    ['time that runs back', lines([...many(1), '0.5,1']), /Its time runs back/],
    ['an hour of it', lines(many(20)), /longer than a shot/],
    ['no comma anywhere', '"', /no table of commas/],
  ])('%s says what is wrong, and nothing is kept', async (_, text, says) => {
    const onRecording = choose(text);
    expect((await screen.findByRole('alert')).textContent).toMatch(says);
    expect(onRecording).not.toHaveBeenCalled();
  });

  it('is kept, with the lines that could not be read counted', async () => {
    const rows = Array.from(
      { length: 300 },
      (_, i) => `${(i / 10).toFixed(1)},${i === 40 ? 'x' : Math.max(0, i / 10 - 6)}`,
    );
    const onRecording = choose(lines(rows));
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Kept. 1 line could not be read and was left out/);
    expect(onRecording).toHaveBeenCalledWith(expect.objectContaining({ hz: 10 }));
  });

  it('that shows no shot is told', async () => {
    choose(
      lines(many(1)),
      vi.fn(() => false),
    );
    expect((await screen.findByRole('alert')).textContent).toMatch(/It shows no shot/);
  });
});
