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

const stepOf: Record<JobKind, ComponentType<StepProps>> = {
  water: WaterStep,
  switchOn: SwitchOnStep,
  hot: HotStep,
  scale: ScaleStep,
  hopper: HopperStep,
  rinse: RinseStep,
  doseTime: DoseTimeStep,
  dial: DialStep,
  groupCheck: GroupCheckStep,
  button: ButtonStep,
  taste: TasteStep,
  milk: MilkStep,
  signOff: SignOffStep,
};

/** The step of a job, and the ways around it. */
export function StepPanel(props: StepProps) {
  const { state, write } = props;
  const [leaving, setLeaving] = useState(false);
  const Step = stepOf[state.job.kind];
  return (
    <Stack>
      <Step key={state.job.key} {...props} />
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
