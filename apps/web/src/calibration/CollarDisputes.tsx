import { Button, Group, Stack, Text, TextInput } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { collarDispute, type CollarDispute } from '@tempera/core/calibration';
import { ofGrinder } from '@tempera/core/facts';
import { parseNumber } from '@tempera/core/house';
import { useState } from 'react';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { clock, dialNumber } from '../kernel/format.ts';
import { usePeople } from '../team/index.ts';
import { useNow } from '../ui/useNow.ts';

interface Props {
  session: Session;
  /** Absent: of every grinder. */
  grinderId?: string;
}

/** Collars that two tablets turned while they were apart: both moves stand in the journal, and the dial is asked. */
export function CollarDisputes({ session, grinderId }: Props) {
  const nowMs = useNow();
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const asked = (bar?.grinders ?? [])
    .filter(({ id }) => grinderId === undefined || id === grinderId)
    .flatMap((grinder) => {
      const dispute = collarDispute(ofGrinder(facts, grinder.id), nowMs);
      return dispute ? [{ grinder, dispute }] : [];
    });
  return asked.map(({ grinder, dispute }) => (
    <Asked key={dispute.later.id} grinder={grinder} dispute={dispute} session={session} />
  ));
}

interface AskedProps {
  grinder: Bar['grinders'][number];
  dispute: CollarDispute;
  session: Session;
}

function Asked({ grinder, dispute: { earlier, later }, session }: AskedProps) {
  const people = usePeople();
  const write = useWriteFacts();
  const [text, setText] = useState('');
  const nameOf = (id: string): string => people.find((person) => person.id === id)?.name ?? 'Somebody';
  const told = ({ at, personId, body: { from, to } }: CollarDispute['later']): string =>
    `${nameOf(personId)} from ${dialNumber(from)} to ${dialNumber(to)} at ${clock(Date.parse(at), session.site.timeZone)}`;
  const shows = (to: number): void => {
    const { service } = later.body;
    const body = { from: later.body.to, to, advisedTo: null, ...(service === undefined ? {} : { service }) };
    write([{ kind: 'collarMove', grinderId: grinder.id, groupId: null, body }]);
  };
  const typed = parseNumber(text);
  const onDial = typed !== null && typed >= grinder.dialMin && typed <= grinder.dialMax;
  return (
    <Stack className="sheet" gap="xs" mb="md" role="status">
      <Text>
        {grinder.name} was turned twice, and neither knew of the other: {told(earlier)}, {told(later)}. What does the
        dial show?
      </Text>
      <Group gap="xs" align="end">
        {[...new Set([later.body.to, earlier.body.to])].map((to) => (
          <Button key={to} mih={48} variant="default" onClick={() => shows(to)}>
            {dialNumber(to)}
          </Button>
        ))}
        <TextInput
          aria-label={`${grinder.name} shows`}
          placeholder="another"
          size="md"
          w={110}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Button mih={48} variant="default" disabled={!onDial} onClick={() => typed !== null && shows(typed)}>
          It shows this
        </Button>
      </Group>
    </Stack>
  );
}
