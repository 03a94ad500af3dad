import type { RecipeVersion } from '@tempera/contract/house';
import type { Grinder } from '@tempera/contract/bar';
import type { CorrectionBody, FactOf, ShotBody } from '@tempera/core/facts';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { DialStrip } from './DialStrip.tsx';
import { ShotEditor } from './ShotEditor.tsx';
import { ShotSign } from './ShotSign.tsx';
import { LookDialog } from './LookDialog.tsx';
import { TurnDialog } from './TurnDialog.tsx';

vi.mock('../capture/LiveChart.tsx', () => ({ LiveChart: () => null }));

afterEach(cleanup);

const grinder = {
  stepMarks: 1,
  finer: 'down',
  dialMin: 1,
  dialMax: 60,
  readsDial: true,
  rateGps: 2,
  recipe: { doseG: 18 },
} as Grinder;
const type = (label: string, text: string): void => {
  fireEvent.change(screen.getByRole('textbox', { name: label }), { target: { value: text } });
};
const button = (name: string | RegExp): HTMLButtonElement => screen.getByRole('button', { name });

describe('correcting a shot', () => {
  const shot = {
    id: 'shot',
    kind: 'shot',
    at: '2031-05-04T06:00:00Z',
    personId: 'ines',
    grinderId: 'grinder',
    groupId: 'group',
    body: {
      recipeVersionId: 'r',
      setting: 30,
      doseG: 18,
      yieldG: 36,
      timeS: 22,
      firstDropS: 6,
      flaw: null,
      measuredBy: 'scale',
      trace: null,
    },
  } as FactOf<'shot'>;
  const open = (of = shot): ReturnType<typeof vi.fn<(body: CorrectionBody) => void>> => {
    const onCorrect = vi.fn<(body: CorrectionBody) => void>();
    const recipe = { yieldG: 36, timeMinS: 25, timeMaxS: 30 } as RecipeVersion;
    renderPart(<ShotEditor shot={of} recipe={recipe} band={null} onClose={() => undefined} onCorrect={onCorrect} />);
    return onCorrect;
  };

  it('shows its trace, where it has one', () => {
    open();
    expect(screen.queryByRole('img', { name: /^Mass and flow/ })).toBeNull();
    cleanup();
    open({ ...shot, body: { ...shot.body, trace: { hz: 10, massG: [0, 0, 1, 2] } } });
    expect(screen.getByRole('img', { name: 'Mass and flow of this shot: 36.0 g' })).toBeTruthy();
  });

  it('writes only what was changed', () => {
    const onCorrect = open();
    expect(button('Correct it').disabled).toBe(true);
    type('Time, s', '27,5');
    fireEvent.click(button('Correct it'));
    expect(onCorrect).toHaveBeenCalledWith({ factId: 'shot', withdrawn: false, shot: { timeS: 27.5 } });
  });

  it('marks a flaw, and takes an unseen first drop back', () => {
    const onCorrect = open();
    fireEvent.click(screen.getByRole('radio', { name: 'Channel' }));
    type('First drop, s (if seen)', '');
    fireEvent.click(button('Correct it'));
    expect(onCorrect).toHaveBeenCalledWith({
      factId: 'shot',
      withdrawn: false,
      shot: { flaw: 'channel', firstDropS: null },
    });
  });

  it('does not write what cannot be', () => {
    open();
    type('First drop, s (if seen)', '23');
    expect(screen.getByRole('alert').textContent).toContain('cannot fall after the shot has ended');
    expect(button('Correct it').disabled).toBe(true);
    type('First drop, s (if seen)', '6');
    type('Yield, g', '501');
    expect(screen.getByText(/A yield lies between 1 and 500 g/)).toBeTruthy();
    expect(button('Correct it').disabled).toBe(true);
  });

  it('withdraws it whole', () => {
    const onCorrect = open();
    fireEvent.click(button(/withdraw it/));
    expect(onCorrect).toHaveBeenCalledWith({ factId: 'shot', withdrawn: true, shot: null });
  });
});

