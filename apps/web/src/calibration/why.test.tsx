import type { Grinder } from '@tempera/contract/bar';
import { usualHouse } from '@tempera/contract/policy';
import { emptyMemory, updateWithFacts } from '@tempera/core/calibration';
import { memoryContextOf } from '@tempera/contract/station';
import { standingFacts, type FactOf, type ShotBody } from '@tempera/core/facts';
import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { curveOf, shotPoints } from './responseCurve.ts';
import type { BenchView } from './useBench.ts';
import { viewBench } from './viewBench.ts';
import { whatIsKnown } from './whatIsKnown.ts';
import { WhyDrawer } from './WhyDrawer.tsx';

// Charts draw on a canvas that this environment has not got; what they are drawn from is tested below.
vi.mock('./ResponseChart.tsx', () => ({ default: () => null }));
afterEach(cleanup);

const grinder = {
  id: 'house',
  name: 'House',
  stepMarks: 1,
  finer: 'down',
  dialMin: 1,
  dialMax: 60,
  secondsPerMark: 2.5,
  retentionG: null,
  seedSetting: 30,
  others: [],
  recipe: { id: 'recipe', timeFrom: 'pump', doseG: 18, yieldG: 36, doseToleranceG: 0.3, timeMinS: 25, timeMaxS: 30 },
} as unknown as Grinder;
const group = { id: 'group', name: 'Group 2' };
const NOW_MS = Date.parse('2031-05-04T06:10:00Z');

const shot = (minute: number, change: Partial<ShotBody>): FactOf<'shot'> => ({
  id: `0${minute}`,
  kind: 'shot',
  at: new Date(NOW_MS - (20 - minute) * 60_000).toISOString(),
  personId: 'ines',
  grinderId: 'house',
  groupId: 'group',
  body: {
    recipeVersionId: 'recipe',
    setting: 30,
    doseG: 18,
    yieldG: 36,
    timeS: 22,
    firstDropS: 6,
    flaw: null,
    measuredBy: 'scale',
    trace: null,
    ...change,
  },
});

function viewOf(facts: FactOf<'shot'>[]): BenchView {
  const bar = { grinders: [grinder], recipesNamed: [] };
  const standing = standingFacts(facts);
  const memory = updateWithFacts(emptyMemory, standing, memoryContextOf(bar));
  const known = { grinder, group, bar, standing, facts: standing, house: usualHouse, nowMs: NOW_MS };
  return {
    ...known,
    ...viewBench(grinder, standing, { house: usualHouse, recipesNamed: [] }, NOW_MS, memory),
  } as unknown as BenchView;
}

describe('the why drawer', () => {
  it('shows every choice with its chance, the advised one marked, and what other rules would do', () => {
    const view = viewOf([shot(1, { timeS: 22 })]);
    renderPart(<WhyDrawer view={view} onClose={() => undefined} />);
    expect(screen.getByRole('heading', { name: /Turn \d marks? finer/ })).toBeTruthy();
    const advised = screen.getByRole('row', { name: /advised/ });
    expect(within(advised).getByText(/^\d+ %$/)).toBeTruthy();
    expect(screen.getByRole('row', { name: /30 here/ })).toBeTruthy();
    expect(screen.getByText('The first good shot')).toBeTruthy();
    expect(screen.getByText('(yours)').parentElement?.textContent).toContain('A stated sureness');
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain('the window is 25 to 30 s');
  });

  it('says nothing of other rules while the last shot is no evidence', () => {
    renderPart(<WhyDrawer view={viewOf([shot(1, { flaw: 'channel' })])} onClose={() => undefined} />);
    expect(screen.queryByText('One repeat')).toBeNull();
  });
});

describe('what is known of a bench', () => {
  it('is told in seconds, each with its doubt', () => {
    const says = Object.fromEntries(whatIsKnown(viewOf([shot(1, {})])).map(({ what, says: words }) => [what, words]));
    // By hand: 2.5 s a mark is believed within 30 %, two sd of it 1.5 s; the same to either side of the group.
    expect(says['One mark finer']).toBe('2.5 s slower, give or take 1.5 s');
    expect(says['0.1 g more coffee']).toBe('about 0.3 s slower');
    expect(says['Group 2']).toMatch(/fast|slow/);
  });
});

describe('the drawn curve', () => {
  it('runs through the window where the advice goes, and slower the finer', () => {
    const { state, advice } = viewOf([shot(1, { timeS: 21 })]);
    const curve = curveOf(state.adviceCase, advice);
    const at = (setting: number) =>
      curve.reduce((near, point) =>
        Math.abs(point.setting - setting) < Math.abs(near.setting - setting) ? point : near,
      );
    expect(at(advice.setting).timeS).toBeGreaterThan(25);
    expect(at(advice.setting).timeS).toBeLessThan(30);
    expect(at(26).timeS).toBeGreaterThan(at(32).timeS);
    expect(curve.every(({ lowS, timeS, highS }) => lowS < timeS && timeS < highS)).toBe(true);
    expect(Math.min(...curve.map(({ setting }) => setting))).toBeGreaterThanOrEqual(grinder.dialMin);
  });

  it('draws shots at the recipe, and marks those that count for little', () => {
    const { state, advice } = viewOf([shot(1, { yieldG: 40, timeS: 24 }), shot(2, { flaw: 'uneven', timeS: 17 })]);
    const [first, second] = shotPoints(state.adviceCase, advice);
    // 24 s to 40 g are less than 24 s to 36 g.
    expect(first?.timeS).toBeLessThan(23);
    expect(first?.counts).toBe(true);
    expect(second).toMatchObject({ timeS: 17, counts: false });
  });
});
