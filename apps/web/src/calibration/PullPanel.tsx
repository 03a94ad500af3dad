import { Button, Group, SegmentedControl, Select, Stack, Text } from '@mantine/core';
import type { RecipeVersion } from '@tempera/contract/house';
import { findFirstDropS, lastMassG, type GoodBand, type MassTrace } from '@tempera/core/capture';
import { limits } from '@tempera/core/house';
import { Suspense, useState } from 'react';
import {
  LiveChart,
  useLiveNow,
  scaleMishaps,
  type LiveNow,
  type LivePull,
  type ScaleMishap,
} from '../capture/index.ts';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { grams } from '../kernel/format.ts';
import { digitsShown, numberShown, unitShown } from '../kernel/units.ts';
import { Caution } from '../ui/Notice.tsx';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';
import type { HandNumbers } from './benchFacts.ts';
import classes from './PullPanel.module.css';
import { RecordedShot } from './RecordedShot.tsx';
import { isCue, type Stopping } from './useStopping.ts';

export type Measuring = 'scale' | 'hand' | 'recording';

interface Props {
  recipe: RecipeVersion;
  live: LivePull | null;
  /** The last shot's trace, shown until the next pull. */
  resting: { trace: LivePull['trace']; firstDropS: number | null; timeS: number } | null;
  ready: boolean;
  doseG: number | null;
  measuring: Measuring;
  /** What the bench is connected to; null: nothing, all is typed. */
  deviceName: string | null;
  onMeasuring: (measuring: Measuring) => void;
  onPull: () => void;
  onByHand: (numbers: HandNumbers) => void;
  onDiscard: () => void;
  /** Keeps a recorded shot; false where it shows none. */
  onRecording: (trace: MassTrace) => boolean;
  /** Stop now: the drip does the rest. */
  cue: boolean;
  band: GoodBand | null;
  /** What befalls the simulated scale; undefined where no scale is simulated. */
  mishap: ScaleMishap | null | undefined;
  onMishap: (mishap: ScaleMishap | null) => void;
}

const NO_TRACE = { hz: 10, massG: [] };
const SOUND = 'sound';
const mishapWord: Record<ScaleMishap, string> = {
  untared: 'Nobody tares the cup',
  drift: 'The scale drifts',
  knock: 'Somebody knocks the scale',
  lost: 'The scale goes silent in mid-shot',
};

/** The same, following the pull sample by sample, so that the bench around it need not. */
export function LivePullPanel({
  now,
  stopping,
  ...props
}: Omit<Props, 'live' | 'cue' | 'band'> & { now: LiveNow; stopping: Stopping }) {
  const live = useLiveNow(now);
  return <PullPanel {...props} live={live} cue={isCue(stopping, live, props.recipe.yieldG)} band={stopping.band} />;
}