describe('what was done instead', () => {
  const open = (change: Partial<Parameters<typeof TurnDialog>[0]> = {}) => {
    const [onSave, onAgain, onLockHere, onLook] = [vi.fn(), vi.fn(), vi.fn(), vi.fn()];
    renderPart(
      <TurnDialog
        grinder={grinder}
        setting={30}
        purgeCount="grams"
        chance={0.57}
        onClose={() => undefined}
        onAgain={onAgain}
        onLockHere={onLockHere}
        onLook={onLook}
        onSave={onSave}
        {...change}
      />,
    );
    return Object.assign(onSave, { onAgain, onLockHere });
  };

  it('pulls again against any advice, or locks as close enough with its chance', () => {
    const { onAgain, onLockHere } = open();
    fireEvent.click(button('Pull again at 30'));
    expect(onAgain).toHaveBeenCalledOnce();
    fireEvent.click(button('Close enough: lock at 30 (57 %)'));
    expect(onLockHere).toHaveBeenCalledOnce();
  });

  it('takes where the collar stands now and what was purged', () => {
    const onSave = open();
    type('The dial now stands at', '27');
    fireEvent.click(button('Purged: more'));
    fireEvent.click(button('Write it down'));
    expect(onSave).toHaveBeenCalledWith({ setting: 27, purgeG: 0.5 }, null);
  });

  it('counts a purge as the house does, and says where it went', () => {
    const onSave = open({ purgeCount: 'portafilters' });
    type('Purged, portafilters', '1');
    fireEvent.click(screen.getByRole('checkbox', { name: /^Kept for the kitchen/ }));
    fireEvent.click(button('Write it down'));
    expect(onSave).toHaveBeenCalledWith(
      {
        setting: 30,
        purgeG: 18,
        counted: { by: 'portafilters', n: 1 },
        into: 'kitchen',
      },
      null,
    );
    cleanup();
    const seconds = open({ purgeCount: 'seconds' });
    type('Purged, s', '4');
    fireEvent.click(button('Write it down'));
    expect(seconds).toHaveBeenCalledWith({ setting: 30, purgeG: 8, counted: { by: 'seconds', n: 4 } }, null);
  });

  it('writes a move of a collar that shows no number', () => {
    const onSave = open({ grinder: { ...grinder, readsDial: false } });
    expect(screen.queryByRole('textbox', { name: 'The dial now stands at' })).toBeNull();
    fireEvent.click(button('3 finer'));
    fireEvent.click(button('1 coarser'));
    expect(screen.getByText('2 marks finer than it stood.')).toBeTruthy();
    fireEvent.click(button('Write it down'));
    expect(onSave).toHaveBeenCalledWith({ setting: 28, purgeG: 0 }, null);
  });

  it('locks nothing where no shot was pulled, and says so', () => {
    open({ chance: null });
    expect(screen.queryByRole('button', { name: /^Close enough/ })).toBeNull();
    expect(screen.getByText(/pull one shot here first/)).toBeTruthy();
  });

  it('knows where the dial ends', () => {
    const onSave = open();
    type('The dial now stands at', '61');
    expect(screen.getByText(/This dial runs from 1 to 60/)).toBeTruthy();
    fireEvent.click(button('Write it down'));
    expect(onSave).not.toHaveBeenCalled();
  });
});

describe('what was seen or felt', () => {
  it('is noted by one tap, and says what it means', () => {
    const onSeen = vi.fn();
    renderPart(<LookDialog never onSeen={onSeen} onClose={() => undefined} />);
    fireEvent.click(button('coarse sand'));
    expect(onSeen).toHaveBeenCalledWith('sand');
    expect(screen.getByRole('status').textContent).toBe('Noted. Grounds like coarse sand.');
    fireEvent.click(button('Puck sticks to the screen'));
    expect(screen.getByRole('status').textContent).toMatch(/that says little/);
  });
});

describe('the dial, unrolled', () => {
  it('says where it stands and where it goes', () => {
    renderPart(<DialStrip grinder={grinder} from={30} to={28} />);
    expect(screen.getByRole('img', { name: 'The dial stands at 30; turn it to 28' })).toBeTruthy();
  });

  it('has finer on the left whichever way the numbers run', () => {
    const at = (finer: 'down' | 'up', setting: number): number => {
      cleanup();
      const { container } = renderPart(<DialStrip grinder={{ ...grinder, finer }} from={30} to={30} />);
      const label = [...container.querySelectorAll('text')].find((text) => text.textContent === String(setting));
      return Number(label?.getAttribute('x'));
    };
    expect(at('down', 27)).toBeLessThan(160);
    expect(at('up', 33)).toBeLessThan(160);
  });

  it('sets two numbers apart that would touch, and draws no mark beyond the end', () => {
    const { container } = renderPart(<DialStrip grinder={{ ...grinder, dialMin: 29 }} from={30} to={29} />);
    const x = (text: string): number =>
      Number(
        [...container.querySelectorAll('text')].find((element) => element.textContent === text)?.getAttribute('x'),
      );
    expect(Math.abs(x('30') - x('29'))).toBeGreaterThanOrEqual(30);
    expect([...container.querySelectorAll('text')].map((text) => text.textContent)).not.toContain('27');
  });
});

describe('a sign on the trace of a shot', () => {
  /** Six dry seconds, then a flow that changes in the middle of the shot or does not. */
  const shot = (flowsOn: number, flaw: ShotBody['flaw'] = null) => {
    let g = 0;
    const massG = Array.from({ length: 320 }, (_, i) => {
      if (i > 60 && i < 280) g += (i < 150 ? 1.2 : flowsOn) / 10;
      return g;
    });
    return { timeS: 28, flaw, trace: { hz: 10, massG } } as unknown as ShotBody;
  };

  it('is said before the advice is followed, and marked by a tap', () => {
    const onFlaw = vi.fn();
    renderPart(<ShotSign good={null} shot={shot(2.4)} onFlaw={onFlaw} />);
    expect(screen.getByRole('status').textContent).toMatch(/^The flow jumped at 15 s: it looks like a channel/);
    fireEvent.click(button('Mark it: channel'));
    expect(onFlaw).toHaveBeenCalledWith('channel');
  });

  it('is silent on an even shot, and on one that was marked', () => {
    renderPart(<ShotSign good={null} shot={shot(1.2)} onFlaw={() => undefined} />);
    expect(screen.queryByRole('status')).toBeNull();
    cleanup();
    renderPart(<ShotSign good={null} shot={shot(2.4, 'channel')} onFlaw={() => undefined} />);
    expect(screen.queryByRole('status')).toBeNull();
  });
});
