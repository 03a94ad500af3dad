import { Button, Group, Stack, Text, TextInput } from '@mantine/core';
import { isLicensed, type UpkeepState } from '@tempera/core/bar';
import type { Session } from '@tempera/contract/team';
import { useState } from 'react';
import { useWriteStep } from '../kernel/facts.tsx';
import { dayWord } from '../kernel/format.ts';
import { Caution } from '../ui/Notice.tsx';
import { useBar } from './queries.ts';
import { upkeepLine, upkeepWord } from './upkeepWords.ts';
import classes from './Pieces.module.css';

interface Props {
  session: Session;
  states: readonly UpkeepState[];
}

/** What is kept up, line by line, each with the one tap that says it is done. */
export function UpkeepList({ session, states }: Props) {
  const { data: bar } = useBar();
  const nameOf = (id: string): string =>
    [...(bar?.machines ?? []), ...(bar?.grinders ?? []), ...(bar?.waiting ?? [])].find((one) => one.id === id)?.name ??
    'a station';
  if (states.length === 0) return <Text>Nothing falls due this week.</Text>;
  return (
    <Stack gap="sm">
      <ul className={classes.upkeep}>
        {states.map((state) => (
          <UpkeepLine
            key={`${state.item.what} ${state.item.stationId}`}
            state={state}
            station={nameOf(state.item.stationId)}
            may={session.person.role !== 'trainee' && session.person.role !== 'office'}
          />
        ))}
      </ul>
      {states.some(({ item }) => isLicensed(item.what)) && (
        <Caution>
          Descaling and service are work for a licensed technician, by your local code: here it is only written down.
        </Caution>
      )}
    </Stack>
  );
}

function UpkeepLine({ state, station, may }: { state: UpkeepState; station: string; may: boolean }) {
  const write = useWriteStep();
  const { what, stationId, lastOn, lastBy } = state.item;
  const licensed = isLicensed(what);
  const [by, setBy] = useState('');
  const [asking, setAsking] = useState(false);
  const done = (): void => {
    write({ step: 'upkept', what, stationId, by: by.trim() });
    setAsking(false);
  };
  return (
    <li>
      <Group justify="space-between">
        <div>
          <Text>
            <strong>{station}</strong>, {upkeepLine(state)}
          </Text>
          <Text className="faint">
            {lastOn === null ? 'Never written down.' : `Last done ${dayWord(lastOn)}${lastBy ? ` by ${lastBy}` : ''}.`}
          </Text>
        </div>
        {may && !asking && (
          <Button
            variant="default"
            mih={48}
            aria-label={`${upkeepWord[what].done}: ${station}`}
            onClick={() => (licensed ? setAsking(true) : done())}
          >
            {upkeepWord[what].done}
          </Button>
        )}
      </Group>
      {asking && (
        <Group align="end">
          <TextInput
            label="By whom"
            size="md"
            maxLength={100}
            value={by}
            onChange={(event) => setBy(event.currentTarget.value)}
          />
          <Button mih={48} disabled={by.trim() === ''} onClick={done}>
            Write it down
          </Button>
          <Button mih={48} variant="default" onClick={() => setAsking(false)}>
            Not yet
          </Button>
        </Group>
      )}
    </li>
  );
}
