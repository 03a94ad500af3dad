import { Button, NativeSelect, Text } from '@mantine/core';
import type { MassTrace } from '@tempera/core/capture';
import type { LivePull, ScaleMishap } from '../capture/index.ts';
import { Link } from 'react-router';
import { grams } from '../kernel/format.ts';
import { useAwake, useCue } from '../kernel/senses.ts';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './PullPanel.module.css';
import { RecordedShot } from './RecordedShot.tsx';

export type Measuring = 'scale' | 'hand' | 'recording';

export interface ControlsProps {
  live: LivePull | null;
  /** Whether pulling is the next thing; it may be done at any other time as well. */
  ready: boolean;
  /** What waits in the portafilter; null: nothing was weighed. */
  doseG: number | null;
  measuring: Measuring;
  /** What the bench is connected to; null: nothing, all is typed. */
  deviceName: string | null;
  onMeasuring: (measuring: Measuring) => void;
  onPull: () => void;
  /** The first drop fell, where no scale sees it. */
  onDrop: () => void;
  onDiscard: () => void;
  /** What is still falling is not waited for. */
  onKeepNow: () => void;
  /** A shot is typed that was pulled without the app. */
  onEnter: () => void;
  /** Keeps a recorded shot; false where it shows none. */
  onRecording: (trace: MassTrace) => boolean;
  /** Stop now: the drip does the rest. */
  cue: boolean;
  /** What may be made to happen to the scale, for trying; none on a real one. */
  mishaps: readonly ScaleMishap[];
  /** What befalls it in the next pull. */
  mishap: ScaleMishap | null | undefined;
  onMishap: (mishap: ScaleMishap | null) => void;
}

const SOUND = 'sound';
const mishapWord: Record<ScaleMishap, string> = {
  untared: 'Nobody tares the cup',
  drift: 'The scale drifts',
  knock: 'Somebody knocks the scale',
  lost: 'The scale goes silent in mid-shot',
};

/** One large control, and beside it what else can be done with the pull. */
export function PullControls(props: ControlsProps) {
  if (props.live?.draft.stoppedAtS === null) return <WhileRunning {...props} />;
  return props.live ? <WhileDripping {...props} /> : <WhileIdle {...props} />;
}

function WhileRunning({ live, cue, onPull, onDrop, onDiscard }: ControlsProps) {
  useAwake(true);
  useCue('stop', cue);
  const asksDrop = live !== null && !live.draft.byScale && live.draft.firstDropS == null;
  return (
    <div className={classes.controls}>
      <Button className={classes.pull} data-running data-cue={cue} onClick={onPull}>
        {cue ? 'Stop now' : 'Stop'}
        <Text span size="sm" ml="sm" visibleFrom="sm">
          space bar
        </Text>
      </Button>
      {asksDrop && (
        <Button className={classes.beside} variant="default" onClick={onDrop}>
          First drop
        </Button>
      )}
      <Button className={classes.beside} variant="default" onClick={onDiscard}>
        It was none
      </Button>
    </div>
  );
}

function WhileDripping({ onKeepNow, onDiscard }: ControlsProps) {
  return (
    <div className={classes.controls}>
      <Button className={classes.beside} variant="default" onClick={onKeepNow}>
        Type the rest
      </Button>
      <Button className={classes.beside} variant="default" onClick={onDiscard}>
        It was none
      </Button>
    </div>
  );
}

function WhileIdle(props: ControlsProps) {
  const { ready, doseG, measuring, deviceName, mishap, mishaps } = props;
  return (
    <>
      <div className={classes.controls}>
        <Button
          className={classes.pull}
          onClick={props.onPull}
          disabled={measuring === 'recording'}
          variant={ready ? 'filled' : 'default'}
        >
          {doseG === null ? 'Pull' : `Pull with ${grams(doseG)}`}
          <Text span size="sm" ml="sm" visibleFrom="sm">
            space bar
          </Text>
        </Button>
        <OneOf
          label="How the shot is measured"
          value={measuring}
          onChange={(value) => props.onMeasuring(value)}
          options={[
            ...(deviceName === null ? [] : [{ value: 'scale' as const, label: 'Scale' }]),
            { value: 'hand', label: 'By hand' },
            { value: 'recording', label: 'Recording' },
          ]}
        />
        <Button className={classes.beside} variant="default" onClick={props.onEnter}>
          Enter a shot
        </Button>
      </div>
      {measuring === 'recording' && <RecordedShot ready={doseG !== null} onRecording={props.onRecording} />}
      {mishaps.length > 0 && measuring === 'scale' && (
        <NativeSelect
          aria-label="What befalls the simulated scale"
          size="lg"
          value={mishap ?? SOUND}
          data={[
            { value: SOUND, label: 'The scale works as it should' },
            ...mishaps.map((one) => ({ value: one, label: mishapWord[one] })),
          ]}
          onChange={({ currentTarget: { value } }) => props.onMishap(mishaps.find((one) => one === value) ?? null)}
        />
      )}
      {measuring !== 'recording' && (
        <Text size="xs" className="faint">
          {deviceName !== null && measuring === 'scale' && `${deviceName} under the cup. `}
          <Link to="/devices">{deviceName === null ? 'Connect a scale' : 'Devices'}</Link>
        </Text>
      )}
    </>
  );
}
