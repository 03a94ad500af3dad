import { Button, Group, Text } from '@mantine/core';
import { dayNumbers } from '@tempera/core/day';
import { emptyFirstWord } from '../calibration/index.ts';
import { useWriteFacts, useWriteStep } from '../kernel/facts.tsx';
import { dialNumber, grams, seconds } from '../kernel/format.ts';
import type { DayStation } from './useDay.ts';

/** Which way the hands change. */
export const firmerWord = (tampS: number): string => (tampS > 0 ? 'firmer' : 'lighter');

/** Whether it is no matter between two orders: a shot of its own says more. */
export const isForBench = ({ action, byBench }: DayStation['advice']): boolean =>
  action === 'dose' || (byBench && action !== 'leave');

/** When the move is looked at: at once where it is in doubt. */
const thenWord = (nextCheckMin: number): string =>
  nextCheckMin > dayNumbers.doubtedCheckMin ? `Then a shot in ${nextCheckMin} min.` : 'Then time the next shot.';

/** A small change between two orders, with purge and grind time; whoever puts it off reads above what it costs. */
export function AdviceInService({ station }: { station: DayStation }) {
  const { advice, state, grinder } = station;
  if (advice.action === 'leave') return null;
  if (isForBench(advice)) return <Text>What was poured last is no small drift.</Text>;
  if (advice.tampS !== null) {
    return (
      <Text>
        Tamp a touch <strong>{firmerWord(advice.tampS)}</strong>, worth {seconds(Math.abs(advice.tampS))}, and leave the
        collar. Then time the next shot.
      </Text>
    );
  }
  const newDoseG = advice.doseG ?? grinder.recipe.doseG;
  return advice.action === 'move' ? (
    <Move station={station} from={state.setting} doseG={newDoseG} />
  ) : (
    <Trim station={station} doseG={newDoseG} />
  );
}

/** The collar by a mark or two: purged, its grind time set, and the next shot tells. */
function Move({ station, from, doseG }: { station: DayStation; from: number; doseG: number }) {
  const writeFacts = useWriteFacts();
  const writeStep = useWriteStep();
  const { grinder, advice } = station;
  const { setting: to, purgeG } = advice;
  const grindTimeS = station.grindTimeS === null ? null : station.grindTimeFor(doseG, to);
  // A trim was for the place between two marks that is left.
  const weighsOtherwise = grams(doseG) !== grams(station.doseG);
  const done = (): void => {
    const at = { grinderId: grinder.id, groupId: null };
    writeFacts([
      { kind: 'collarMove', ...at, body: { from, to, advisedTo: to, service: true } },
      { kind: 'purge', ...at, body: { purgeG } },
    ]);
    if (grindTimeS !== null || weighsOtherwise)
      writeStep({ step: 'doseSet', grinderId: grinder.id, doseG, grindTimeS });
  };
  return (
    <Group gap="sm">
      <Text>
        {station.chamberFilledAtMs !== null && `${emptyFirstWord}. `}Between two orders: from {dialNumber(from)} to{' '}
        <strong>{dialNumber(to)}</strong>, {grams(purgeG)} into the knock box
        {weighsOtherwise ? `, ${grams(doseG)} again in the basket` : ''}
        {grindTimeS === null ? '' : `, grind ${seconds(grindTimeS)}`}. {thenWord(advice.nextCheckMin)}
      </Text>
      <Button mih={48} onClick={done}>
        It is done
      </Button>
    </Group>
  );
}

/** Between two marks the dose takes up the rest; the collar is left. */
function Trim({ station, doseG }: { station: DayStation; doseG: number }) {
  const writeStep = useWriteStep();
  const { grinder, state } = station;
  const grindTimeS = station.grindTimeS === null ? null : station.grindTimeFor(doseG, state.setting);
  return (
    <Group gap="sm">
      <Text>
        From now on <strong>{grams(doseG)}</strong>
        {grindTimeS === null ? '' : `, grind ${seconds(grindTimeS)}`}; leave the collar.
      </Text>
      <Button mih={48} onClick={() => writeStep({ step: 'doseSet', grinderId: grinder.id, doseG, grindTimeS })}>
        It is done
      </Button>
    </Group>
  );
}
