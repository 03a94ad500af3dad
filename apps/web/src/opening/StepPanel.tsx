import { Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core';
import { useState, type ComponentType } from 'react';
import type { StepProps } from './steps/stepProps.ts';

const modules = import.meta.glob<Record<string, ComponentType<StepProps>>>('./steps/*Step.tsx', { eager: true });

/** Every panel by its kind of job, found by its name: `steps/RinseStep.tsx` exports `RinseStep`, the panel of `rinse`. */
export const panels: Partial<Record<string, ComponentType<StepProps>>> = Object.fromEntries(
  Object.entries(modules).map(([path, exported]) => {
    const name = path.replace('./steps/', '').replace('.tsx', '');
    return [`${name.charAt(0).toLowerCase()}${name.slice(1).replace(/Step$/, '')}`, exported[name]];
  }),
);

/** The step of a job, and the ways around it. */
export function StepPanel(props: StepProps) {
  const { state, write } = props;
  const [leaving, setLeaving] = useState(false);
  const Panel = panels[state.job.kind];
  return (
    <Stack>
      {Panel && <Panel key={state.job.key} {...props} />}
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
