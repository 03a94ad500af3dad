import { Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core';
import type { JobKind } from '@tempera/core/facts';
import { useState, type ComponentType } from 'react';
import { Link } from 'react-router';
import { DialStep } from './steps/BenchSteps.tsx';
import { ButtonStep } from './steps/ButtonStep.tsx';
import { DoseTimeStep } from './steps/DoseTimeStep.tsx';
import { GroupCheckStep } from './steps/GroupCheckStep.tsx';
import { HopperStep } from './steps/HopperStep.tsx';
import { HotStep, SwitchOnStep } from './steps/MachineSteps.tsx';
import { MilkStep } from './steps/MilkStep.tsx';
import { RinseStep } from './steps/RinseStep.tsx';
import { ScaleStep } from './steps/ScaleStep.tsx';
import type { StepProps } from './steps/stepProps.ts';
import { TasteStep } from './steps/TasteStep.tsx';
import { WaterStep } from './steps/WaterStep.tsx';

function SignOffStep() {
  return (
    <Button size="xl" component={Link} to="/opening/sign-off">
      To the page that is signed
    </Button>
  );
}

/** Each kind of job: its panel, and why it is done, for whoever does it the first time. */
export const jobSteps: Record<JobKind, { Panel: ComponentType<StepProps>; why: string }> = {
  water: {
    Panel: WaterStep,
    why: 'A machine that draws no water burns its heater; an old filter scales the boiler.',
  },
  switchOn: {
    Panel: SwitchOnStep,
    why: 'From the switch it takes its time; everything else hangs on it.',
  },
  hot: {
    Panel: HotStep,
    why: 'It is hot when the gauges say so, not when the minutes are over.',
  },
  scale: {
    Panel: ScaleStep,
    why: 'Every number of the morning comes from the scale: put a known weight on it.',
  },
  hopper: {
    Panel: HopperStep,
    why: 'Another bag is another bed, and its age tells what to expect.',
  },
  rinse: {
    Panel: RinseStep,
    why: 'Clears what stood overnight, brings the group to brew heat, and shows a clogged screen.',
  },
  doseTime: {
    Panel: DoseTimeStep,
    why: 'The first grounds sat in the chute all night. Then weigh what comes out.',
  },
  dial: {
    Panel: DialStep,
    why: 'Until its mean lies in the window as surely as the house asks.',
  },
  groupCheck: {
    Panel: GroupCheckStep,
    why: 'Same coffee, same grinder, another group: what differs is the group.',
  },
  button: {
    Panel: ButtonStep,
    why: 'The mean of what it gives tells the next count.',
  },
  taste: {
    Panel: TasteStep,
    why: 'The numbers fit; the tongue decides.',
  },
  milk: {
    Panel: MilkStep,
    why: 'A wand that is not purged steams yesterday’s milk; a thermometer that lies scalds it.',
  },
  signOff: {
    Panel: SignOffStep,
    why: 'One page for all stations, and your name under it.',
  },
};

/** The step of a job, and the ways around it. */
export function StepPanel(props: StepProps) {
  const { state, write } = props;
  const [leaving, setLeaving] = useState(false);
  const { Panel } = jobSteps[state.job.kind];
  return (
    <Stack>
      <Panel key={state.job.key} {...props} />
      {state.job.kind !== 'signOff' && (
        <Group>
          <Button variant="subtle" color="umber" onClick={() => setLeaving(true)}>
            Leave it out
          </Button>
        </Group>
      )}
      {leaving && (
        <LeaveOut
          onClose={() => setLeaving(false)}
          onLeave={(why) => {
            setLeaving(false);
            write({ step: 'skipped', job: state.job.kind, stationId: state.job.stationId, why });
          }}
        />
      )}
    </Stack>
  );
}

const usualReasons = ['No time', 'Not in use today', 'Broken, service is called', 'Done by somebody before'];

/** Why a job is left out: one tap, or a few words. */
function LeaveOut({ onClose, onLeave }: { onClose: () => void; onLeave: (why: string) => void }) {
  const [why, setWhy] = useState('');
  return (
    <Modal opened onClose={onClose} title="Leave it out: why?" centered>
      <Stack>
        <Text>It stands on the page that is signed.</Text>
        {usualReasons.map((reason) => (
          <Button key={reason} size="lg" variant="default" onClick={() => onLeave(reason)}>
            {reason}
          </Button>
        ))}
        <TextInput
          label="Something else"
          size="lg"
          value={why}
          onChange={(event) => setWhy(event.currentTarget.value)}
        />
        <Button size="lg" disabled={why.trim() === ''} onClick={() => onLeave(why.trim())}>
          Leave it out
        </Button>
      </Stack>
    </Modal>
  );
}
