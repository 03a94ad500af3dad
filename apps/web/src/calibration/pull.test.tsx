import type { RecipeVersion } from '@tempera/contract/house';
import { glassWeight } from '@tempera/core/capture';
import { usualServicePolicy, type ServicePolicy } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LivePull } from '../capture/index.ts';
import { renderPart } from '../ui/testRender.tsx';
import { HandEntry } from './HandEntry.tsx';
import { ForgottenPull, PullElsewhere } from './PullHelp.tsx';
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
    cupG: null,
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
    const did = { onPull: vi.fn(), onDrop: vi.fn(), onDiscard: vi.fn(), onKeepNow: vi.fn(), onEnter: vi.fn() };
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
        onRecording={() => true}
        cue={false}
        band={null}
        mishap={null}
        mishaps={[]}
        onMishap={() => undefined}
        asks={false}
        instead={null}
        {...did}
        {...change}
      />,
    );
    return did;
  };
  const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));

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

  it('pulls whatever is advised, and without a weighed dose', () => {
    const did = open(null, { ready: false, doseG: null });
    press(/^Pull/);
    expect(did.onPull).toHaveBeenCalledOnce();
    press('Enter a shot');
    expect(did.onEnter).toHaveBeenCalledOnce();
  });

  it('can be thrown away while it runs and while it drips', () => {
    const running = open(liveAt(12));
    press('It was none');
    expect(running.onDiscard).toHaveBeenCalledOnce();
    cleanup();
    const dripping = open(liveAt(28, {}, 27));
    press('Type the rest');
    expect(dripping.onKeepNow).toHaveBeenCalledOnce();
    press('It was none');
    expect(dripping.onDiscard).toHaveBeenCalledOnce();
  });

  it('says how far ahead or behind it is, in grams', () => {
    // By hand: 36 g evenly from the drop at 6 s to 27.5 s; at 20 s that is 23.4 g, and 22.4 g are in the cup.
    open(liveAt(20));
    expect(screen.getByText('behind').parentElement?.textContent).toMatch(/behind(1\.\d) g/);
  });

  it('takes the first drop by one tap where no scale sees it', () => {
    const byHand = liveAt(6);
    const did = open({ ...byHand, draft: { ...byHand.draft, byScale: false } });
    press('First drop');
    expect(did.onDrop).toHaveBeenCalledOnce();
    cleanup();
    open({ ...byHand, draft: { ...byHand.draft, byScale: false, firstDropS: 5.8 } });
    expect(screen.queryByRole('button', { name: 'First drop' })).toBeNull();
    expect(screen.getByText('5.8')).toBeTruthy();
  });

  it('goes on by the clock when the scale is gone', () => {
    open(liveAt(20, { lost: true }));
    expect(screen.getByRole('alert').textContent).toMatch(/The scale is gone. What came is kept; stop by the clock/);
  });
});