/** Pull: one large control, the running clock and mass, and the shot as it is drawn. */
export function PullPanel(props: Props) {
  const { recipe, live, resting, ready, doseG, measuring } = props;
  const running = live !== null && live.draft.stoppedAtS === null;
  const lost = live !== null && live.lost && live.draft.byScale;
  const byHand = live !== null && live.draft.stoppedAtS !== null && (!live.draft.byScale || lost);
  const trace = live?.trace ?? resting?.trace ?? NO_TRACE;
  const firstDropS = live ? findFirstDropS(live.trace) : (resting?.firstDropS ?? null);
  const massG = lastMassG(trace);
  return (
    <Stack component="section" aria-label="Shot" gap="sm" className={classes.panel}>
      {lost && (
        <Text role="alert" fw={600}>
          The scale is gone. What came is kept{running ? '; stop by the clock' : ''}, and you type the rest.
        </Text>
      )}
      {!byHand && (
        <>
          <div className={classes.readings}>
            <Reading name="time" value={(live?.elapsedS ?? resting?.timeS ?? 0).toFixed(1)} unit="s" />
            <Reading
              name="in the cup"
              value={numberShown('g', massG).toFixed(digitsShown('g', 1))}
              unit={unitShown('g')}
              muted={measuring === 'hand' && live !== null && !live.draft.byScale}
            />
            <Reading name="first drop" value={firstDropS === null ? '–' : firstDropS.toFixed(1)} unit="s" />
          </div>
          <div className={classes.chart} role="img" aria-label={chartWords(massG, recipe)}>
            <PanelBoundary what="The chart">
              <Suspense fallback={null}>
                <LiveChart
                  trace={trace}
                  firstDropS={firstDropS}
                  stoppedAtS={live?.draft.stoppedAtS ?? resting?.timeS ?? null}
                  recipe={recipe}
                  band={props.band}
                />
              </Suspense>
            </PanelBoundary>
          </div>
        </>
      )}
      {byHand ? (
        <HandShot
          recipe={recipe}
          timeS={live.draft.stoppedAtS ?? 0}
          onSave={props.onByHand}
          onDiscard={props.onDiscard}
        />
      ) : (
        <div className={classes.controls}>
          <Button
            className={classes.pull}
            data-running={running}
            data-cue={props.cue}
            onClick={props.onPull}
            disabled={(!ready || measuring === 'recording') && !running}
            variant={ready || running ? 'filled' : 'default'}
          >
            {running
              ? props.cue
                ? 'Stop now'
                : 'Stop'
              : live
                ? 'Dripping'
                : ready
                  ? `Pull ${doseG === null ? '' : `with ${grams(doseG)}`}`
                  : 'Pull'}
            <Text span size="sm" ml="sm" visibleFrom="sm">
              space bar
            </Text>
          </Button>
          {!live && (
            <SegmentedControl
              aria-label="How the shot is measured"
              value={measuring}
              onChange={(value) => props.onMeasuring(value)}
              data={[
                ...(props.deviceName === null ? [] : [{ value: 'scale' as const, label: 'Scale' }]),
                { value: 'hand', label: 'By hand' },
                { value: 'recording', label: 'Recording' },
              ]}
            />
          )}
        </div>
      )}
      {measuring === 'recording' && !live && <RecordedShot ready={ready} onRecording={props.onRecording} />}
      {props.mishap !== undefined && measuring === 'scale' && !live && (
        <Select
          aria-label="What befalls the simulated scale"
          size="sm"
          value={props.mishap ?? SOUND}
          allowDeselect={false}
          data={[
            { value: SOUND, label: 'The scale works as it should' },
            ...scaleMishaps.map((mishap) => ({ value: mishap, label: mishapWord[mishap] })),
          ]}
          onChange={(value) => props.onMishap(scaleMishaps.find((mishap) => mishap === value) ?? null)}
        />
      )}
      {props.deviceName !== null && measuring === 'scale' && (
        <Text size="xs" className="faint">
          {props.deviceName} under the cup
        </Text>
      )}
      <Caution>Hot water, steam and metal: hands off group and basket, and never unlock under pressure.</Caution>
    </Stack>
  );
}

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

function HandShot({
  recipe,
  timeS,
  onSave,
  onDiscard,
}: {
  recipe: RecipeVersion;
  timeS: number;
  onSave: Props['onByHand'];
  onDiscard: () => void;
}) {
  const [yieldText, setYieldText] = useState('');
  const [timeText, setTimeText] = useState(timeS.toFixed(1));
  const [dropText, setDropText] = useState('');
  const [tried, setTried] = useState(false);
  const yieldG = readQuantity(yieldText, 'yieldG', recipe.yieldG);
  const time = readQuantity(timeText, 'timeS', recipe.timeMinS);
  const drop = dropText.trim() === '' ? null : readQuantity(dropText, 'firstDropS');
  const lateDrop = drop?.ok && time.ok && drop.value > time.value;
  const save = (): void => {
    setTried(true);
    if (!yieldG.ok || !time.ok || (drop && !drop.ok) || lateDrop) return;
    onSave({ yieldG: yieldG.value, timeS: time.value, firstDropS: drop?.ok ? drop.value : null });
  };
  return (
    <Stack>
      <div className={classes.hand}>
        <NumberField
          label="Yield"
          unit="g"
          step={limits.yieldG.step}
          text={yieldText}
          onText={setYieldText}
          error={tried && !yieldG.ok ? yieldG.error : null}
          warning={yieldG.ok ? yieldG.warning : null}
        />
        <NumberField
          label="Time"
          unit="s"
          step={limits.timeS.step}
          text={timeText}
          onText={setTimeText}
          error={time.ok ? null : time.error}
          warning={time.ok ? time.warning : null}
        />
        <NumberField
          label="First drop"
          unit="s"
          optional
          step={limits.firstDropS.step}
          text={dropText}
          onText={setDropText}
          error={
            drop && !drop.ok ? drop.error : lateDrop ? 'The first drop cannot fall after the shot has ended.' : null
          }
        />
      </div>
      <Group grow>
        <Button size="lg" onClick={save}>
          Keep this shot
        </Button>
        <Button size="lg" variant="default" onClick={onDiscard}>
          It was none
        </Button>
      </Group>
    </Stack>
  );
}
