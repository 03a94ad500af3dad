import { Stack, Text } from '@mantine/core';
import type { RecipeVersion } from '@tempera/contract/house';
import { aheadG, findFirstDropS, lastMassG, type GoodBand, type MassTrace } from '@tempera/core/capture';
import { Suspense, type ReactNode } from 'react';
import { LiveChart, useLiveNow, type LiveNow, type LivePull } from '../capture/index.ts';
import { grams } from '../kernel/format.ts';
import { digitsShown, numberShown, unitShown } from '../kernel/units.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { Caution } from '../ui/Notice.tsx';
import { PullControls, type ControlsProps } from './PullControls.tsx';
import classes from './PullPanel.module.css';
import { isCue, type Stopping } from './useStopping.ts';

export interface PullPanelProps extends Omit<ControlsProps, 'live'> {
  recipe: RecipeVersion;
  live: LivePull | null;
  /** The last shot's trace, shown until the next pull. */
  resting: { trace: MassTrace; firstDropS: number | null; timeS: number } | null;
  band: GoodBand | null;
  /** Whether something is asked or typed in the place of readings and controls. */
  asks: boolean;
  /** What is. */
  instead: ReactNode;
}

const NO_TRACE: MassTrace = { hz: 10, massG: [] };

/** The same, following the pull sample by sample, so that the bench around it need not. */
export function LivePullPanel({
  now,
  stopping,
  ...props
}: Omit<PullPanelProps, 'live' | 'cue' | 'band'> & { now: LiveNow; stopping: Stopping }) {
  const live = useLiveNow(now);
  return <PullPanel {...props} live={live} cue={isCue(stopping, live, props.recipe.yieldG)} band={stopping.band} />;
}

/** Pull: the running clock and mass, the shot as it is drawn, and one large control. */
export function PullPanel({ asks, instead, ...props }: PullPanelProps) {
  const { live } = props;
  const lost = live !== null && live.lost && live.draft.byScale;
  const running = live !== null && live.draft.stoppedAtS === null;
  return (
    <Stack component="section" aria-label="Shot" gap="sm" className={classes.panel}>
      {lost && (
        <Text role="alert" fw={600}>
          The scale is gone. What came is kept{running ? '; stop by the clock' : ''}, and you type the rest.
        </Text>
      )}
      {asks ? (
        instead
      ) : (
        <>
          <Readings {...props} />
          <PullControls {...props} />
        </>
      )}
      <Caution>Hot water, steam and metal: hands off group and basket, and never unlock under pressure.</Caution>
    </Stack>
  );
}

function Readings({ recipe, live, resting, band, measuring }: Omit<PullPanelProps, 'asks' | 'instead'>) {
  const trace = live?.trace ?? resting?.trace ?? NO_TRACE;
  const byHand = live !== null && !live.draft.byScale;
  const firstDropS = live ? (live.draft.firstDropS ?? findFirstDropS(live.trace)) : (resting?.firstDropS ?? null);
  const massG = lastMassG(trace);
  const ahead =
    live && !byHand
      ? aheadG(
          trace,
          { yieldG: recipe.yieldG, timeS: { min: recipe.timeMinS, max: recipe.timeMaxS }, firstDropS },
          band,
        )
      : null;
  const blank = byHand || (live === null && resting === null && measuring === 'hand');
  return (
    <>
      <div className={classes.readings}>
        <Reading name="time" value={(live?.elapsedS ?? resting?.timeS ?? 0).toFixed(1)} unit="s" />
        <Reading
          name="in the cup"
          value={numberShown('g', massG).toFixed(digitsShown('g', 1))}
          unit={unitShown('g')}
          muted={blank}
        />
        <Reading name="first drop" value={firstDropS === null ? '–' : firstDropS.toFixed(1)} unit="s" />
        {ahead !== null && <Reading name={ahead >= 0 ? 'ahead' : 'behind'} {...massReading(Math.abs(ahead))} />}
      </div>
      {!blank && (
        <div className={classes.chart} role="img" aria-label={chartWords(massG, recipe)}>
          <PanelBoundary what="The chart">
            <Suspense fallback={null}>
              <LiveChart
                trace={trace}
                firstDropS={firstDropS}
                stoppedAtS={live?.draft.stoppedAtS ?? (live === null ? (resting?.timeS ?? null) : null)}
                recipe={recipe}
                band={band}
              />
            </Suspense>
          </PanelBoundary>
        </div>
      )}
    </>
  );
}

const massReading = (g: number) => ({
  value: numberShown('g', g).toFixed(digitsShown('g', 1)),
  unit: unitShown('g'),
});

function chartWords(massG: number, recipe: RecipeVersion): string {
  return `Mass and flow over time: ${grams(massG)} of ${grams(recipe.yieldG)}, window ${recipe.timeMinS} to ${recipe.timeMaxS} s`;
}

function Reading({ name, value, unit, muted = false }: { name: string; value: string; unit: string; muted?: boolean }) {
  return (
    <div className={classes.reading} data-muted={muted}>
      <span className="faint">{name}</span>
      <span>
        <span className={classes.figure}>{value}</span> {unit}
      </span>
    </div>
  );
}