describe('numbers by hand', () => {
  const open = (change: Partial<Parameters<typeof HandEntry>[0]> = {}) => {
    const [onKeep, onDiscard] = [vi.fn(), vi.fn()];
    renderPart(
      <HandEntry
        recipe={recipe}
        glass={glassWeight([])}
        way="scale"
        timeS={26.4}
        firstDropS={null}
        doseG={null}
        cupG={null}
        onKeep={onKeep}
        onDiscard={onDiscard}
        {...change}
      />,
    );
    return { onKeep, onDiscard };
  };
  const field = (name: RegExp): HTMLInputElement => screen.getByRole('textbox', { name });
  const type = (name: RegExp, value: string): boolean => fireEvent.change(field(name), { target: { value } });
  const press = (name: string): boolean => fireEvent.click(screen.getByRole('button', { name }));
  const kept = { yieldG: 36, timeS: 26.4, firstDropS: null, way: 'scale' };

  it('starts at the aim, with the yield in focus: one tap keeps it', () => {
    const { onKeep } = open();
    expect(document.activeElement).toBe(field(/^Yield/));
    press('Keep this shot');
    expect(onKeep).toHaveBeenCalledWith(kept);
  });

  it('takes three taps and one to keep, from the keypad', () => {
    const { onKeep } = open();
    for (const digit of ['3', '4', '6']) press(digit);
    press('Keep this shot');
    expect(onKeep).toHaveBeenCalledWith({ ...kept, yieldG: 34.6 });
  });

  it('is kept by Enter from any field, and steps by tenths and grams', () => {
    const { onKeep } = open();
    press('More by 1');
    press('Less by 0.1');
    fireEvent.focus(field(/^First drop/));
    press('6');
    press('1');
    fireEvent.submit(field(/^First drop/).form!);
    expect(onKeep).toHaveBeenCalledWith({ ...kept, yieldG: 36.9, firstDropS: 6.1 });
  });

  it('keeps what was typed wrong, and says what is wrong with it', () => {
    const { onKeep } = open();
    type(/^Yield/, '36,4');
    type(/^First drop/, '28');
    press('Keep this shot');
    expect(onKeep).not.toHaveBeenCalled();
    expect(screen.getByText(/cannot fall after the shot has ended/)).toBeTruthy();
    type(/^First drop/, '6');
    type(/^Time/, 'x');
    press('Keep this shot');
    expect(screen.getByText(/Type the .*time as a number/)).toBeTruthy();
    expect(field(/^Time/).value).toBe('x');
    type(/^Time/, '27');
    press('Keep this shot');
    expect(onKeep).toHaveBeenCalledWith({ ...kept, yieldG: 36.4, timeS: 27, firstDropS: 6 });
  });

  it('reads a marked glass: millilitres, and about how many grams those are', () => {
    const { onKeep } = open({ way: 'glass' });
    expect(field(/^Yield, ml/).value).toBe('47');
    for (const digit of ['4', '5']) press(digit);
    expect(screen.getByText(/About 34.5 g, crema included: as glasses usually weigh/)).toBeTruthy();
    press('Keep this shot');
    expect(onKeep).toHaveBeenCalledWith({ ...kept, yieldG: 34.5, glassMl: 45, way: 'glass' });
  });

  it('can be read another way than the house does', () => {
    const { onKeep } = open();
    fireEvent.click(screen.getByRole('radio', { name: 'By eye' }));
    press('Keep this shot');
    expect(onKeep).toHaveBeenCalledWith({ ...kept, way: 'eye' });
  });

  it('asks for the dose where none was weighed, and for the time where nobody stopped it', () => {
    const { onKeep, onDiscard } = open({ doseG: 18, timeS: null });
    expect(field(/^Time/).value).toBe('27.5');
    type(/^Dose/, '17.6');
    press('Keep this shot');
    expect(onKeep).toHaveBeenCalledWith({ ...kept, timeS: 27.5, doseG: 17.6 });
    press('It was none');
    expect(onDiscard).toHaveBeenCalledOnce();
  });
});

describe('a pull that is asked about', () => {
  it('ran for minutes: it may be typed, have choked, run on, or be none', () => {
    const did = { onType: vi.fn(), onChoked: vi.fn(), onRunsOn: vi.fn(), onDiscard: vi.fn() };
    renderPart(<ForgottenPull elapsedS={134} {...did} />);
    expect(screen.getByText(/It has run for 2 min 14 s/)).toBeTruthy();
    for (const name of [/^It is in the cup/, /^It choked/, 'It still runs', /^It was none/]) {
      fireEvent.click(screen.getByRole('button', { name }));
    }
    for (const act of Object.values(did)) expect(act).toHaveBeenCalledOnce();
  });

  it('was started for another group: it belongs here, there, or nowhere', () => {
    const [onHere, onDiscard] = [vi.fn(), vi.fn()];
    renderPart(
      <PullElsewhere group="Group 1" here="Group 2" backTo="/bench/a/1" onHere={onHere} onDiscard={onDiscard} />,
    );
    expect(screen.getByRole('link', { name: /^It is in Group 1/ }).getAttribute('href')).toBe('/bench/a/1');
    fireEvent.click(screen.getByRole('button', { name: 'It is in Group 2' }));
    fireEvent.click(screen.getByRole('button', { name: /^It was none/ }));
    expect(onHere).toHaveBeenCalledOnce();
    expect(onDiscard).toHaveBeenCalledOnce();
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
